-- Documents per folder and scope, kept with every change of the tree, so that counts never walk over documents.
CREATE FUNCTION count_added_documents() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO folder_count (folder_id, scope, documents)
		SELECT parent_id, scope, count(*) FROM added
		WHERE kind = 'document' AND removal_id IS NULL GROUP BY 1, 2 ORDER BY 1, 2
	ON CONFLICT (folder_id, scope) DO UPDATE SET documents = folder_count.documents + excluded.documents;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION count_changed_documents() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO folder_count (folder_id, scope, documents, last_at, last_by)
		SELECT parent_id, change.scope, sum(n), max(d.changed_at),
			(array_agg(d.changed_by ORDER BY d.changed_at DESC NULLS LAST))[1]
		FROM (
			SELECT id, parent_id, scope, 1 AS n FROM after WHERE kind = 'document' AND removal_id IS NULL
			UNION ALL
			SELECT id, parent_id, scope, -1 FROM before WHERE kind = 'document' AND removal_id IS NULL
		) AS change LEFT JOIN document d ON d.id = change.id AND n = 1
		GROUP BY 1, 2 HAVING sum(n) <> 0 ORDER BY 1, 2
	ON CONFLICT (folder_id, scope) DO UPDATE SET documents = folder_count.documents + excluded.documents,
		last_at = greatest(folder_count.last_at, excluded.last_at),
		last_by = CASE WHEN excluded.last_at > coalesce(folder_count.last_at, '-infinity') THEN excluded.last_by ELSE folder_count.last_by END;
	RETURN NULL;
END $$;
--> statement-breakpoint
-- The last change of a folder's documents, for saying who was here last.
CREATE FUNCTION note_last_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE folder_count c SET last_at = NEW.changed_at, last_by = NEW.changed_by
		FROM place p WHERE p.id = NEW.id AND c.folder_id = p.parent_id AND c.scope = p.scope
			AND (c.last_at IS NULL OR c.last_at <= NEW.changed_at);
	RETURN NULL;
END $$;
--> statement-breakpoint
INSERT INTO folder_count (folder_id, scope, documents, last_at, last_by)
	SELECT parent_id, scope, count(*), max(d.changed_at), (array_agg(d.changed_by ORDER BY d.changed_at DESC))[1]
	FROM place p JOIN document d ON d.id = p.id WHERE kind = 'document' AND removal_id IS NULL GROUP BY 1, 2;
--> statement-breakpoint
CREATE TRIGGER place_added AFTER INSERT ON "place" REFERENCING NEW TABLE AS added
	FOR EACH STATEMENT EXECUTE FUNCTION count_added_documents();
--> statement-breakpoint
CREATE TRIGGER place_changed AFTER UPDATE ON "place" REFERENCING OLD TABLE AS before NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION count_changed_documents();
--> statement-breakpoint
CREATE TRIGGER document_changed AFTER INSERT OR UPDATE OF changed_at ON "document"
	FOR EACH ROW EXECUTE FUNCTION note_last_change();
--> statement-breakpoint
UPDATE project SET settings = '{"outsideLevel":"take","runNeedsTwoStep":false}'::jsonb || settings;
