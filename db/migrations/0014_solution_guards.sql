ALTER TABLE "solution" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "solution" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY own_shop ON "solution" USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
