CREATE TABLE "fleet_layout" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"request" json NOT NULL,
	"stages" integer,
	"state" text DEFAULT 'queued' NOT NULL,
	"attempt" integer DEFAULT 0 NOT NULL,
	"cancel_asked" boolean DEFAULT false NOT NULL,
	"beat_at" timestamp with time zone,
	"share" double precision DEFAULT 0 NOT NULL,
	"used_mm" double precision,
	"bound_mm" double precision,
	"result" json,
	"fault" text,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "fleet_layout_shop_id_id_pk" PRIMARY KEY("shop_id","id"),
	CONSTRAINT "fleet_share" CHECK ("fleet_layout"."share" >= 0 and "fleet_layout"."share" <= 1),
	CONSTRAINT "fleet_result" CHECK (("fleet_layout"."state" = 'done') = ("fleet_layout"."result" is not null) or "fleet_layout"."state" = 'cancelled')
);
--> statement-breakpoint
ALTER TABLE "stock_item" ADD COLUMN "damage" json DEFAULT '[]'::json NOT NULL;--> statement-breakpoint
ALTER TABLE "fleet_layout" ADD CONSTRAINT "fleet_layout_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fleet_layout_at" ON "fleet_layout" USING btree ("shop_id","at");