CREATE TABLE "cut_standing" (
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"cut_key" text NOT NULL,
	"entry_id" uuid NOT NULL,
	CONSTRAINT "cut_standing_shop_id_job_id_cut_key_pk" PRIMARY KEY("shop_id","job_id","cut_key")
);
--> statement-breakpoint
CREATE TABLE "shop_change" (
	"shop_id" uuid PRIMARY KEY NOT NULL,
	"head" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_try" (
	"key" text PRIMARY KEY NOT NULL,
	"failures" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "changes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "yard_of" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "by_id" uuid;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "plan_revision" integer;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "device" text;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "n" integer;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "skew_seconds" double precision;--> statement-breakpoint
ALTER TABLE "revision" ADD COLUMN "undoes" integer;--> statement-breakpoint
ALTER TABLE "revision" ADD COLUMN "author_id" uuid;--> statement-breakpoint
ALTER TABLE "stock_movement" ADD COLUMN "by_id" uuid;--> statement-breakpoint
ALTER TABLE "vehicle_revision" ADD COLUMN "author_id" uuid;--> statement-breakpoint
ALTER TABLE "cut_standing" ADD CONSTRAINT "cut_standing_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_standing" ADD CONSTRAINT "cut_standing_shop_id_entry_id_ledger_shop_id_id_fk" FOREIGN KEY ("shop_id","entry_id") REFERENCES "public"."ledger"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shop_change" ADD CONSTRAINT "shop_change_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_shop_id_by_id_member_shop_id_id_fk" FOREIGN KEY ("shop_id","by_id") REFERENCES "public"."member"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision" ADD CONSTRAINT "revision_shop_id_author_id_member_shop_id_id_fk" FOREIGN KEY ("shop_id","author_id") REFERENCES "public"."member"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_movement" ADD CONSTRAINT "stock_movement_shop_id_by_id_member_shop_id_id_fk" FOREIGN KEY ("shop_id","by_id") REFERENCES "public"."member"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "user" ADD CONSTRAINT "user_name_length" CHECK (char_length(btrim("user"."name")) between 1 and 120);--> statement-breakpoint
ALTER TABLE "user" ADD CONSTRAINT "user_email_length" CHECK (char_length("user"."email") between 3 and 200);