CREATE TABLE "panel_scan" (
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"panel_id" text NOT NULL,
	"name" text NOT NULL,
	"triangles" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "panel_scan_shop_id_job_id_panel_id_pk" PRIMARY KEY("shop_id","job_id","panel_id"),
	CONSTRAINT "panel_scan_size" CHECK (octet_length("panel_scan"."bytes") <= 6000000)
);
--> statement-breakpoint
CREATE TABLE "stretch_solved" (
	"shop_id" uuid NOT NULL,
	"key" text NOT NULL,
	"value" json NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "stretch_solved_shop_id_key_pk" PRIMARY KEY("shop_id","key")
);
--> statement-breakpoint
ALTER TABLE "panel_scan" ADD CONSTRAINT "panel_scan_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panel_scan" ADD CONSTRAINT "panel_scan_shop_id_job_id_job_shop_id_id_fk" FOREIGN KEY ("shop_id","job_id") REFERENCES "public"."job"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stretch_solved" ADD CONSTRAINT "stretch_solved_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "stretch_solved_at" ON "stretch_solved" USING btree ("shop_id","at");