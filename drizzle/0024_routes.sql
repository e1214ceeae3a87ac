CREATE TABLE "release_decision" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"release_id" text NOT NULL,
	"step" integer NOT NULL,
	"says" text NOT NULL,
	"person_id" text NOT NULL,
	"of_kind" text NOT NULL,
	"of_id" text NOT NULL,
	"stands_for" text,
	"digest" text NOT NULL,
	"build" jsonb,
	"reason" text,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "release_decision_says" CHECK ("release_decision"."says" in ('approved', 'sent-back')),
	CONSTRAINT "release_decision_of_kind" CHECK ("release_decision"."of_kind" in ('person', 'department', 'group'))
);
--> statement-breakpoint
CREATE TABLE "stand_in" (
	"id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"person_id" text NOT NULL,
	"stand_in_id" text NOT NULL,
	"from_day" text NOT NULL,
	"until_day" text NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "route" jsonb;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "digest" text;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "turn" integer;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "turn_since" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "turn_told" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "release_decision" ADD CONSTRAINT "release_decision_release_id_release_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_decision" ADD CONSTRAINT "release_decision_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_decision" ADD CONSTRAINT "release_decision_stands_for_person_id_fk" FOREIGN KEY ("stands_for") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stand_in" ADD CONSTRAINT "stand_in_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stand_in" ADD CONSTRAINT "stand_in_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stand_in" ADD CONSTRAINT "stand_in_stand_in_id_person_id_fk" FOREIGN KEY ("stand_in_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stand_in" ADD CONSTRAINT "stand_in_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "release_decision_of" ON "release_decision" USING btree ("release_id","seq");--> statement-breakpoint
CREATE INDEX "stand_in_of" ON "stand_in" USING btree ("project_id","until_day");--> statement-breakpoint
-- One approver becomes a route of one step. What was approved and is not issued is asked for again, since a build now says its route.
UPDATE "release" SET "route" = jsonb_build_array(jsonb_build_object(
	'name', 'Approval', 'of', jsonb_build_array(jsonb_build_object('kind', 'person', 'id', "approver_id")), 'needs', 'all', 'days', null));--> statement-breakpoint
ALTER TABLE "release" ALTER COLUMN "route" SET NOT NULL;--> statement-breakpoint
INSERT INTO "release_decision" ("release_id", "step", "says", "person_id", "of_kind", "of_id", "digest", "at")
	SELECT "id", 0, 'approved', "approver_id", 'person', "approver_id", coalesce("approved_digest", ''), "approved_at"
	FROM "release" WHERE "approved_at" IS NOT NULL;--> statement-breakpoint
INSERT INTO "release_decision" ("release_id", "step", "says", "person_id", "of_kind", "of_id", "digest", "reason", "at")
	SELECT "id", 0, 'sent-back', "approver_id", 'person', "approver_id", '', "sent_back_reason", "created_at"
	FROM "release" WHERE "sent_back_reason" IS NOT NULL AND "state" = 'building';--> statement-breakpoint
UPDATE "release" SET "state" = 'in-review', "turn" = 0, "turn_since" = coalesce("approved_at", "asked_at", now()), "approved_at" = null
	WHERE "state" IN ('in-review', 'approved');--> statement-breakpoint
ALTER TABLE "release" DROP CONSTRAINT "release_approver_id_person_id_fk";
--> statement-breakpoint
ALTER TABLE "release" DROP COLUMN "approver_id";--> statement-breakpoint
ALTER TABLE "release" DROP COLUMN "sent_back_reason";--> statement-breakpoint
ALTER TABLE "release" DROP COLUMN "approved_digest";--> statement-breakpoint
ALTER TABLE "release_override" DROP CONSTRAINT "release_override_check";--> statement-breakpoint
ALTER TABLE "release_override" ADD CONSTRAINT "release_override_check" CHECK ("release_override"."check" in ('newest', 'handed-in', 'free', 'frozen', 'settled', 'opens', 'number', 'title-block', 'same-bytes', 'revision', 'issued-before', 'references'));
