CREATE TABLE "rig_revisions" (
	"rig_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text,
	"held" boolean DEFAULT false NOT NULL,
	CONSTRAINT "rig_revisions_rig_id_revision_pk" PRIMARY KEY("rig_id","revision")
);
--> statement-breakpoint
ALTER TABLE "kit_revisions" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "kit_revisions" ADD COLUMN "held" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "station_revisions" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "station_revisions" ADD COLUMN "held" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "rigs" ADD COLUMN "kit_ids" jsonb GENERATED ALWAYS AS (jsonb_path_query_array(document, '$.**.kit_id')) STORED;--> statement-breakpoint
ALTER TABLE "stations" ADD COLUMN "kit_ids" jsonb GENERATED ALWAYS AS (jsonb_path_query_array(document, '$.**.kit_id')) STORED;--> statement-breakpoint
ALTER TABLE "rig_revisions" ADD CONSTRAINT "rig_revisions_rig_id_rigs_id_fk" FOREIGN KEY ("rig_id") REFERENCES "public"."rigs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "rig_revisions_by_time" ON "rig_revisions" USING btree ("saved_at");--> statement-breakpoint
CREATE INDEX "station_revisions_by_time" ON "station_revisions" USING btree ("saved_at");--> statement-breakpoint
CREATE INDEX "rigs_by_kit" ON "rigs" USING gin ("kit_ids");--> statement-breakpoint
CREATE INDEX "stations_by_kit" ON "stations" USING gin ("kit_ids");--> statement-breakpoint
INSERT INTO "rig_revisions" ("rig_id", "revision", "document", "saved_at")
	SELECT "id", "revision", "document", "updated_at" FROM "rigs";
--> statement-breakpoint
-- Whether a stored rig or station is of an older form than the one of version `present`.
CREATE FUNCTION gangway_is_old(document jsonb, present integer) RETURNS boolean
	LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT jsonb_typeof(document) = 'object' AND (
		(jsonb_typeof(document->'version') = 'number' AND (document->>'version')::numeric < present)
		OR jsonb_path_exists(document, '$.*.kit_id')
		OR jsonb_path_exists(document, '$.lens.filter.kit_id')
		OR jsonb_path_exists(document, '$.chain[*].kit_id')
		OR jsonb_path_exists(document, '$.variants.kept[*].settings.*.kit_id')
		OR jsonb_path_exists(document, '$.variants.kept[*].settings.chain[*].kit_id')
	)
$$;
--> statement-breakpoint
-- Tells every process that listens which row was changed; what it holds now is theirs to ask.
CREATE FUNCTION gangway_tell() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	revision integer;
	id uuid;
BEGIN
	IF tg_op = 'DELETE' THEN
		id := old.id;
	ELSE
		id := new.id;
		IF tg_table_name <> 'jobs' THEN
			revision := new.revision;
		END IF;
	END IF;
	PERFORM pg_notify(
		'gangway_changes',
		json_build_object('table', tg_table_name, 'id', id, 'revision', revision)::text
	);
	RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER jobs_told AFTER INSERT OR UPDATE OR DELETE ON "jobs"
	FOR EACH ROW EXECUTE FUNCTION gangway_tell();
--> statement-breakpoint
CREATE TRIGGER stations_told AFTER INSERT OR UPDATE OR DELETE ON "stations"
	FOR EACH ROW EXECUTE FUNCTION gangway_tell();
--> statement-breakpoint
CREATE TRIGGER rigs_told AFTER INSERT OR UPDATE OR DELETE ON "rigs"
	FOR EACH ROW EXECUTE FUNCTION gangway_tell();
--> statement-breakpoint
CREATE TRIGGER kit_items_told AFTER INSERT OR UPDATE OR DELETE ON "kit_items"
	FOR EACH ROW EXECUTE FUNCTION gangway_tell();
