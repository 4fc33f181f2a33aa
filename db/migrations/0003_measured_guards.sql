DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['vehicle', 'vehicle_revision', 'climate_reading', 'photo'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_shop ON %I USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop())', t);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE TRIGGER vehicle_revision_append_only BEFORE UPDATE OR DELETE ON vehicle_revision FOR EACH ROW EXECUTE FUNCTION append_only();
--> statement-breakpoint
CREATE TRIGGER climate_append_only BEFORE UPDATE OR DELETE ON climate_reading FOR EACH ROW EXECUTE FUNCTION append_only();
--> statement-breakpoint
CREATE TRIGGER photo_append_only BEFORE UPDATE OR DELETE ON photo FOR EACH ROW EXECUTE FUNCTION append_only();
