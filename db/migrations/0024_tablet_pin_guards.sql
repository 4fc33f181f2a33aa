ALTER TABLE "tablet_pin" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "tablet_pin" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY door ON "tablet_pin" USING (at_the_door()) WITH CHECK (at_the_door());
