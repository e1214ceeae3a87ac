CREATE TABLE "verdict_file" (
	"id" text PRIMARY KEY NOT NULL,
	"pass_id" text NOT NULL,
	"document_id" text NOT NULL,
	"hash" text NOT NULL,
	"file_name" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"side" integer
);
--> statement-breakpoint
CREATE TABLE "verdict_remark" (
	"id" text PRIMARY KEY NOT NULL,
	"pass_id" text NOT NULL,
	"document_id" text NOT NULL,
	"number" integer NOT NULL,
	"page" integer NOT NULL,
	"x" double precision NOT NULL,
	"y" double precision NOT NULL,
	"text" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"remark_id" text
);
--> statement-breakpoint
ALTER TABLE "side_version" ADD COLUMN "from_name" text;--> statement-breakpoint
ALTER TABLE "upload" ADD COLUMN "pass_id" text;--> statement-breakpoint
ALTER TABLE "verdict_file" ADD CONSTRAINT "verdict_file_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_file" ADD CONSTRAINT "verdict_file_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_file" ADD CONSTRAINT "verdict_file_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_remark" ADD CONSTRAINT "verdict_remark_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_remark" ADD CONSTRAINT "verdict_remark_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_remark" ADD CONSTRAINT "verdict_remark_remark_id_remark_id_fk" FOREIGN KEY ("remark_id") REFERENCES "public"."remark"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "verdict_file_once" ON "verdict_file" USING btree ("pass_id","document_id","hash");--> statement-breakpoint
CREATE INDEX "verdict_file_hash" ON "verdict_file" USING btree ("hash");--> statement-breakpoint
CREATE UNIQUE INDEX "verdict_remark_number" ON "verdict_remark" USING btree ("pass_id","document_id","number");