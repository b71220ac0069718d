CREATE TABLE "pictures" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"job" uuid NOT NULL,
	"piece" uuid,
	"owner" text NOT NULL,
	"of" text NOT NULL,
	"digest" text NOT NULL,
	"type" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" integer NOT NULL,
	"name" text NOT NULL,
	"taken" timestamp (3) with time zone,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"caption" text DEFAULT '' NOT NULL,
	"marks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"put_away" timestamp (3) with time zone,
	CONSTRAINT "pictures_owner" CHECK ((piece is null) = (owner in ('job', 'survey')))
);
--> statement-breakpoint
CREATE TABLE "surveyed" (
	"job" uuid NOT NULL,
	"id" text NOT NULL,
	"seq" bigserial NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "surveyed_job_id_pk" PRIMARY KEY("job","id")
);
--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "surveyed" ADD CONSTRAINT "surveyed_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pictures_job" ON "pictures" USING btree ("job","seq");--> statement-breakpoint
CREATE INDEX "pictures_piece" ON "pictures" USING btree ("piece","seq");--> statement-breakpoint
CREATE INDEX "pictures_digest" ON "pictures" USING btree ("digest");