CREATE TABLE "two_factor" (
	"id" text PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"person_id" text NOT NULL,
	"verified" boolean DEFAULT true NOT NULL,
	"failed_verification_count" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "people_group" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"name" text NOT NULL,
	"name_key" text NOT NULL,
	"company" boolean DEFAULT false NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "group_member" (
	"group_id" text NOT NULL,
	"person_id" text NOT NULL,
	CONSTRAINT "group_member_group_id_person_id_pk" PRIMARY KEY("group_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "folder_count" (
	"folder_id" text NOT NULL,
	"scope" text NOT NULL,
	"documents" integer NOT NULL,
	"last_at" timestamp (3) with time zone,
	"last_by" text,
	CONSTRAINT "folder_count_folder_id_scope_pk" PRIMARY KEY("folder_id","scope")
);
--> statement-breakpoint
CREATE TABLE "arrival" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"hatch_id" text,
	"place_id" text NOT NULL,
	"sender" text NOT NULL,
	"sender_email" text,
	"note" text NOT NULL,
	"file_name" text NOT NULL,
	"hash" text NOT NULL,
	"state" text NOT NULL,
	"scan" jsonb,
	"document_id" text,
	"decided_by" text,
	"decided_at" timestamp (3) with time zone,
	"reason" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "hatch" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"place_id" text NOT NULL,
	"title" text NOT NULL,
	"secret_hash" text NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL,
	"max_file_bytes" bigint NOT NULL,
	"max_files" integer NOT NULL,
	"endings" text[] NOT NULL,
	"created_by" text NOT NULL,
	"withdrawn_at" timestamp (3) with time zone,
	"last_used_at" timestamp (3) with time zone,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "hatch_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "pass_person" (
	"pass_id" text NOT NULL,
	"email" text NOT NULL,
	"code_hash" text,
	"code_ends_at" timestamp (3) with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "pass_person_pass_id_email_pk" PRIMARY KEY("pass_id","email")
);
--> statement-breakpoint
CREATE TABLE "notice" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"person_id" text NOT NULL,
	"kind" text NOT NULL,
	"place_id" text,
	"release_id" text,
	"sentence" text NOT NULL,
	"way" text NOT NULL,
	"read_at" timestamp (3) with time zone,
	"mailed_at" timestamp (3) with time zone,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "notice_choice" (
	"person_id" text NOT NULL,
	"kind" text NOT NULL,
	"choice" text NOT NULL,
	CONSTRAINT "notice_choice_person_id_kind_pk" PRIMARY KEY("person_id","kind")
);
--> statement-breakpoint
--> statement-breakpoint
ALTER TABLE "pass" ALTER COLUMN "release_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ALTER COLUMN "holder_email" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "upload" ALTER COLUMN "person_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "access_grant" ADD COLUMN "under_id" text;--> statement-breakpoint
ALTER TABLE "access_grant" ADD COLUMN "bring_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "access_grant" ADD COLUMN "bring_level" text;--> statement-breakpoint
ALTER TABLE "member" ADD COLUMN "outside" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "member" ADD COLUMN "left_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "place_id" text;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "audience" text DEFAULT 'anyone' NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "password_hash" text;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "max_uses" integer;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "may_take" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "version_id" text;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "stamped" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "own_ending" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "embeddable" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "created_by" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "two_factor_enabled" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "closed_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "frozen_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "frozen_by" text;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "frozen_reason" text;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "sensitive" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "upload" ADD COLUMN "hatch_id" text;--> statement-breakpoint
ALTER TABLE "two_factor" ADD CONSTRAINT "two_factor_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people_group" ADD CONSTRAINT "people_group_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_member" ADD CONSTRAINT "group_member_group_id_people_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."people_group"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_member" ADD CONSTRAINT "group_member_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "folder_count" ADD CONSTRAINT "folder_count_folder_id_place_id_fk" FOREIGN KEY ("folder_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_hatch_id_hatch_id_fk" FOREIGN KEY ("hatch_id") REFERENCES "public"."hatch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_decided_by_person_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hatch" ADD CONSTRAINT "hatch_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hatch" ADD CONSTRAINT "hatch_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hatch" ADD CONSTRAINT "hatch_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass_person" ADD CONSTRAINT "pass_person_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice_choice" ADD CONSTRAINT "notice_choice_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "two_factor_by_person" ON "two_factor" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "group_name" ON "people_group" USING btree ("project_id","name_key");--> statement-breakpoint
CREATE INDEX "group_member_by_person" ON "group_member" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "arrival_by_hatch" ON "arrival" USING btree ("hatch_id");--> statement-breakpoint
CREATE INDEX "arrival_by_project" ON "arrival" USING btree ("project_id","created_at");--> statement-breakpoint
CREATE INDEX "arrival_hash" ON "arrival" USING btree ("hash");--> statement-breakpoint
CREATE INDEX "hatch_by_project" ON "hatch" USING btree ("project_id","created_at");--> statement-breakpoint
CREATE INDEX "notice_by_person" ON "notice" USING btree ("person_id","created_at");--> statement-breakpoint
CREATE INDEX "notice_unmailed" ON "notice" USING btree ("mailed_at");--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_under_id_access_grant_id_fk" FOREIGN KEY ("under_id") REFERENCES "public"."access_grant"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_frozen_by_person_id_fk" FOREIGN KEY ("frozen_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "grant_by_subject" ON "access_grant" USING btree ("subject_id");--> statement-breakpoint
CREATE INDEX "grant_under" ON "access_grant" USING btree ("under_id");--> statement-breakpoint
CREATE INDEX "pass_by_project" ON "pass" USING btree ("project_id","created_at");--> statement-breakpoint
CREATE INDEX "pass_by_release" ON "pass" USING btree ("release_id");--> statement-breakpoint
CREATE INDEX "pass_by_place" ON "pass" USING btree ("place_id");--> statement-breakpoint
CREATE INDEX "place_is_scope" ON "place" USING btree ("project_id") WHERE scope = id;--> statement-breakpoint
CREATE INDEX "place_frozen" ON "place" USING btree ("project_id") WHERE frozen_at is not null;--> statement-breakpoint
CREATE INDEX "place_folders" ON "place" USING btree ("project_id") WHERE kind <> 'document';