DROP TABLE "fit_edges" CASCADE;--> statement-breakpoint
DROP TABLE "fits" CASCADE;--> statement-breakpoint
DROP TABLE "inspections" CASCADE;--> statement-breakpoint
DROP TABLE "welds" CASCADE;--> statement-breakpoint
DROP FUNCTION "touch_piece_of_fit"();
