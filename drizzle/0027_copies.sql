ALTER TABLE "release" ADD COLUMN "stamped" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "with_marks" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "release_item" ADD COLUMN "copy_hash" text;--> statement-breakpoint
ALTER TABLE "release_item" ADD CONSTRAINT "release_item_copy_hash_content_hash_fk" FOREIGN KEY ("copy_hash") REFERENCES "public"."content"("hash") ON DELETE no action ON UPDATE no action;