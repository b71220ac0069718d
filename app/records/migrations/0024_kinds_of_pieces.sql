ALTER TABLE "pieces" ADD COLUMN "kind" text DEFAULT 'made' NOT NULL;--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "cut_down" jsonb DEFAULT '{"readingsMm":[],"received":null,"faults":[],"works":[]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "pieces" ADD CONSTRAINT "pieces_kind" CHECK ("pieces"."kind" in ('made', 'bought', 'donor', 'old'));