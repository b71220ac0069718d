CREATE TABLE "secret_tries" (
	"kind" text NOT NULL,
	"who" text NOT NULL,
	"address" text NOT NULL,
	"tries" integer NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"until" timestamp (3) with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "secret_tries_kind_who_address_pk" PRIMARY KEY("kind","who","address")
);
--> statement-breakpoint
CREATE INDEX "secret_tries_at" ON "secret_tries" USING btree ("at");