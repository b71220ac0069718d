-- A card that changes touches the pieces made from it too: what lists show of them says so. Rows are held in the order of
-- their ids, as everywhere several pieces are touched at once, so that two who do it wait for each other and never both.
CREATE FUNCTION "touch_piece_and_made"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	of_piece uuid := CASE tg_op WHEN 'DELETE' THEN old.piece ELSE new.piece END;
BEGIN
	PERFORM 1 FROM pieces WHERE id = of_piece OR came_from = of_piece ORDER BY id FOR UPDATE;
	UPDATE pieces SET touched = touched + 1 WHERE id = of_piece OR came_from = of_piece;
	RETURN NULL;
END $$;--> statement-breakpoint
DROP TRIGGER "heads_touch" ON "heads";--> statement-breakpoint
CREATE TRIGGER "heads_touch" AFTER INSERT OR UPDATE OR DELETE ON "heads" FOR EACH ROW EXECUTE FUNCTION "touch_piece_and_made"();
