CREATE TABLE "requests" (
	"key" text PRIMARY KEY NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "by" text DEFAULT '' NOT NULL;