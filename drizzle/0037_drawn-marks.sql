CREATE TABLE "verdict_mark" (
	"pass_id" text NOT NULL,
	"document_id" text NOT NULL,
	"id" text NOT NULL,
	"drawn" jsonb NOT NULL,
	"points" integer NOT NULL,
	"drawn_by" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "verdict_mark_pass_id_document_id_id_pk" PRIMARY KEY("pass_id","document_id","id")
);
--> statement-breakpoint
ALTER TABLE "verdict_mark" ADD CONSTRAINT "verdict_mark_pass_id_pass_id_fk" FOREIGN KEY ("pass_id") REFERENCES "public"."pass"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_mark" ADD CONSTRAINT "verdict_mark_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;