CREATE TABLE "solution" (
	"shop_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"fineness" integer NOT NULL,
	"value" json NOT NULL,
	"job_id" uuid,
	"by" text NOT NULL,
	"change" integer DEFAULT 0 NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "solution_shop_id_kind_key_pk" PRIMARY KEY("shop_id","kind","key")
);
--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "change" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "revision" ADD COLUMN "change" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "stock_item" ADD COLUMN "change" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "solution" ADD CONSTRAINT "solution_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "solution_job" ON "solution" USING btree ("shop_id","job_id","change");--> statement-breakpoint
CREATE INDEX "solution_at" ON "solution" USING btree ("shop_id","at");--> statement-breakpoint
CREATE INDEX "ledger_change" ON "ledger" USING btree ("shop_id","job_id","change");