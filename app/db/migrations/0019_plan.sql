CREATE TABLE "calendar_feeds" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"last_read_at" timestamp with time zone,
	"revoked_at" timestamp with time zone,
	CONSTRAINT "calendar_feeds_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "plan_costs" (
	"site_id" uuid PRIMARY KEY NOT NULL,
	"costs" jsonb NOT NULL,
	"set_by" text NOT NULL,
	"set_at" timestamp with time zone NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plans" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"site_id" uuid NOT NULL,
	"name" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"made_by" text NOT NULL,
	"wishes" jsonb NOT NULL,
	"lines" jsonb NOT NULL,
	"totals" jsonb NOT NULL,
	"gap" double precision NOT NULL,
	"booked_at" timestamp with time zone,
	"booked_by" text,
	"retired_at" timestamp with time zone,
	"submission" uuid,
	CONSTRAINT "plans_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "part_cost" double precision;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "failure_cost" double precision;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "spares_on_hand" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "stops" ADD COLUMN "electrician_hours" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "stops" ADD COLUMN "machine_tags" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "calendar_feeds" ADD CONSTRAINT "calendar_feeds_person_id_users_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_costs" ADD CONSTRAINT "plan_costs_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plans" ADD CONSTRAINT "plans_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "calendar_feeds_person" ON "calendar_feeds" USING btree ("person_id","made_at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "plans_kept" ON "plans" USING btree ("site_id","made_at" DESC NULLS LAST) WHERE "plans"."retired_at" is null;