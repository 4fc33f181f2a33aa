ALTER TABLE fleet_layout ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE fleet_layout FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_shop ON fleet_layout USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
