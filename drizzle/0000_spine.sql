CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE TABLE "account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"person_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp (3) with time zone,
	"refresh_token_expires_at" timestamp (3) with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "api_token" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" text NOT NULL,
	"name" text NOT NULL,
	"secret_hash" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"last_used_at" timestamp (3) with time zone,
	"withdrawn_at" timestamp (3) with time zone,
	CONSTRAINT "api_token_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "chain_head" (
	"project_id" text PRIMARY KEY NOT NULL,
	"seq" bigint NOT NULL,
	"hash" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "content" (
	"hash" text PRIMARY KEY NOT NULL,
	"size" bigint NOT NULL,
	"media_type" text NOT NULL,
	"inspection" jsonb,
	"preview" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "department" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"position" integer NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "department_member" (
	"department_id" text NOT NULL,
	"person_id" text NOT NULL,
	"lead" boolean DEFAULT false NOT NULL,
	CONSTRAINT "department_member_department_id_person_id_pk" PRIMARY KEY("department_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "document" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"number" text NOT NULL,
	"title" text NOT NULL,
	"state" text DEFAULT 'wip' NOT NULL,
	"current_version_id" text NOT NULL,
	"versions" integer DEFAULT 1 NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL,
	"changed_by" text,
	"live" boolean DEFAULT true NOT NULL
);
--> statement-breakpoint
CREATE TABLE "event" (
	"project_id" text NOT NULL,
	"seq" bigint NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"actor" text,
	"actor_name" text NOT NULL,
	"kind" text NOT NULL,
	"place_id" text,
	"document_id" text,
	"release_id" text,
	"details" jsonb NOT NULL,
	"previous" text NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "event_project_id_seq_pk" PRIMARY KEY("project_id","seq")
);
--> statement-breakpoint
CREATE TABLE "access_grant" (
	"id" text PRIMARY KEY NOT NULL,
	"place_id" text NOT NULL,
	"subject_kind" text NOT NULL,
	"subject_id" text NOT NULL,
	"level" text,
	"exactly" boolean DEFAULT false NOT NULL,
	"ends_at" timestamp (3) with time zone,
	"granted_by" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "installation" (
	"key" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"secret_hash" text PRIMARY KEY NOT NULL,
	"person_id" text NOT NULL,
	"expires_at" timestamp (3) with time zone NOT NULL,
	"used_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "lock" (
	"id" text PRIMARY KEY NOT NULL,
	"document_id" text NOT NULL,
	"holder_id" text NOT NULL,
	"purpose" text NOT NULL,
	"taken_at" timestamp (3) with time zone NOT NULL,
	"expected_end" timestamp (3) with time zone,
	"ended_at" timestamp (3) with time zone,
	"ended_how" text
);
--> statement-breakpoint
CREATE TABLE "mail" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text,
	"to_name" text NOT NULL,
	"to_address" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"trouble" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"sent_at" timestamp (3) with time zone,
	"received_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "member" (
	"project_id" text NOT NULL,
	"person_id" text NOT NULL,
	"controller" boolean DEFAULT false NOT NULL,
	"seen_until" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "member_project_id_person_id_pk" PRIMARY KEY("project_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "pass" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"release_id" text NOT NULL,
	"secret_hash" text NOT NULL,
	"holder_name" text NOT NULL,
	"holder_email" text NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL,
	"withdrawn_at" timestamp (3) with time zone,
	"withdrawn_by" text,
	"uses" integer DEFAULT 0 NOT NULL,
	"last_used_at" timestamp (3) with time zone,
	"received_at" timestamp (3) with time zone,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pass_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "person_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "place" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"parent_id" text,
	"path" text NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"name_key" text NOT NULL,
	"scope" text NOT NULL,
	"closed" boolean DEFAULT false NOT NULL,
	"department_id" text,
	"removal_id" text,
	"created_by" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "project" (
	"id" text PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"client" text NOT NULL,
	"time_zone" text NOT NULL,
	"settings" jsonb NOT NULL,
	"next_release" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "project_code_unique" UNIQUE("code")
);
--> statement-breakpoint
CREATE TABLE "recipient" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"name" text NOT NULL,
	"company" text NOT NULL,
	"email" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "release" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"number" integer NOT NULL,
	"title" text NOT NULL,
	"purpose" text NOT NULL,
	"state" text NOT NULL,
	"recipient_id" text NOT NULL,
	"approver_id" text NOT NULL,
	"reply_by" text,
	"built_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"asked_at" timestamp (3) with time zone,
	"approved_at" timestamp (3) with time zone,
	"sent_back_reason" text,
	"issued_at" timestamp (3) with time zone,
	"issued_by" text,
	"manifest" jsonb,
	"manifest_hash" text,
	"manifest_signature" text,
	"cover_note_hash" text
);
--> statement-breakpoint
CREATE TABLE "release_item" (
	"release_id" text NOT NULL,
	"document_id" text NOT NULL,
	"position" integer NOT NULL,
	"version_id" text NOT NULL,
	"from_label" text NOT NULL,
	"pinned_hash" text,
	"outgoing_name" text,
	CONSTRAINT "release_item_release_id_document_id_pk" PRIMARY KEY("release_id","document_id")
);
--> statement-breakpoint
CREATE TABLE "removal" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"place_id" text NOT NULL,
	"reason" text NOT NULL,
	"documents" integer NOT NULL,
	"removed_by" text NOT NULL,
	"removed_at" timestamp (3) with time zone NOT NULL,
	"restored_at" timestamp (3) with time zone,
	"restored_by" text
);
--> statement-breakpoint
CREATE TABLE "seen" (
	"person_id" text NOT NULL,
	"document_id" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "seen_person_id_document_id_pk" PRIMARY KEY("person_id","document_id")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"person_id" text NOT NULL,
	"expires_at" timestamp (3) with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "upload" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" text NOT NULL,
	"hash" text NOT NULL,
	"file_name" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "verdict" (
	"pass_id" text NOT NULL,
	"document_id" text NOT NULL,
	"code" text,
	"remark" text DEFAULT '' NOT NULL,
	"signed_at" timestamp (3) with time zone,
	"signed_name" text,
	CONSTRAINT "verdict_pass_id_document_id_pk" PRIMARY KEY("pass_id","document_id")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp (3) with time zone NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "version" (
	"id" text PRIMARY KEY NOT NULL,
	"document_id" text NOT NULL,
	"seq" integer NOT NULL,
	"label" text NOT NULL,
	"issued" boolean NOT NULL,
	"hash" text NOT NULL,
	"file_name" text NOT NULL,
	"note" text NOT NULL,
	"lock_kept" boolean DEFAULT false NOT NULL,
	"restored_from" text,
	"release_id" text,
	"created_by" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "api_token" ADD CONSTRAINT "api_token_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "chain_head" ADD CONSTRAINT "chain_head_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department" ADD CONSTRAINT "department_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department_member" ADD CONSTRAINT "department_member_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department_member" ADD CONSTRAINT "department_member_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_id_place_id_fk" FOREIGN KEY ("id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_changed_by_person_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_granted_by_person_id_fk" FOREIGN KEY ("granted_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lock" ADD CONSTRAINT "lock_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lock" ADD CONSTRAINT "lock_holder_id_person_id_fk" FOREIGN KEY ("holder_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mail" ADD CONSTRAINT "mail_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_release_id_release_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_withdrawn_by_person_id_fk" FOREIGN KEY ("withdrawn_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_parent_id_place_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipient" ADD CONSTRAINT "recipient_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_recipient_id_recipient_id_fk" FOREIGN KEY ("recipient_id") REFERENCES "public"."recipient"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_approver_id_person_id_fk" FOREIGN KEY ("approver_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_built_by_person_id_fk" FOREIGN KEY ("built_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_issued_by_person_id_fk" FOREIGN KEY ("issued_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_cover_note_hash_content_hash_fk" FOREIGN KEY ("cover_note_hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_release_id_release_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_version_id_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_pinned_hash_content_hash_fk" FOREIGN KEY ("pinned_hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "removal" ADD CONSTRAINT "removal_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "removal" ADD CONSTRAINT "removal_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "removal" ADD CONSTRAINT "removal_removed_by_person_id_fk" FOREIGN KEY ("removed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "removal" ADD CONSTRAINT "removal_restored_by_person_id_fk" FOREIGN KEY ("restored_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seen" ADD CONSTRAINT "seen_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seen" ADD CONSTRAINT "seen_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "upload" ADD CONSTRAINT "upload_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "upload" ADD CONSTRAINT "upload_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict" ADD CONSTRAINT "verdict_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict" ADD CONSTRAINT "verdict_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "version" ADD CONSTRAINT "version_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "version" ADD CONSTRAINT "version_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "version" ADD CONSTRAINT "version_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "account_one" ON "account" USING btree ("provider_id","account_id");--> statement-breakpoint
CREATE INDEX "api_token_by_person" ON "api_token" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "department_code" ON "department" USING btree ("project_id","code");--> statement-breakpoint
CREATE INDEX "department_member_by_person" ON "department_member" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "document_number" ON "document" USING btree ("project_id","number") WHERE live;--> statement-breakpoint
CREATE INDEX "document_changed" ON "document" USING btree ("project_id","changed_at");--> statement-breakpoint
CREATE INDEX "document_title_words" ON "document" USING gin (title gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "document_number_words" ON "document" USING gin (number gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "event_by_document" ON "event" USING btree ("document_id","seq");--> statement-breakpoint
CREATE INDEX "event_by_place" ON "event" USING btree ("place_id","seq");--> statement-breakpoint
CREATE INDEX "event_by_release" ON "event" USING btree ("release_id","seq");--> statement-breakpoint
CREATE UNIQUE INDEX "grant_one" ON "access_grant" USING btree ("place_id","subject_kind","subject_id");--> statement-breakpoint
CREATE UNIQUE INDEX "lock_one_open" ON "lock" USING btree ("document_id") WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX "lock_by_holder" ON "lock" USING btree ("holder_id") WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX "mail_by_project" ON "mail" USING btree ("project_id","created_at");--> statement-breakpoint
CREATE INDEX "member_by_person" ON "member" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "place_live_name" ON "place" USING btree (coalesce(parent_id, project_id),"name_key") WHERE removal_id is null and kind <> 'document';--> statement-breakpoint
CREATE INDEX "place_children" ON "place" USING btree ("parent_id","kind");--> statement-breakpoint
CREATE INDEX "place_subtree" ON "place" USING btree ("project_id",path collate "C");--> statement-breakpoint
CREATE INDEX "place_scope" ON "place" USING btree ("scope");--> statement-breakpoint
CREATE INDEX "place_removal" ON "place" USING btree ("removal_id") WHERE removal_id is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "recipient_email" ON "recipient" USING btree ("project_id","email");--> statement-breakpoint
CREATE UNIQUE INDEX "release_number" ON "release" USING btree ("project_id","number");--> statement-breakpoint
CREATE INDEX "release_item_by_document" ON "release_item" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "session_by_person" ON "session" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "upload_hash" ON "upload" USING btree ("hash");--> statement-breakpoint
CREATE UNIQUE INDEX "version_label" ON "version" USING btree ("document_id","label");--> statement-breakpoint
CREATE UNIQUE INDEX "version_seq" ON "version" USING btree ("document_id","seq");--> statement-breakpoint
CREATE INDEX "version_hash" ON "version" USING btree ("hash");