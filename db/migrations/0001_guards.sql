-- The shop and the person that a transaction acts for; the data layer sets both, and rows of others do not exist for it.
CREATE FUNCTION current_shop() RETURNS uuid LANGUAGE sql STABLE AS $$ SELECT nullif(current_setting('cuirass.shop', true), '')::uuid $$;
--> statement-breakpoint
CREATE FUNCTION acting_user() RETURNS text LANGUAGE sql STABLE AS $$ SELECT nullif(current_setting('cuirass.user', true), '') $$;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['film', 'stock_item', 'stock_movement', 'job', 'revision', 'ledger'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_shop ON %I USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop())', t);
  END LOOP;
END $$;
--> statement-breakpoint
ALTER TABLE member ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE member FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_shop ON member USING (shop_id = current_shop() OR user_id = acting_user()) WITH CHECK (shop_id = current_shop());
--> statement-breakpoint
ALTER TABLE shop ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE shop FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_shop ON shop USING (id = current_shop() OR is_demo) WITH CHECK (id = current_shop());
--> statement-breakpoint
-- What happened is never rewritten.
CREATE FUNCTION append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only', TG_TABLE_NAME USING ERRCODE = 'restrict_violation', CONSTRAINT = 'append_only';
END $$;
--> statement-breakpoint
CREATE TRIGGER ledger_append_only BEFORE UPDATE OR DELETE ON ledger FOR EACH ROW EXECUTE FUNCTION append_only();
--> statement-breakpoint
CREATE TRIGGER revision_append_only BEFORE UPDATE OR DELETE ON revision FOR EACH ROW EXECUTE FUNCTION append_only();
--> statement-breakpoint
CREATE TRIGGER movement_append_only BEFORE UPDATE OR DELETE ON stock_movement FOR EACH ROW EXECUTE FUNCTION append_only();
--> statement-breakpoint
-- What is left of a roll is the sum of its movements: each movement adds itself under the row's lock, and the check
-- stock_never_below_zero refuses what is not there, also to two clients at once.
CREATE FUNCTION apply_movement() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_item SET left_mm = left_mm + NEW.delta_mm WHERE shop_id = NEW.shop_id AND id = NEW.item_id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER movement_applies AFTER INSERT ON stock_movement FOR EACH ROW EXECUTE FUNCTION apply_movement();
--> statement-breakpoint
CREATE FUNCTION left_by_movements_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN NEW.left_mm := 0; RETURN NEW; END IF;
  IF NEW.left_mm IS DISTINCT FROM OLD.left_mm AND pg_trigger_depth() < 2 THEN
    RAISE EXCEPTION 'left_mm changes by movements only' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'left_by_movements_only';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER stock_left_guard BEFORE INSERT OR UPDATE ON stock_item FOR EACH ROW EXECUTE FUNCTION left_by_movements_only();
