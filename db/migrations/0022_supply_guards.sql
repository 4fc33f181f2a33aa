ALTER TABLE "supply_movement" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "supply_movement" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY own_shop ON "supply_movement" USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());--> statement-breakpoint
CREATE TRIGGER supply_append_only BEFORE UPDATE OR DELETE ON supply_movement FOR EACH ROW EXECUTE FUNCTION append_only();
