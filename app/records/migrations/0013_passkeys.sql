CREATE TABLE "passkey_asks" (
	"challenge" text PRIMARY KEY NOT NULL,
	"person" uuid,
	"until" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "passkeys" (
	"id" text PRIMARY KEY NOT NULL,
	"seq" bigserial NOT NULL,
	"person" uuid NOT NULL,
	"host" text NOT NULL,
	"public_key" text NOT NULL,
	"counter" bigint NOT NULL,
	"made" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"used" timestamp (3) with time zone
);
--> statement-breakpoint
ALTER TABLE "passkey_asks" ADD CONSTRAINT "passkey_asks_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkeys" ADD CONSTRAINT "passkeys_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "passkeys_person" ON "passkeys" USING btree ("person");