CREATE TABLE "shop_settings" (
	"shop_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"settings" json NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "shop_settings_shop_id_number_pk" PRIMARY KEY("shop_id","number")
);
--> statement-breakpoint
ALTER TABLE "shop_settings" ADD CONSTRAINT "shop_settings_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;