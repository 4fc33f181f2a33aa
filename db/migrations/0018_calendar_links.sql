ALTER TABLE "member" ADD COLUMN "calendar" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "member" ADD COLUMN "calendars_made" integer DEFAULT 0 NOT NULL;