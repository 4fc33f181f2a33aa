CREATE TABLE "climate_reading" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"air_c" double precision NOT NULL,
	"humidity" double precision,
	"surface_c" double precision,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "climate_reading_shop_id_id_pk" PRIMARY KEY("shop_id","id"),
	CONSTRAINT "climate_humidity" CHECK ("climate_reading"."humidity" > 0 and "climate_reading"."humidity" <= 1)
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "photo_shop_id_id_pk" PRIMARY KEY("shop_id","id"),
	CONSTRAINT "photo_size" CHECK (octet_length("photo"."bytes") <= 3000000)
);
--> statement-breakpoint
CREATE TABLE "vehicle" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"head" integer NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "vehicle_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "vehicle_revision" (
	"shop_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"summary" text NOT NULL,
	"from_job" uuid,
	"author" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"measured" json NOT NULL,
	CONSTRAINT "vehicle_revision_shop_id_vehicle_id_number_pk" PRIMARY KEY("shop_id","vehicle_id","number")
);
--> statement-breakpoint
ALTER TABLE "film" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "shop" ADD COLUMN "method" json;--> statement-breakpoint
ALTER TABLE "climate_reading" ADD CONSTRAINT "climate_reading_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_shop_id_job_id_job_shop_id_id_fk" FOREIGN KEY ("shop_id","job_id") REFERENCES "public"."job"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicle" ADD CONSTRAINT "vehicle_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicle_revision" ADD CONSTRAINT "vehicle_revision_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicle_revision" ADD CONSTRAINT "vehicle_revision_shop_id_vehicle_id_vehicle_shop_id_id_fk" FOREIGN KEY ("shop_id","vehicle_id") REFERENCES "public"."vehicle"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "climate_at" ON "climate_reading" USING btree ("shop_id","at");--> statement-breakpoint
CREATE INDEX "photo_job" ON "photo" USING btree ("shop_id","job_id");