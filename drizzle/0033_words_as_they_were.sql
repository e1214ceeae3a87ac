-- What a document is found by changes with its number, title, tags and bytes. A revision that is fixed of the same bytes
-- changes none of them: hundreds are fixed at once when a release is issued, and each was read into the index anew.
CREATE OR REPLACE FUNCTION note_document_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'INSERT' OR (NEW.number, NEW.title, NEW.tags) IS DISTINCT FROM (OLD.number, OLD.title, OLD.tags)
		OR (SELECT hash FROM version WHERE id = NEW.current_version_id)
			IS DISTINCT FROM (SELECT hash FROM version WHERE id = OLD.current_version_id)
	THEN
		PERFORM refresh_findable(ARRAY[NEW.id]);
	END IF;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION note_version_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF EXISTS (SELECT 1 FROM document d WHERE d.id = NEW.document_id AND d.current_version_id = NEW.id)
		AND EXISTS (SELECT 1 FROM content_text t WHERE t.hash = NEW.hash)
	THEN
		PERFORM refresh_findable(ARRAY[NEW.document_id]);
	END IF;
	RETURN NULL;
END $$;
--> statement-breakpoint
-- A folder in which many change at one moment is told of it once.
CREATE OR REPLACE FUNCTION note_last_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE folder_count c SET last_at = NEW.changed_at, last_by = NEW.changed_by
		FROM place p WHERE p.id = NEW.id AND c.folder_id = p.parent_id AND c.scope = p.scope
			AND (c.last_at IS NULL OR c.last_at <= NEW.changed_at)
			AND (c.last_at, c.last_by) IS DISTINCT FROM (NEW.changed_at, NEW.changed_by);
	RETURN NULL;
END $$;
