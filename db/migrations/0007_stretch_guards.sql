DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['panel_scan', 'stretch_solved'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_shop ON %I USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop())', t);
  END LOOP;
END $$;
