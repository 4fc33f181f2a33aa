ALTER TABLE "shop_settings" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "shop_settings" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY own_shop ON "shop_settings" USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());--> statement-breakpoint
-- Who changed what of a shop, and when, is never rewritten.
CREATE TRIGGER shop_settings_append_only BEFORE UPDATE OR DELETE ON shop_settings FOR EACH ROW EXECUTE FUNCTION append_only();
