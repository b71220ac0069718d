ALTER TABLE "pieces" ADD COLUMN "survey" jsonb DEFAULT '{"takes":[],"mends":[],"braces":[],"space":false,"toleranceMm":2,"layerCuts":[],"cutOut":null,"oldMetal":[],"options":[],"choice":null}'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "pieces_hours" ON "pieces" USING btree ("seq") WHERE survey->'choice'->>'hoursTaken' is not null;--> statement-breakpoint
-- What was surveyed of jobs, brought to the form it has now.
UPDATE "surveyed" SET "body" = "body" || '{"partner":null}' WHERE "body"->>'kind' = 'measure';--> statement-breakpoint
UPDATE "surveyed" SET "body" = jsonb_set("body", '{readings}', (
	SELECT coalesce(jsonb_object_agg("key", "value" || '{"as":""}'), '{}') FROM jsonb_each("body"->'readings')))
	WHERE "body"->>'kind' = 'round';--> statement-breakpoint
-- How a piece stands hangs on the survey of its job once it takes references away or is cut out, and on what the other
-- pieces of the job take away. Rows are locked in one order, so that of two who write none waits for the other in a ring.
CREATE FUNCTION "touch_surveyed_pieces"(of_job uuid, but uuid) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
	PERFORM 1 FROM pieces WHERE job = of_job AND id IS DISTINCT FROM but
		AND (survey->'takes' <> '[]' OR survey->'cutOut' <> 'null') ORDER BY id FOR UPDATE;
	UPDATE pieces SET touched = touched + 1 WHERE job = of_job AND id IS DISTINCT FROM but
		AND (survey->'takes' <> '[]' OR survey->'cutOut' <> 'null');
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_pieces_of_survey"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_surveyed_pieces(job, NULL) FROM (SELECT DISTINCT job FROM written) AS jobs;
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_other_pieces"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_surveyed_pieces(new.job, new.id);
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "surveyed_new_touch" AFTER INSERT ON "surveyed" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION "touch_pieces_of_survey"();--> statement-breakpoint
CREATE TRIGGER "surveyed_touch" AFTER UPDATE ON "surveyed" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION "touch_pieces_of_survey"();--> statement-breakpoint
CREATE TRIGGER "pieces_survey_touch" AFTER UPDATE OF "survey" ON "pieces" FOR EACH ROW WHEN (old.survey IS DISTINCT FROM new.survey) EXECUTE FUNCTION "touch_other_pieces"();
