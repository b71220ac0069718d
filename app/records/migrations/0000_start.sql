CREATE TABLE "fit_edges" (
	"seq" bigserial NOT NULL,
	"fit" uuid NOT NULL,
	"edge" text NOT NULL,
	"target_mm" double precision NOT NULL,
	"tolerance_mm" double precision NOT NULL,
	"flush_mm" double precision NOT NULL,
	"stations" jsonb NOT NULL,
	CONSTRAINT "fit_edges_fit_edge_pk" PRIMARY KEY("fit","edge")
);
--> statement-breakpoint
CREATE TABLE "fits" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"piece" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"held" text NOT NULL,
	"notes" text NOT NULL,
	"revision" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "inspections" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"piece" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"who" text NOT NULL,
	"edge" text NOT NULL,
	"kind" text NOT NULL,
	"sound" boolean NOT NULL,
	"reading_mm" double precision,
	"finding" text NOT NULL,
	"remedy" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"name" text NOT NULL,
	"vehicle" text NOT NULL,
	"owner" text NOT NULL,
	"notes" text NOT NULL,
	"created" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"archived" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "pieces" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"job" uuid NOT NULL,
	"name" text NOT NULL,
	"part" text NOT NULL,
	"side" text NOT NULL,
	"metal" text NOT NULL,
	"thickness_mm" double precision NOT NULL,
	"thickness" jsonb NOT NULL,
	"structural" boolean NOT NULL,
	"notes" text NOT NULL,
	"revision" integer DEFAULT 0 NOT NULL,
	"created" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"archived" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "prints" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"piece" uuid NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"what" text NOT NULL,
	"revision" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"piece" uuid NOT NULL,
	"number" integer NOT NULL,
	"parent" integer NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"pattern" jsonb NOT NULL,
	CONSTRAINT "revisions_piece_number_pk" PRIMARY KEY("piece","number")
);
--> statement-breakpoint
CREATE TABLE "shop" (
	"id" integer PRIMARY KEY NOT NULL,
	"settings" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "welds" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"piece" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"who" text NOT NULL,
	"edge" text NOT NULL,
	"process" text NOT NULL,
	"work" text NOT NULL,
	"from_number" integer,
	"to_number" integer,
	"settings" jsonb NOT NULL,
	"note" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "fit_edges" ADD CONSTRAINT "fit_edges_fit_fits_id_fk" FOREIGN KEY ("fit") REFERENCES "public"."fits"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fits" ADD CONSTRAINT "fits_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspections" ADD CONSTRAINT "inspections_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pieces" ADD CONSTRAINT "pieces_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prints" ADD CONSTRAINT "prints_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "welds" ADD CONSTRAINT "welds_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fits_piece" ON "fits" USING btree ("piece");--> statement-breakpoint
CREATE INDEX "inspections_piece" ON "inspections" USING btree ("piece");--> statement-breakpoint
CREATE INDEX "pieces_job" ON "pieces" USING btree ("job");--> statement-breakpoint
CREATE INDEX "welds_piece" ON "welds" USING btree ("piece");