-- Who shows a file follows from its kind and is no longer kept with what its inspection showed.
UPDATE "content" SET "inspection" = "inspection" - 'shows' WHERE "inspection" ? 'shows';
