CREATE TABLE "remark" (
	"id" text PRIMARY KEY NOT NULL,
	"document_id" text NOT NULL,
	"number" integer NOT NULL,
	"version_id" text NOT NULL,
	"anchor" jsonb NOT NULL,
	"quote" text DEFAULT '' NOT NULL,
	"text" text NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"assigned_person" text,
	"assigned_department" text,
	"due" date,
	"settled_by" text,
	"settled_at" timestamp (3) with time zone,
	"settled_note" text
);
--> statement-breakpoint
CREATE TABLE "remark_answer" (
	"id" text PRIMARY KEY NOT NULL,
	"remark_id" text NOT NULL,
	"text" text NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_version_id_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_assigned_person_person_id_fk" FOREIGN KEY ("assigned_person") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_assigned_department_department_id_fk" FOREIGN KEY ("assigned_department") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_settled_by_person_id_fk" FOREIGN KEY ("settled_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark_answer" ADD CONSTRAINT "remark_answer_remark_id_remark_id_fk" FOREIGN KEY ("remark_id") REFERENCES "public"."remark"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark_answer" ADD CONSTRAINT "remark_answer_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "remark_number" ON "remark" USING btree ("document_id","number");--> statement-breakpoint
CREATE INDEX "remark_open" ON "remark" USING btree ("document_id") WHERE settled_at is null;--> statement-breakpoint
CREATE INDEX "remark_by_person" ON "remark" USING btree ("assigned_person");--> statement-breakpoint
CREATE INDEX "remark_answer_of" ON "remark_answer" USING btree ("remark_id","created_at");