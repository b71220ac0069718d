-- Two who changed one item of a list at once left it twice under one id. Both stay, as each was told: the later one gets an
-- id of its own.
CREATE FUNCTION "with_own_ids"(list jsonb, field text) RETURNS jsonb LANGUAGE plpgsql AS $$
DECLARE
	item jsonb;
	id text;
	own text;
	n integer;
	seen text[] := '{}';
	mended jsonb := '[]';
BEGIN
	IF jsonb_typeof(list) IS DISTINCT FROM 'array' THEN RETURN list; END IF;
	FOR item IN SELECT jsonb_array_elements(list) LOOP
		id := item ->> field;
		IF id = ANY (seen) THEN
			n := 2;
			own := left(id, 20) || '.' || n;
			WHILE own = ANY (seen) OR list @> jsonb_build_array(jsonb_build_object(field, own)) LOOP
				n := n + 1;
				own := left(id, 20) || '.' || n;
			END LOOP;
			item := jsonb_set(item, ARRAY[field], to_jsonb(own));
			id := own;
		END IF;
		seen := seen || id;
		mended := mended || jsonb_build_array(item);
	END LOOP;
	RETURN mended;
END $$;--> statement-breakpoint
UPDATE "shop" SET "settings" = "settings" || mended.fields FROM (
	SELECT s."id", jsonb_object_agg(l.name, with_own_ids(s."settings" -> l.name, 'id')) AS fields
	FROM "shop" s, (VALUES ('brakes'), ('edgeTools'), ('beadTools')) AS l(name)
	WHERE s."settings" ? l.name GROUP BY s."id"
) AS mended WHERE mended."id" = "shop"."id";--> statement-breakpoint
-- What other pieces of the job ask of a survey (takes, cutOut) stays as it is: they need not be touched, each for each.
ALTER TABLE "pieces" DISABLE TRIGGER "pieces_survey_touch";--> statement-breakpoint
UPDATE "pieces" SET "survey" = jsonb_set("survey", '{options}', with_own_ids("survey" -> 'options', 'id'))
WHERE "survey" -> 'options' IS DISTINCT FROM with_own_ids("survey" -> 'options', 'id');--> statement-breakpoint
ALTER TABLE "pieces" ENABLE TRIGGER "pieces_survey_touch";--> statement-breakpoint
UPDATE "pieces" SET "shaping" = jsonb_set("shaping", '{own}', with_own_ids("shaping" -> 'own', 'key'))
WHERE "shaping" -> 'own' IS DISTINCT FROM with_own_ids("shaping" -> 'own', 'key');--> statement-breakpoint
UPDATE "pictures" SET "marks" = with_own_ids("marks", 'id')
WHERE "marks" IS DISTINCT FROM with_own_ids("marks", 'id');--> statement-breakpoint
DROP FUNCTION "with_own_ids"(jsonb, text);
