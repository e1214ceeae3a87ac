-- Levels and what hangs on them get the words that people guess: View, Download, Organise, Manage.
UPDATE "access_grant" SET
	"level" = case "level" when 'look' then 'view' when 'take' then 'download' when 'tidy' then 'organise' when 'run' then 'manage' else "level" end,
	"bring_level" = case "bring_level" when 'look' then 'view' when 'take' then 'download' when 'tidy' then 'organise' when 'run' then 'manage' else "bring_level" end
WHERE "level" in ('look', 'take', 'tidy', 'run') or "bring_level" in ('look', 'take', 'tidy', 'run');
--> statement-breakpoint
UPDATE "project" SET "settings" = ("settings" - 'runNeedsTwoStep')
	|| jsonb_build_object('manageNeedsTwoStep', coalesce("settings"->'runNeedsTwoStep', 'false'::jsonb))
	|| jsonb_build_object('outsideLevel', case "settings"->>'outsideLevel' when 'look' then '"view"'::jsonb when 'take' then '"download"'::jsonb when 'tidy' then '"organise"'::jsonb when 'run' then '"manage"'::jsonb else "settings"->'outsideLevel' end)
WHERE "settings" ? 'runNeedsTwoStep';
--> statement-breakpoint
ALTER TABLE "pass" RENAME COLUMN "may_take" TO "may_download";
