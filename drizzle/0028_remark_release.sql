ALTER TABLE "remark" ADD COLUMN "release_id" text;--> statement-breakpoint
CREATE INDEX "remark_of_release" ON "remark" USING btree ("release_id") WHERE release_id is not null;