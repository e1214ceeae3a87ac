-- Events are append-only (V1, V2): the database itself refuses to change or remove one.
CREATE FUNCTION refuse_event_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION 'events are append-only';
END $$;
--> statement-breakpoint
CREATE TRIGGER event_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON "event"
	FOR EACH STATEMENT EXECUTE FUNCTION refuse_event_change();
