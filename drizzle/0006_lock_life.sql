CREATE TABLE "lock_wish" (
	"document_id" text NOT NULL,
	"person_id" text NOT NULL,
	"asked" boolean NOT NULL,
	"note" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "lock_wish_document_id_person_id_pk" PRIMARY KEY("document_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "side_version" (
	"id" text PRIMARY KEY NOT NULL,
	"document_id" text NOT NULL,
	"number" integer NOT NULL,
	"base_version_id" text,
	"hash" text NOT NULL,
	"file_name" text NOT NULL,
	"note" text NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"decided_by" text,
	"decided_at" timestamp (3) with time zone,
	"reason" text
);
--> statement-breakpoint
ALTER TABLE "lock" ADD COLUMN "base_version_id" text;--> statement-breakpoint
ALTER TABLE "lock_wish" ADD CONSTRAINT "lock_wish_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lock_wish" ADD CONSTRAINT "lock_wish_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_base_version_id_version_id_fk" FOREIGN KEY ("base_version_id") REFERENCES "public"."version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_decided_by_person_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "side_version_number" ON "side_version" USING btree ("document_id","number");--> statement-breakpoint
CREATE INDEX "side_version_hash" ON "side_version" USING btree ("hash");