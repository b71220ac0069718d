-- What was done and read of a piece is kept in one table, each kind as its schema has it (docs/decisions/0041).
CREATE TABLE "records" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"piece" uuid NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"body" jsonb NOT NULL,
	"withdrawn" jsonb,
	"changed" bigint DEFAULT 0 NOT NULL,
	"revision" integer GENERATED ALWAYS AS (coalesce((body ->> 'revision')::integer, (body -> 'made' ->> 'revision')::integer)) STORED,
	"edges" jsonb GENERATED ALWAYS AS (jsonb_path_query_array(body, '$.edge') || jsonb_path_query_array(body, '$.edges[*].edge')) STORED,
	CONSTRAINT "records_kind" CHECK ("records"."kind" in ('fit', 'weld', 'inspection'))
);
--> statement-breakpoint
ALTER TABLE "records" ADD CONSTRAINT "records_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "records_piece" ON "records" USING btree ("piece","seq");--> statement-breakpoint
CREATE INDEX "records_changed" ON "records" USING btree ("changed");--> statement-breakpoint
INSERT INTO "records" ("id", "piece", "kind", "at", "withdrawn", "body")
SELECT f.id, f.piece, 'fit', f.at, f.withdrawn,
	jsonb_build_object('who', f.who, 'held', f.held, 'notes', f.notes, 'revision', f.revision, 'edges', coalesce((
		SELECT jsonb_agg(jsonb_build_object('edge', e.edge, 'turned', e.turned, 'own', e.own, 'targetMm', e.target_mm,
			'toleranceMm', e.tolerance_mm, 'flushMm', e.flush_mm, 'stations', e.stations, 'readBy', e.read_by) ORDER BY e.seq)
		FROM "fit_edges" e WHERE e.fit = f.id), '[]'))
	|| CASE WHEN f.digest IS NULL THEN '{}' ELSE jsonb_build_object('digest', f.digest) END
FROM "fits" f ORDER BY f.seq;--> statement-breakpoint
INSERT INTO "records" ("id", "piece", "kind", "at", "withdrawn", "body")
SELECT id, piece, 'weld', at, withdrawn,
	jsonb_build_object('who', who, 'edge', edge, 'process', process, 'work', work, 'from', from_number, 'to', to_number,
		'settings', settings, 'note', note, 'made', made)
FROM "welds" ORDER BY seq;--> statement-breakpoint
INSERT INTO "records" ("id", "piece", "kind", "at", "withdrawn", "body")
SELECT id, piece, 'inspection', at, withdrawn,
	jsonb_build_object('who', who, 'edge', edge, 'kind', kind, 'sound', sound, 'readingMm', reading_mm, 'finding', finding,
		'remedy', remedy)
FROM "inspections" ORDER BY seq;--> statement-breakpoint
CREATE SEQUENCE "records_changed_seq";--> statement-breakpoint
CREATE FUNCTION "count_record_change"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	new.changed := nextval('records_changed_seq');
	RETURN new;
END $$;--> statement-breakpoint
CREATE TRIGGER "records_counted" BEFORE INSERT OR UPDATE ON "records" FOR EACH ROW EXECUTE FUNCTION "count_record_change"();--> statement-breakpoint
CREATE TRIGGER "records_touch" AFTER INSERT OR UPDATE OR DELETE ON "records" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();
