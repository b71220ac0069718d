CREATE TABLE "devices" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"name" text NOT NULL,
	"person" uuid,
	"created" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"gone" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "joins" (
	"code" text PRIMARY KEY NOT NULL,
	"device" text NOT NULL,
	"person" uuid,
	"until" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "may_look" (
	"person" uuid NOT NULL,
	"job" uuid NOT NULL,
	CONSTRAINT "may_look_person_job_pk" PRIMARY KEY("person","job")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seq" bigserial NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"phrase" text,
	"pin" text,
	"created" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"gone" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token" text PRIMARY KEY NOT NULL,
	"person" uuid,
	"person_until" timestamp (3) with time zone,
	"device" uuid,
	"made" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"seen" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"until" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "wrong_tries" (
	"seq" bigserial NOT NULL,
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "devices" ADD CONSTRAINT "devices_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "joins" ADD CONSTRAINT "joins_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "may_look" ADD CONSTRAINT "may_look_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "may_look" ADD CONSTRAINT "may_look_job_jobs_id_fk" FOREIGN KEY ("job") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_device_devices_id_fk" FOREIGN KEY ("device") REFERENCES "public"."devices"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sessions_person" ON "sessions" USING btree ("person");--> statement-breakpoint
CREATE INDEX "sessions_device" ON "sessions" USING btree ("device");--> statement-breakpoint
CREATE INDEX "wrong_tries_at" ON "wrong_tries" USING btree ("at");