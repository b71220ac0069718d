ALTER TABLE "documents" ADD COLUMN "edges" jsonb GENERATED ALWAYS AS (case when kind = 'card' then jsonb_path_query_array(body, '$.edges[*].id') end) STORED;--> statement-breakpoint
CREATE INDEX "documents_made_from" ON "documents" USING btree ("piece","kind","parent","number");--> statement-breakpoint
CREATE INDEX "pieces_seq" ON "pieces" USING btree ("seq");--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_kind" CHECK ("documents"."kind" in ('card', 'plan'));--> statement-breakpoint
ALTER TABLE "fits" ADD CONSTRAINT "fits_held" CHECK ("fits"."held" in ('hand', 'magnets', 'clamps', 'sheet-pins', 'screws', 'tacks'));--> statement-breakpoint
ALTER TABLE "heads" ADD CONSTRAINT "heads_kind" CHECK ("heads"."kind" in ('card', 'plan'));--> statement-breakpoint
ALTER TABLE "inspections" ADD CONSTRAINT "inspections_kind" CHECK ("inspections"."kind" in ('lamp', 'tap', 'penetration', 'flush', 'thickness'));--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_owner_known" CHECK ("pictures"."owner" in ('job', 'survey', 'piece', 'edge', 'fit', 'weld', 'inspection'));--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_type" CHECK ("pictures"."type" in ('jpeg', 'png', 'webp'));--> statement-breakpoint
ALTER TABLE "pieces" ADD CONSTRAINT "pieces_side" CHECK ("pieces"."side" in ('left', 'right', 'front', 'rear', 'centre'));--> statement-breakpoint
ALTER TABLE "pieces" ADD CONSTRAINT "pieces_came_as" CHECK ("pieces"."came_as" in ('other-side', 'again'));--> statement-breakpoint
ALTER TABLE "welds" ADD CONSTRAINT "welds_process" CHECK ("welds"."process" in ('mig', 'tig', 'gas', 'spot', 'braze'));--> statement-breakpoint
ALTER TABLE "welds" ADD CONSTRAINT "welds_work" CHECK ("welds"."work" in ('tacks', 'plugs', 'seam', 'stitch'));