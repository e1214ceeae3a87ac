-- A number of its own for every state that access in a project has been in, so that what was worked out from one
-- state can be kept until there is another. A sequence, not a count: a number taken by a change that was taken back
-- never comes again.
CREATE SEQUENCE access_state;
--> statement-breakpoint
ALTER TABLE "project" ADD COLUMN "access_version" bigint DEFAULT 0 NOT NULL;
--> statement-breakpoint
CREATE FUNCTION note_scope_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE project SET access_version = nextval('access_state') WHERE id = NEW.project_id;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_entry_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE project SET access_version = nextval('access_state')
		WHERE id IN (SELECT p.project_id FROM changed c JOIN place p ON p.id = c.place_id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER scope_added AFTER INSERT ON "place"
	FOR EACH ROW WHEN (NEW.scope = NEW.id) EXECUTE FUNCTION note_scope_change();
--> statement-breakpoint
CREATE TRIGGER scope_changed AFTER UPDATE OF scope, path, closed ON "place"
	FOR EACH ROW WHEN (
		(OLD.scope = OLD.id OR NEW.scope = NEW.id)
		AND (OLD.scope, OLD.path, OLD.closed) IS DISTINCT FROM (NEW.scope, NEW.path, NEW.closed)
	) EXECUTE FUNCTION note_scope_change();
--> statement-breakpoint
CREATE TRIGGER entry_added AFTER INSERT ON "access_grant" REFERENCING NEW TABLE AS changed
	FOR EACH STATEMENT EXECUTE FUNCTION note_entry_change();
--> statement-breakpoint
CREATE TRIGGER entry_changed AFTER UPDATE ON "access_grant" REFERENCING NEW TABLE AS changed
	FOR EACH STATEMENT EXECUTE FUNCTION note_entry_change();
--> statement-breakpoint
CREATE TRIGGER entry_ended AFTER DELETE ON "access_grant" REFERENCING OLD TABLE AS changed
	FOR EACH STATEMENT EXECUTE FUNCTION note_entry_change();
