ALTER TABLE "place" ADD COLUMN "desk_of" text;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_desk_of_person_id_fk" FOREIGN KEY ("desk_of") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "place_one_desk" ON "place" USING btree ("project_id","desk_of") WHERE desk_of is not null;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_desk_is_shelf" CHECK (desk_of is null or kind = 'shelf');--> statement-breakpoint
-- Access is decided anew when a desk becomes a shelf of the project, as its person leaves.
DROP TRIGGER scope_changed ON "place";
--> statement-breakpoint
CREATE TRIGGER scope_changed AFTER UPDATE OF scope, path, closed, desk_of ON "place"
	FOR EACH ROW WHEN (
		(OLD.scope = OLD.id OR NEW.scope = NEW.id)
		AND (OLD.scope, OLD.path, OLD.closed, OLD.desk_of) IS DISTINCT FROM (NEW.scope, NEW.path, NEW.closed, NEW.desk_of)
	) EXECUTE FUNCTION note_scope_change();
