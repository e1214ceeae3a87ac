CREATE TABLE "release_recipient" (
	"release_id" text NOT NULL,
	"recipient_id" text NOT NULL,
	"position" integer NOT NULL,
	"expects" text NOT NULL,
	"reply_by" text,
	"asks" text NOT NULL,
	"documents" text[],
	"pass_id" text,
	"manifest" jsonb,
	"manifest_hash" text,
	"manifest_signature" text,
	"cover_note_hash" text,
	"reminded_at" timestamp (3) with time zone,
	CONSTRAINT "release_recipient_release_id_recipient_id_pk" PRIMARY KEY("release_id","recipient_id"),
	CONSTRAINT "release_recipient_pass_id_unique" UNIQUE("pass_id"),
	CONSTRAINT "release_recipient_expects" CHECK ("release_recipient"."expects" in ('verdicts', 'receipt', 'information')),
	CONSTRAINT "release_recipient_asks" CHECK ("release_recipient"."asks" in ('nothing', 'code', 'password', 'account'))
);
--> statement-breakpoint
ALTER TABLE "release_item" ADD COLUMN "outcome" text;--> statement-breakpoint
ALTER TABLE "release_item" ADD COLUMN "outcome_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "release_item" ADD COLUMN "outcome_by" text;--> statement-breakpoint
ALTER TABLE "release_item" ADD COLUMN "outcome_reason" text;--> statement-breakpoint
ALTER TABLE "release_recipient" ADD CONSTRAINT "release_recipient_release_id_release_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_recipient" ADD CONSTRAINT "release_recipient_recipient_id_recipient_id_fk" FOREIGN KEY ("recipient_id") REFERENCES "public"."recipient"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_recipient" ADD CONSTRAINT "release_recipient_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_recipient" ADD CONSTRAINT "release_recipient_cover_note_hash_content_hash_fk" FOREIGN KEY ("cover_note_hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_outcome_by_person_id_fk" FOREIGN KEY ("outcome_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
INSERT INTO "release_recipient" ("release_id", "recipient_id", "position", "expects", "asks", "pass_id", "manifest", "manifest_hash", "manifest_signature", "cover_note_hash", "reminded_at")
SELECT r."id", r."recipient_id", 0, 'verdicts',
	CASE WHEN p."password_hash" IS NOT NULL THEN 'password' WHEN p."audience" = 'named' THEN 'code' WHEN p."audience" = 'accounts' THEN 'account' ELSE 'nothing' END,
	p."id", r."manifest", r."manifest_hash", r."manifest_signature", r."cover_note_hash", r."reminded_at"
FROM "release" r LEFT JOIN LATERAL (SELECT * FROM "pass" WHERE "release_id" = r."id" ORDER BY "created_at" LIMIT 1) p ON true;--> statement-breakpoint
UPDATE "release_item" i SET "outcome" = v."code", "outcome_at" = v."signed_at"
FROM "pass" p JOIN "verdict" v ON v."pass_id" = p."id"
WHERE p."release_id" = i."release_id" AND v."document_id" = i."document_id" AND v."signed_at" IS NOT NULL;--> statement-breakpoint
UPDATE "release_decision" SET "build" = "build" - 'recipient' || jsonb_build_object('recipients', jsonb_build_array("build"->'recipient'))
WHERE "build" ? 'recipient';--> statement-breakpoint
ALTER TABLE "release" DROP COLUMN "recipient_id";--> statement-breakpoint
ALTER TABLE "release" DROP COLUMN "reminded_at";--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_outcome" CHECK ("release_item"."outcome" in ('A', 'B', 'C', 'D'));