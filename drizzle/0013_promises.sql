CREATE TABLE "used_code" (
	"person_id" text NOT NULL,
	"code_hash" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "used_code_person_id_code_hash_pk" PRIMARY KEY("person_id","code_hash")
);
--> statement-breakpoint
CREATE TABLE "release_override" (
	"release_id" text NOT NULL,
	"document_id" text NOT NULL,
	"check" text NOT NULL,
	"sentence" text NOT NULL,
	"reason" text NOT NULL,
	"decided_by" text NOT NULL,
	"decided_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "release_override_release_id_document_id_check_pk" PRIMARY KEY("release_id","document_id","check")
);
--> statement-breakpoint
CREATE TABLE "tries" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer NOT NULL,
	"expire" timestamp (3) with time zone
);
--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "scope" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "ends_with_password" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "ends_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "invitation" ADD COLUMN "purpose" text DEFAULT 'invite' NOT NULL;--> statement-breakpoint
ALTER TABLE "invitation" ADD COLUMN "project_id" text;--> statement-breakpoint
ALTER TABLE "invitation" ADD COLUMN "place_id" text;--> statement-breakpoint
ALTER TABLE "member" ADD COLUMN "blocked_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "member" ADD COLUMN "blocked_reason" text;--> statement-breakpoint
ALTER TABLE "remark" ADD COLUMN "from_name" text;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "sealed_secret" text;--> statement-breakpoint
ALTER TABLE "pass" ADD COLUMN "with_marks" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "cancelled_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "cancelled_reason" text;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "approved_digest" text;--> statement-breakpoint
ALTER TABLE "mail" ADD COLUMN "secrets" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "used_code" ADD CONSTRAINT "used_code_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_override" ADD CONSTRAINT "release_override_release_id_release_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_override" ADD CONSTRAINT "release_override_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_override" ADD CONSTRAINT "release_override_decided_by_person_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
UPDATE "project" SET "settings" = "settings" || jsonb_build_object(
	'ownDomains', coalesce((SELECT jsonb_agg(DISTINCT split_part(p.email, '@', 2)) FROM member m JOIN person p ON p.id = m.person_id
		WHERE m.project_id = project.id AND m.controller AND NOT m.outside), '[]'),
	'releasePurposes', '["construction", "as-built"]'::jsonb,
	'titleBlock', '{"left": 0.5, "top": 0.6, "right": 1, "bottom": 1}'::jsonb
);--> statement-breakpoint
UPDATE "mail" SET "secrets" = array(
	SELECT found[1] FROM regexp_matches("body", '(https?://\S+/(?:invited|pass|hatch)/\S+|\m\d{6}\M)', 'g') AS found
);--> statement-breakpoint
-- Whoever keeps a line open for somebody hears at once, in every process, that a session of theirs has ended.
CREATE FUNCTION tell_session_end() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('cupboard_sessions', OLD.person_id);
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER session_ended AFTER DELETE ON "session" FOR EACH ROW EXECUTE FUNCTION tell_session_end();--> statement-breakpoint
CREATE TRIGGER token_ended AFTER UPDATE OF withdrawn_at, ends_at ON "api_token" FOR EACH ROW EXECUTE FUNCTION tell_session_end();
