CREATE TABLE "tablet_pin" (
	"tablet" text NOT NULL,
	"user_id" text NOT NULL,
	"hash" text NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"set_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "tablet_pin_tablet_user_id_pk" PRIMARY KEY("tablet","user_id")
);
--> statement-breakpoint
ALTER TABLE "tablet_pin" ADD CONSTRAINT "tablet_pin_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;