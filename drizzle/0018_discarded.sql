ALTER TABLE "side_version" DROP CONSTRAINT "side_version_state";--> statement-breakpoint
UPDATE "side_version" SET "state" = 'discarded' WHERE "state" = 'dropped';--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_state" CHECK ("side_version"."state" in ('open', 'merged', 'discarded'));