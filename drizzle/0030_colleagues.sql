CREATE TABLE "colleague" (
	"id" text PRIMARY KEY NOT NULL,
	"pass_id" text NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"instead" boolean NOT NULL,
	"words" text NOT NULL,
	"asked_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"state" text DEFAULT 'asked' NOT NULL,
	"decided_by" text,
	"decided_at" timestamp (3) with time zone,
	"reason" text,
	"own_pass_id" text,
	CONSTRAINT "colleague_state" CHECK ("colleague"."state" in ('asked', 'in', 'refused'))
);
--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "along_with" text;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_decided_by_person_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_own_pass_id_pass_id_fk" FOREIGN KEY ("own_pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "colleague_once" ON "colleague" USING btree ("pass_id","email") WHERE state <> 'refused';