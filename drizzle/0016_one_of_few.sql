ALTER TABLE "api_token" ADD CONSTRAINT "api_token_scope" CHECK ("api_token"."scope" in ('read', 'all'));--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_purpose" CHECK ("invitation"."purpose" in ('invite', 'renew'));--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_bring_level" CHECK ("access_grant"."bring_level" in ('drop', 'view', 'download', 'remark', 'work', 'organise', 'manage'));--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_level" CHECK ("access_grant"."level" in ('drop', 'view', 'download', 'remark', 'work', 'organise', 'manage'));--> statement-breakpoint
ALTER TABLE "access_grant" ADD CONSTRAINT "access_grant_subject_kind" CHECK ("access_grant"."subject_kind" in ('person', 'department', 'leads', 'group', 'everyone'));--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_kind" CHECK ("place"."kind" in ('shelf', 'folder', 'document'));--> statement-breakpoint
ALTER TABLE "content" ADD CONSTRAINT "content_preview" CHECK ("content"."preview" in ('waiting', 'made', 'none', 'failed'));--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_state" CHECK ("document"."state" in ('wip', 'shared', 'published', 'archived'));--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_kind" CHECK ("document"."kind" in ('file', 'text', 'schedule', 'drawing'));--> statement-breakpoint
ALTER TABLE "lock" ADD CONSTRAINT "lock_ended_how" CHECK ("lock"."ended_how" in ('handed-in', 'given-back', 'handed-over', 'broken'));--> statement-breakpoint
ALTER TABLE "side_version" ADD CONSTRAINT "side_version_state" CHECK ("side_version"."state" in ('open', 'merged', 'dropped'));--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_state" CHECK ("arrival"."state" in ('checking', 'waiting', 'unsafe', 'sorted', 'refused'));--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_audience" CHECK ("pass"."audience" in ('named', 'accounts', 'anyone'));--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_state" CHECK ("release"."state" in ('building', 'in-review', 'approved', 'issued', 'superseded', 'cancelled'));--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_purpose" CHECK ("release"."purpose" in ('information', 'comment', 'approval', 'construction', 'as-built'));--> statement-breakpoint
ALTER TABLE "release_override" ADD CONSTRAINT "release_override_check" CHECK ("release_override"."check" in ('newest', 'handed-in', 'free', 'settled', 'opens', 'number', 'title-block', 'same-bytes', 'revision', 'issued-before'));--> statement-breakpoint
ALTER TABLE "verdict" ADD CONSTRAINT "verdict_code" CHECK ("verdict"."code" in ('A', 'B', 'C', 'D'));--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_kind" CHECK ("notice"."kind" in ('access-given', 'lock-came', 'lock-stale', 'lock-asked', 'lock-broken', 'lock-free', 'side-version', 'remark-mentioned', 'remark-assigned', 'remark-answered', 'hatch-arrival', 'approval-asked', 'release-answered', 'release-overdue'));--> statement-breakpoint
ALTER TABLE "notice_choice" ADD CONSTRAINT "notice_choice_choice" CHECK ("notice_choice"."choice" in ('once', 'digest', 'never'));--> statement-breakpoint
ALTER TABLE "notice_choice" ADD CONSTRAINT "notice_choice_kind" CHECK ("notice_choice"."kind" in ('access-given', 'lock-came', 'lock-stale', 'lock-asked', 'lock-broken', 'lock-free', 'side-version', 'remark-mentioned', 'remark-assigned', 'remark-answered', 'hatch-arrival', 'approval-asked', 'release-answered', 'release-overdue'));--> statement-breakpoint
ALTER TABLE "mail" ADD CONSTRAINT "mail_state" CHECK ("mail"."state" in ('waiting', 'sent', 'failed'));