CREATE TABLE "deliverable" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"number" text NOT NULL,
	"title" text NOT NULL,
	"department_id" text,
	"responsible_id" text,
	"weight" double precision DEFAULT 1 NOT NULL,
	"removed_at" timestamp (3) with time zone,
	"created_by" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "deliverable_change" (
	"id" text PRIMARY KEY NOT NULL,
	"deliverable_id" text NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"by_id" text,
	"reason" text NOT NULL,
	"changes" jsonb NOT NULL,
	CONSTRAINT "deliverable_change_kind" CHECK ("deliverable_change"."kind" in ('added', 'changed', 'moved', 'forecast', 'corrected', 'removed', 'restored'))
);
--> statement-breakpoint
CREATE TABLE "deliverable_stage" (
	"deliverable_id" text NOT NULL,
	"stage" text NOT NULL,
	"planned" text,
	"own_day" text,
	"own_reason" text,
	"own_by" text,
	"own_at" timestamp (3) with time zone,
	"corrected_day" text,
	"corrected_reason" text,
	"corrected_by" text,
	CONSTRAINT "deliverable_stage_deliverable_id_stage_pk" PRIMARY KEY("deliverable_id","stage")
);
--> statement-breakpoint
CREATE TABLE "register_choice" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"person_id" text NOT NULL,
	"shared" boolean NOT NULL,
	"name" text NOT NULL,
	"name_key" text NOT NULL,
	"query" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "register_template" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"name" text NOT NULL,
	"name_key" text NOT NULL,
	"lines" jsonb NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "project" ADD COLUMN "register_reported_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "mail" ADD COLUMN "attachment_hash" text;--> statement-breakpoint
ALTER TABLE "mail" ADD COLUMN "attachment_name" text;--> statement-breakpoint
ALTER TABLE "deliverable" ADD CONSTRAINT "deliverable_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable" ADD CONSTRAINT "deliverable_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable" ADD CONSTRAINT "deliverable_responsible_id_person_id_fk" FOREIGN KEY ("responsible_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable" ADD CONSTRAINT "deliverable_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable_change" ADD CONSTRAINT "deliverable_change_deliverable_id_deliverable_id_fk" FOREIGN KEY ("deliverable_id") REFERENCES "public"."deliverable"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable_change" ADD CONSTRAINT "deliverable_change_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable_stage" ADD CONSTRAINT "deliverable_stage_deliverable_id_deliverable_id_fk" FOREIGN KEY ("deliverable_id") REFERENCES "public"."deliverable"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable_stage" ADD CONSTRAINT "deliverable_stage_own_by_person_id_fk" FOREIGN KEY ("own_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliverable_stage" ADD CONSTRAINT "deliverable_stage_corrected_by_person_id_fk" FOREIGN KEY ("corrected_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "register_choice" ADD CONSTRAINT "register_choice_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "register_choice" ADD CONSTRAINT "register_choice_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "register_template" ADD CONSTRAINT "register_template_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "deliverable_number" ON "deliverable" USING btree ("project_id","number") WHERE removed_at is null;--> statement-breakpoint
CREATE INDEX "deliverable_change_of" ON "deliverable_change" USING btree ("deliverable_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "register_choice_name" ON "register_choice" USING btree ("project_id",(case when shared then '' else person_id end),"name_key");--> statement-breakpoint
CREATE UNIQUE INDEX "register_template_name" ON "register_template" USING btree ("project_id","name_key");--> statement-breakpoint
ALTER TABLE "mail" ADD CONSTRAINT "mail_attachment_hash_content_hash_fk" FOREIGN KEY ("attachment_hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "event_of_issue" ON "event" USING btree ("project_id","document_id") WHERE kind in ('document.issued', 'document.revised');