CREATE TABLE "summaries" (
	"piece" uuid PRIMARY KEY NOT NULL,
	"of" bigint NOT NULL,
	"made_by" text NOT NULL,
	"summary" jsonb NOT NULL
);
--> statement-breakpoint
DROP INDEX "pieces_job";--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "touched" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "summaries" ADD CONSTRAINT "summaries_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pieces_job" ON "pieces" USING btree ("job","seq");--> statement-breakpoint
-- Whatever changes of a piece is counted, whoever changes it and however: what was made of it before is then known to be old.
CREATE FUNCTION "count_touch"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF new.touched = old.touched THEN new.touched := old.touched + 1; END IF;
	RETURN new;
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_piece"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE pieces SET touched = touched + 1
		WHERE id = CASE tg_op WHEN 'DELETE' THEN old.piece ELSE new.piece END;
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "touch_piece_of_fit"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE pieces SET touched = touched + 1
		WHERE id = (SELECT piece FROM fits WHERE id = CASE tg_op WHEN 'DELETE' THEN old.fit ELSE new.fit END);
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "pieces_touched" BEFORE UPDATE ON "pieces" FOR EACH ROW EXECUTE FUNCTION "count_touch"();--> statement-breakpoint
CREATE TRIGGER "heads_touch" AFTER INSERT OR UPDATE OR DELETE ON "heads" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();--> statement-breakpoint
CREATE TRIGGER "prints_touch" AFTER INSERT OR UPDATE OR DELETE ON "prints" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();--> statement-breakpoint
CREATE TRIGGER "fits_touch" AFTER INSERT OR UPDATE OR DELETE ON "fits" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();--> statement-breakpoint
CREATE TRIGGER "fit_edges_touch" AFTER INSERT OR UPDATE OR DELETE ON "fit_edges" FOR EACH ROW EXECUTE FUNCTION "touch_piece_of_fit"();--> statement-breakpoint
CREATE TRIGGER "welds_touch" AFTER INSERT OR UPDATE OR DELETE ON "welds" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();--> statement-breakpoint
CREATE TRIGGER "inspections_touch" AFTER INSERT OR UPDATE OR DELETE ON "inspections" FOR EACH ROW EXECUTE FUNCTION "touch_piece"();
