-- A file could be taken for one that cannot be opened because the process that was to open it was ending. Files that
-- were are opened and read again; those that truly cannot be opened are found out anew.
WITH "again" AS (
	UPDATE "content" SET "inspection" = NULL, "preview" = 'waiting'
		WHERE "inspection"->>'fault' = 'The file is too large or too tangled to open here.'
		RETURNING "hash"
)
DELETE FROM "content_text" USING "again" WHERE "content_text"."hash" = "again"."hash";
