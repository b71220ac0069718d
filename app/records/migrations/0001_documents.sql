CREATE TABLE "documents" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"piece" uuid,
	"job" uuid,
	"kind" text NOT NULL,
	"number" integer NOT NULL,
	"parent" integer NOT NULL,
	"version" integer NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"about" text DEFAULT '' NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "documents_owner" CHECK ((piece is null) <> (job is null))
);
--> statement-breakpoint
CREATE TABLE "heads" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"piece" uuid,
	"job" uuid,
	"kind" text NOT NULL,
	"number" integer NOT NULL,
	CONSTRAINT "heads_owner" CHECK ((piece is null) <> (job is null))
);
--> statement-breakpoint
INSERT INTO "documents" ("piece", "kind", "number", "parent", "version", "at", "body")
	SELECT "piece", 'card', "number", "parent", 1, "at", "pattern" FROM "revisions" ORDER BY "piece", "number";
--> statement-breakpoint
INSERT INTO "heads" ("piece", "kind", "number")
	SELECT "id", 'card', "revision" FROM "pieces" WHERE "revision" > 0;
--> statement-breakpoint
-- What a card said of an edge that is no geometry becomes the first version of the piece's plan.
INSERT INTO "documents" ("piece", "kind", "number", "parent", "version", "at", "body")
	SELECT p."id", 'plan', 1, 0, 1, r."at", jsonb_build_object('version', 1, 'edges', coalesce((
		SELECT jsonb_agg(jsonb_build_object('edge', e->'id', 'meets', e->'meets') ||
			CASE WHEN e->'joint'->>'kind' IN ('free', 'hem') THEN '{}'::jsonb ELSE jsonb_build_object('weld', e->'weld') END)
		FROM jsonb_array_elements(r."pattern"->'edges') e
		WHERE e->>'meets' <> '' OR e->'joint'->>'kind' NOT IN ('free', 'hem')
	), '[]'::jsonb))
	FROM "pieces" p JOIN "revisions" r ON r."piece" = p."id" AND r."number" = p."revision";
--> statement-breakpoint
INSERT INTO "heads" ("piece", "kind", "number")
	SELECT "id", 'plan', 1 FROM "pieces" WHERE "revision" > 0;
--> statement-breakpoint
DROP TABLE "revisions" CASCADE;--> statement-breakpoint
ALTER TABLE "fit_edges" ADD COLUMN "turned" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "fit_edges" ADD COLUMN "own" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "fits" ADD COLUMN "withdrawn" jsonb;--> statement-breakpoint
ALTER TABLE "inspections" ADD COLUMN "withdrawn" jsonb;--> statement-breakpoint
ALTER TABLE "prints" ADD COLUMN "digest" text;--> statement-breakpoint
ALTER TABLE "welds" ADD COLUMN "made" jsonb;--> statement-breakpoint
ALTER TABLE "welds" ADD COLUMN "withdrawn" jsonb;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "heads" ADD CONSTRAINT "heads_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "heads" ADD CONSTRAINT "heads_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "documents_piece" ON "documents" USING btree ("piece","kind","number") WHERE piece is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "documents_job" ON "documents" USING btree ("job","kind","number") WHERE job is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "heads_piece" ON "heads" USING btree ("piece","kind") WHERE piece is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "heads_job" ON "heads" USING btree ("job","kind") WHERE job is not null;--> statement-breakpoint
CREATE INDEX "prints_piece" ON "prints" USING btree ("piece");--> statement-breakpoint
ALTER TABLE "pieces" DROP COLUMN "revision";