CREATE TABLE "content_text" (
	"hash" text PRIMARY KEY NOT NULL,
	"text" text NOT NULL,
	"words" "tsvector" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "find_word" (
	"project_id" text NOT NULL,
	"word" text NOT NULL,
	CONSTRAINT "find_word_project_id_word_pk" PRIMARY KEY("project_id","word")
);
--> statement-breakpoint
CREATE TABLE "findable" (
	"document_id" text PRIMARY KEY NOT NULL,
	"project_id" text NOT NULL,
	"scope" text,
	"name" "tsvector" NOT NULL,
	"words" "tsvector" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "unlearnt" (
	"document_id" text NOT NULL
);
--> statement-breakpoint
DROP INDEX "document_title_words";--> statement-breakpoint
ALTER TABLE "content_text" ADD CONSTRAINT "content_text_hash_content_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."content"("hash") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "find_word" ADD CONSTRAINT "find_word_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "findable" ADD CONSTRAINT "findable_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "findable" ADD CONSTRAINT "findable_project_id_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."project"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "find_word_near" ON "find_word" USING gin ("word" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "findable_words" ON "findable" USING gin ("words");
--> statement-breakpoint
-- A change of scope must not touch the index of words: no index holds it, and the pages keep room for it (HOT).
ALTER TABLE "findable" SET (fillfactor = 85);
--> statement-breakpoint
-- The words of a text, in small letters. What a person types is taken apart by the same function.
CREATE FUNCTION find_words(text) RETURNS text[] LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT coalesce(array_agg(DISTINCT word), '{}')
		FROM regexp_split_to_table(lower($1), '[^[:alnum:]]+') AS word WHERE length(word) BETWEEN 1 AND 60
$$;
--> statement-breakpoint
-- Writes down again by which words documents are found.
CREATE FUNCTION refresh_findable(ids text[]) RETURNS void LANGUAGE sql AS $$
	INSERT INTO findable (document_id, project_id, scope, name, words)
		SELECT d.id, d.project_id, CASE WHEN p.removal_id IS NULL THEN p.scope END, n.words,
			n.words || coalesce(t.words, '')
		FROM document d JOIN place p ON p.id = d.id
			CROSS JOIN LATERAL (SELECT array_to_tsvector(find_words(concat_ws(' ', d.number, d.title, array_to_string(d.tags, ' ')))) AS words) n
			LEFT JOIN version v ON v.id = d.current_version_id
			LEFT JOIN content_text t ON t.hash = v.hash
		WHERE d.id = ANY (ids) ORDER BY d.id
	ON CONFLICT (document_id) DO UPDATE SET name = excluded.name, words = excluded.words
		WHERE findable.words IS DISTINCT FROM excluded.words OR findable.name IS DISTINCT FROM excluded.name
$$;
--> statement-breakpoint
-- What one may look at is told by the scope of its place; what was removed has none.
CREATE FUNCTION note_findable_scope() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE findable f SET scope = CASE WHEN a.removal_id IS NULL THEN a.scope END
		FROM after a JOIN before b ON b.id = a.id
		WHERE f.document_id = a.id AND a.kind = 'document'
			AND (a.scope, a.removal_id) IS DISTINCT FROM (b.scope, b.removal_id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER place_found AFTER UPDATE ON "place" REFERENCING OLD TABLE AS before NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION note_findable_scope();
--> statement-breakpoint
CREATE FUNCTION note_document_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM refresh_findable(ARRAY[NEW.id]);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER document_named AFTER INSERT OR UPDATE OF number, title, tags, current_version_id ON "document"
	FOR EACH ROW EXECUTE FUNCTION note_document_words();
--> statement-breakpoint
-- A document is written before its first version; when the bytes of that are known already, their words come now.
CREATE FUNCTION note_version_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM refresh_findable(array_agg(d.id)) FROM document d
		WHERE d.id = NEW.document_id AND d.current_version_id = NEW.id
			AND EXISTS (SELECT 1 FROM content_text t WHERE t.hash = NEW.hash);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER version_words AFTER INSERT ON "version" FOR EACH ROW EXECUTE FUNCTION note_version_words();
--> statement-breakpoint
CREATE FUNCTION note_content_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM refresh_findable(array_agg(d.id)) FROM document d JOIN version v ON v.id = d.current_version_id
		WHERE v.hash = NEW.hash;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER content_words AFTER INSERT OR UPDATE ON "content_text" FOR EACH ROW EXECUTE FUNCTION note_content_words();
--> statement-breakpoint
CREATE FUNCTION note_unlearnt() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO unlearnt VALUES (NEW.document_id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER findable_changed AFTER INSERT OR UPDATE OF words ON "findable" FOR EACH ROW EXECUTE FUNCTION note_unlearnt();
--> statement-breakpoint
SELECT refresh_findable(array_agg(id)) FROM document;
