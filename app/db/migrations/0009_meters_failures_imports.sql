CREATE TABLE "heartbeats" (
	"name" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "hour_meter_changes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"machine_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"kind" text NOT NULL,
	"before" double precision NOT NULL,
	"after" double precision NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"by" text NOT NULL,
	"submission" uuid,
	"withdrawn_at" timestamp with time zone,
	"withdrawn_by" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "hour_meter_changes_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
DROP INDEX "forecasts_once";--> statement-breakpoint
DROP INDEX "assessments_stale";--> statement-breakpoint
DROP INDEX "instrument_recalls_instrument";--> statement-breakpoint
DROP INDEX "readings_life";--> statement-breakpoint
DROP INDEX "oil_assessments_stale";--> statement-breakpoint
DROP INDEX "samples_number";--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "shape" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "asks_again" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "asked" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "failure" text;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "failures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "tried_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "stage" text;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "progress" double precision;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "preview" jsonb;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "failure" text;--> statement-breakpoint
ALTER TABLE "instrument_recalls" ADD COLUMN "withdrawn_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "instrument_recalls" ADD COLUMN "withdrawn_by" text;--> statement-breakpoint
ALTER TABLE "instrument_recalls" ADD COLUMN "withdrawn_why" text;--> statement-breakpoint
ALTER TABLE "life_lessons" ADD COLUMN "family" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "life_lessons" ADD COLUMN "reached" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD COLUMN "shape" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD COLUMN "asked" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD COLUMN "failure" text;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD COLUMN "failures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD COLUMN "tried_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "hour_meter_changes" ADD CONSTRAINT "hour_meter_changes_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "hour_meter_changes_machine" ON "hour_meter_changes" USING btree ("machine_id","at");--> statement-breakpoint
CREATE INDEX "assessments_life" ON "assessments" USING btree ("life_id");--> statement-breakpoint
CREATE INDEX "assessments_failed" ON "assessments" USING btree ("point_id") WHERE "assessments"."failure" is not null;--> statement-breakpoint
CREATE INDEX "forecasts_point" ON "forecasts_issued" USING btree ("point_id","life_id","issued_at");--> statement-breakpoint
CREATE INDEX "forecasts_life" ON "forecasts_issued" USING btree ("life_id");--> statement-breakpoint
CREATE INDEX "imports_created" ON "imports" USING btree ("created_at");--> statement-breakpoint
CREATE INDEX "interventions_point" ON "interventions" USING btree ("point_id");--> statement-breakpoint
CREATE INDEX "life_lessons_life" ON "life_lessons" USING btree ("life_id");--> statement-breakpoint
CREATE INDEX "life_lessons_family" ON "life_lessons" USING btree ("family","reached" DESC NULLS LAST,"made_at" DESC NULLS LAST) WHERE "life_lessons"."told" is not null;--> statement-breakpoint
CREATE INDEX "points_instrument" ON "points" USING btree ("instrument_id");--> statement-breakpoint
CREATE INDEX "readings_import" ON "readings" USING btree ("import_id") WHERE "readings"."import_id" is not null;--> statement-breakpoint
CREATE INDEX "readings_hours" ON "readings" USING btree ("point_id","taken_at") WHERE "readings"."hours" is not null and "readings"."superseded_at" is null;--> statement-breakpoint
CREATE INDEX "sessions_user" ON "sessions" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "oil_assessments_failed" ON "oil_assessments" USING btree ("circuit_id") WHERE "oil_assessments"."failure" is not null;--> statement-breakpoint
CREATE INDEX "assessments_stale" ON "assessments" USING btree ("tried_at","assessed_at") WHERE "assessments"."stale";--> statement-breakpoint
CREATE INDEX "instrument_recalls_instrument" ON "instrument_recalls" USING btree ("instrument_id","from_at");--> statement-breakpoint
CREATE INDEX "readings_life" ON "readings" USING btree ("life_id","point_id","taken_at") WHERE "readings"."superseded_at" is null;--> statement-breakpoint
CREATE INDEX "oil_assessments_stale" ON "oil_assessments" USING btree ("tried_at","assessed_at") WHERE "oil_assessments"."stale";--> statement-breakpoint
CREATE UNIQUE INDEX "samples_number" ON "samples" USING btree ("laboratory","number") WHERE "samples"."withdrawn_at" is null;