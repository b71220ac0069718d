CREATE TABLE "structure" (
	"job" uuid NOT NULL,
	"id" text NOT NULL,
	"seq" bigserial NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"body" jsonb NOT NULL,
	"changed" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "structure_job_id_pk" PRIMARY KEY("job","id")
);
--> statement-breakpoint
ALTER TABLE "surveyed" ADD COLUMN "changed" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "structure" ADD CONSTRAINT "structure_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "structure_changed" ON "structure" USING btree ("changed");--> statement-breakpoint
CREATE INDEX "surveyed_changed" ON "surveyed" USING btree ("changed");--> statement-breakpoint
CREATE SEQUENCE "job_bodies_changed_seq";--> statement-breakpoint
CREATE FUNCTION "count_body_change"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	new.changed := nextval('job_bodies_changed_seq');
	RETURN new;
END $$;--> statement-breakpoint
CREATE TRIGGER "surveyed_counted" BEFORE INSERT OR UPDATE ON "surveyed" FOR EACH ROW EXECUTE FUNCTION "count_body_change"();--> statement-breakpoint
CREATE TRIGGER "structure_counted" BEFORE INSERT OR UPDATE ON "structure" FOR EACH ROW EXECUTE FUNCTION "count_body_change"();--> statement-breakpoint
-- Words that were typed for what an edge meets become parts of the vehicle, one for each distinct word of a job, and a
-- joint for each edge (docs/decisions/0043).
CREATE TEMPORARY TABLE "met" ON COMMIT DROP AS
	SELECT p.job, p.id AS piece, p.seq AS piece_seq, e.value ->> 'edge' AS edge, btrim(e.value ->> 'meets') AS word,
		row_number() OVER (PARTITION BY p.job ORDER BY p.seq, e.place) AS joint
	FROM "heads" h
	JOIN "documents" d ON d.piece = h.piece AND d.kind = h.kind AND d.number = h.number
	JOIN "pieces" p ON p.id = h.piece
	CROSS JOIN LATERAL jsonb_array_elements(CASE WHEN jsonb_typeof(d.body -> 'edges') = 'array' THEN d.body -> 'edges' ELSE '[]' END)
		WITH ORDINALITY AS e(value, place)
	WHERE h.kind = 'plan' AND btrim(e.value ->> 'meets') <> '';--> statement-breakpoint
CREATE TEMPORARY TABLE "named" ON COMMIT DROP AS
	SELECT job, word, 'part' || row_number() OVER (PARTITION BY job ORDER BY min(joint)) AS id FROM "met" GROUP BY job, word;--> statement-breakpoint
INSERT INTO "structure" ("job", "id", "body")
SELECT job, id, jsonb_build_object('kind', 'part', 'name', word, 'metal', null, 'thicknessMm', null, 'readingsMm', '[]'::jsonb,
	'condition', 'unknown', 'notes', '', 'putAway', false)
FROM "named" ORDER BY job, length(id), id;--> statement-breakpoint
INSERT INTO "structure" ("job", "id", "body")
SELECT m.job, 'joint' || m.joint, jsonb_build_object('kind', 'joint',
	'first', jsonb_build_object('piece', m.piece, 'edge', m.edge, 'turned', false, 'stretch', null),
	'second', jsonb_build_object('part', n.id),
	'sameWay', false, 'fastened', null, 'over', null, 'stepped', null, 'waterFrom', null, 'reach', null, 'structural', false,
	'sight', null, 'notes', '', 'putAway', false)
FROM "met" m JOIN "named" n ON n.job = m.job AND n.word = m.word ORDER BY m.job, m.joint;--> statement-breakpoint
-- How a piece stands hangs on what it is joined to. Rows are locked in the order of their ids, and not against those who
-- only name them.
CREATE FUNCTION "joined_pieces"(of_piece uuid) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
	SELECT e.other::uuid FROM "structure" s
	CROSS JOIN LATERAL (VALUES (s.body #>> '{first,piece}', s.body #>> '{second,piece}'),
		(s.body #>> '{second,piece}', s.body #>> '{first,piece}')) AS e(own, other)
	WHERE s.job = (SELECT job FROM pieces WHERE id = of_piece) AND s.body ->> 'kind' = 'joint'
		AND e.own = of_piece::text AND e.other IS NOT NULL
$$;--> statement-breakpoint
CREATE FUNCTION "touch_pieces"(these uuid[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
	PERFORM 1 FROM pieces WHERE id = ANY (these) ORDER BY id FOR NO KEY UPDATE;
	UPDATE pieces SET touched = touched + 1 WHERE id = ANY (these);
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_piece_and_joined"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	of_piece uuid := CASE tg_op WHEN 'DELETE' THEN old.piece ELSE new.piece END;
BEGIN
	PERFORM touch_pieces(ARRAY(SELECT joined_pieces(of_piece)) || of_piece);
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION "touch_piece_and_made"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	of_piece uuid := CASE tg_op WHEN 'DELETE' THEN old.piece ELSE new.piece END;
BEGIN
	PERFORM touch_pieces(ARRAY(SELECT joined_pieces(of_piece)
		UNION SELECT id FROM pieces WHERE id = of_piece OR came_from = of_piece));
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_joined_of_facts"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_pieces(ARRAY(SELECT other FROM joined_pieces(new.id) AS other WHERE other <> new.id));
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_pieces_of_structure"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	of_job uuid := CASE tg_op WHEN 'DELETE' THEN old.job ELSE new.job END;
	part text := CASE tg_op WHEN 'DELETE' THEN old.id ELSE new.id END;
	bodies jsonb[] := CASE tg_op WHEN 'INSERT' THEN ARRAY[new.body] WHEN 'DELETE' THEN ARRAY[old.body] ELSE ARRAY[old.body, new.body] END;
BEGIN
	IF bodies[1] ->> 'kind' = 'part' THEN
		SELECT array_agg(body) INTO bodies FROM structure
			WHERE job = of_job AND body ->> 'kind' = 'joint' AND body #>> '{second,part}' = part;
	END IF;
	PERFORM touch_pieces(ARRAY(SELECT DISTINCT e.piece::uuid FROM unnest(bodies) AS b(body)
		CROSS JOIN LATERAL (VALUES (b.body #>> '{first,piece}'), (b.body #>> '{second,piece}')) AS e(piece)
		WHERE b.body ->> 'kind' = 'joint' AND e.piece IS NOT NULL));
	RETURN NULL;
END $$;--> statement-breakpoint
DROP TRIGGER "records_touch" ON "records";--> statement-breakpoint
CREATE TRIGGER "records_touch" AFTER INSERT OR UPDATE OR DELETE ON "records" FOR EACH ROW EXECUTE FUNCTION "touch_piece_and_joined"();--> statement-breakpoint
CREATE TRIGGER "structure_touch" AFTER INSERT OR UPDATE OR DELETE ON "structure" FOR EACH ROW EXECUTE FUNCTION "touch_pieces_of_structure"();--> statement-breakpoint
CREATE TRIGGER "pieces_joined_touch" AFTER UPDATE OF "name", "metal", "thickness_mm", "archived" ON "pieces" FOR EACH ROW
	WHEN ((old.name, old.metal, old.thickness_mm, old.archived) IS DISTINCT FROM (new.name, new.metal, new.thickness_mm, new.archived))
	EXECUTE FUNCTION "touch_joined_of_facts"();
