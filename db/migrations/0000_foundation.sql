CREATE TYPE "public"."role" AS ENUM('owner', 'lead', 'installer', 'desk');--> statement-breakpoint
CREATE TABLE "account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "film" (
	"shop_id" uuid NOT NULL,
	"id" text NOT NULL,
	"sheet" json NOT NULL,
	"sold" boolean DEFAULT true NOT NULL,
	CONSTRAINT "film_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "job" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"vehicle" text NOT NULL,
	"customer_ref" text DEFAULT '' NOT NULL,
	"head" integer NOT NULL,
	"stage" text NOT NULL,
	"stage_state" text NOT NULL,
	"waits_for" text NOT NULL,
	"waits_facts" json NOT NULL,
	"recheck_due_at" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "job_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "ledger" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"seq" bigserial NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"payload" json NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "ledger_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "member" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"shop_id" uuid NOT NULL,
	"user_id" text NOT NULL,
	"role" "role" NOT NULL,
	"length_unit" text DEFAULT 'mm' NOT NULL,
	"temp_unit" text DEFAULT 'C' NOT NULL,
	"locale" text DEFAULT 'en-GB' NOT NULL,
	CONSTRAINT "member_user_id_unique" UNIQUE("user_id"),
	CONSTRAINT "member_shop_id" UNIQUE("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "rate_limit" (
	"id" text PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" numeric(20, 0) NOT NULL,
	CONSTRAINT "rate_limit_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "revision" (
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"based_on" integer,
	"restores" integer,
	"summary" text NOT NULL,
	"author" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"plan" json NOT NULL,
	CONSTRAINT "revision_shop_id_job_id_number_pk" PRIMARY KEY("shop_id","job_id","number")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"token" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "shop" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"town" text DEFAULT '' NOT NULL,
	"currency" text DEFAULT 'EUR' NOT NULL,
	"time_zone" text DEFAULT 'UTC' NOT NULL,
	"is_demo" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock_item" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"film_id" text NOT NULL,
	"kind" text NOT NULL,
	"label" text NOT NULL,
	"lot" text NOT NULL,
	"width_mm" numeric(12, 3) NOT NULL,
	"left_mm" numeric(12, 3) DEFAULT 0 NOT NULL,
	CONSTRAINT "stock_item_shop_id_id_pk" PRIMARY KEY("shop_id","id"),
	CONSTRAINT "stock_item_label" UNIQUE("shop_id","label"),
	CONSTRAINT "stock_never_below_zero" CHECK ("stock_item"."left_mm" >= 0),
	CONSTRAINT "stock_width" CHECK ("stock_item"."width_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "stock_movement" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"delta_mm" numeric(12, 3) NOT NULL,
	"reason" text NOT NULL,
	"job_id" uuid,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "stock_movement_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "film" ADD CONSTRAINT "film_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_shop_id_job_id_job_shop_id_id_fk" FOREIGN KEY ("shop_id","job_id") REFERENCES "public"."job"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision" ADD CONSTRAINT "revision_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision" ADD CONSTRAINT "revision_shop_id_job_id_job_shop_id_id_fk" FOREIGN KEY ("shop_id","job_id") REFERENCES "public"."job"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_item" ADD CONSTRAINT "stock_item_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_item" ADD CONSTRAINT "stock_item_shop_id_film_id_film_shop_id_id_fk" FOREIGN KEY ("shop_id","film_id") REFERENCES "public"."film"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_movement" ADD CONSTRAINT "stock_movement_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_movement" ADD CONSTRAINT "stock_movement_shop_id_item_id_stock_item_shop_id_id_fk" FOREIGN KEY ("shop_id","item_id") REFERENCES "public"."stock_item"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "account_user" ON "account" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "ledger_job" ON "ledger" USING btree ("shop_id","job_id","seq");--> statement-breakpoint
CREATE INDEX "member_shop" ON "member" USING btree ("shop_id");--> statement-breakpoint
CREATE INDEX "session_user" ON "session" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "movement_item" ON "stock_movement" USING btree ("shop_id","item_id");