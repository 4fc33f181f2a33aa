-- Users, sessions and accounts: everybody's only for the sign-in library's own connections, which say so.
CREATE FUNCTION at_the_door() RETURNS boolean LANGUAGE sql STABLE AS $$ SELECT coalesce(current_setting('cuirass.door', true), '') = 'on' $$;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['user', 'session', 'account', 'verification', 'sign_in_try'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY door ON %I USING (at_the_door()) WITH CHECK (at_the_door())', t);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE POLICY colleagues ON "user" FOR SELECT USING (
  id = acting_user() OR EXISTS (SELECT 1 FROM member m WHERE m.user_id = "user".id AND m.shop_id = current_shop())
);
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['cut_standing', 'shop_change'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_shop ON %I USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop())', t);
  END LOOP;
END $$;
--> statement-breakpoint
-- Cuts that stand already, of all shops: the rules are put aside for this one statement.
ALTER TABLE ledger NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE cut_standing NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
INSERT INTO cut_standing (shop_id, job_id, cut_key, entry_id)
SELECT DISTINCT ON (l.shop_id, l.job_id, l.payload ->> 'cutKey') l.shop_id, l.job_id, l.payload ->> 'cutKey', l.id
FROM ledger l
WHERE l.kind IN ('film_used', 'cut_made') AND l.payload ->> 'cutKey' IS NOT NULL
  AND (SELECT count(*) FROM ledger c WHERE c.shop_id = l.shop_id AND c.job_id = l.job_id AND c.kind IN ('film_used', 'cut_made') AND c.payload ->> 'cutKey' = l.payload ->> 'cutKey')
    > (SELECT count(*) FROM ledger b WHERE b.shop_id = l.shop_id AND b.job_id = l.job_id AND b.kind = 'cut_taken_back' AND b.payload ->> 'cutKey' = l.payload ->> 'cutKey')
ORDER BY l.shop_id, l.job_id, l.payload ->> 'cutKey', l.seq DESC;
--> statement-breakpoint
ALTER TABLE cut_standing FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE ledger FORCE ROW LEVEL SECURITY;
