CREATE TABLE "live_cut" (
	"version_id" text PRIMARY KEY NOT NULL,
	"room" text NOT NULL,
	"snapshot" "bytea" NOT NULL,
	"state" "bytea" NOT NULL,
	"state_hash" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "live_picture" (
	"document_id" text NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "live_picture_document_id_hash_pk" PRIMARY KEY("document_id","hash")
);
--> statement-breakpoint
CREATE TABLE "live_removal" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"room" text NOT NULL,
	"client" text NOT NULL,
	"clock" integer NOT NULL,
	"length" integer NOT NULL,
	"person_id" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "live_room" (
	"name" text PRIMARY KEY NOT NULL,
	"document_id" text NOT NULL,
	"state" "bytea" NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "live_update" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"room" text NOT NULL,
	"person_id" text,
	"bytes" "bytea" NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "live_writer" (
	"room" text NOT NULL,
	"client" text NOT NULL,
	"person_id" text NOT NULL,
	CONSTRAINT "live_writer_room_client_pk" PRIMARY KEY("room","client")
);
--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "kind" text DEFAULT 'file' NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "room" text;--> statement-breakpoint
ALTER TABLE "live_cut" ADD CONSTRAINT "live_cut_version_id_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_picture" ADD CONSTRAINT "live_picture_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_picture" ADD CONSTRAINT "live_picture_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_removal" ADD CONSTRAINT "live_removal_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_room" ADD CONSTRAINT "live_room_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_update" ADD CONSTRAINT "live_update_room_live_room_name_fk" FOREIGN KEY ("room") REFERENCES "public"."live_room"("name") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_update" ADD CONSTRAINT "live_update_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_writer" ADD CONSTRAINT "live_writer_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "live_picture_hash" ON "live_picture" USING btree ("hash");--> statement-breakpoint
CREATE INDEX "live_removal_room" ON "live_removal" USING btree ("room");--> statement-breakpoint
CREATE INDEX "live_update_room" ON "live_update" USING btree ("room","seq");