ALTER TABLE "pieces" ADD COLUMN "came_from" uuid;--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "came_as" text;--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "came_why" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "pieces" ADD CONSTRAINT "pieces_came_from_pieces_id_fk" FOREIGN KEY ("came_from") REFERENCES "public"."pieces"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pieces_came" ON "pieces" USING btree ("came_from");