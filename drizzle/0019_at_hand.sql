CREATE TABLE "at_hand" (
	"person_id" text NOT NULL,
	"place_id" text NOT NULL,
	"known" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "at_hand_person_id_place_id_pk" PRIMARY KEY("person_id","place_id")
);
--> statement-breakpoint
ALTER TABLE "at_hand" ADD CONSTRAINT "at_hand_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "at_hand" ADD CONSTRAINT "at_hand_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "at_hand_place" ON "at_hand" USING btree ("place_id");--> statement-breakpoint
CREATE INDEX "version_issued" ON "version" USING btree ("created_at","id") WHERE issued;