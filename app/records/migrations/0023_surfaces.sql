CREATE TABLE "surfaces" (
	"piece" uuid NOT NULL,
	"id" text NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "surfaces_piece_id_pk" PRIMARY KEY("piece","id")
);
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "surfaces" jsonb GENERATED ALWAYS AS (case when kind = 'card' then jsonb_path_query_array(body, '$.**.crown.*.surface') end) STORED;--> statement-breakpoint
ALTER TABLE "surfaces" ADD CONSTRAINT "surfaces_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;