CREATE TABLE "instrument_checks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"instrument_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"kind" text NOT NULL,
	"points" jsonb NOT NULL,
	"passed" boolean NOT NULL,
	"certificate" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"by" text NOT NULL,
	"submission" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "instrument_checks_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "instrument_recalls" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"instrument_id" uuid NOT NULL,
	"from_at" timestamp with time zone NOT NULL,
	"until_at" timestamp with time zone NOT NULL,
	"reason" text NOT NULL,
	"readings" integer NOT NULL,
	"by" text NOT NULL,
	"submission" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "instrument_recalls_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"point_id" uuid NOT NULL,
	"reading_submission" uuid,
	"at" timestamp with time zone NOT NULL,
	"media_type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "photos_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "round_skips" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"round_id" uuid NOT NULL,
	"point_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"reason" text NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "round_skips_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "temporary_changes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"machine_id" uuid NOT NULL,
	"component_id" uuid,
	"what" text NOT NULL,
	"before" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"put_back_at" timestamp with time zone,
	"put_back_by" text,
	"submission" uuid NOT NULL,
	CONSTRAINT "temporary_changes_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "test_definitions" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"definition" jsonb NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"retired_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "test_records" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"component_id" uuid NOT NULL,
	"life_id" uuid,
	"test" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"typed" jsonb NOT NULL,
	"outcome" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "test_records_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
ALTER TABLE "instruments" ADD COLUMN "principle" text DEFAULT 'any' NOT NULL;--> statement-breakpoint
ALTER TABLE "instruments" ADD COLUMN "least_reading" double precision;--> statement-breakpoint
ALTER TABLE "instruments" ADD COLUMN "viscosity_low" double precision;--> statement-breakpoint
ALTER TABLE "instruments" ADD COLUMN "viscosity_high" double precision;--> statement-breakpoint
ALTER TABLE "instruments" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "recall_id" uuid;--> statement-breakpoint
ALTER TABLE "rounds" ADD COLUMN "interval_days" integer DEFAULT 30 NOT NULL;--> statement-breakpoint
ALTER TABLE "rounds" ADD COLUMN "interval_hours" double precision;--> statement-breakpoint
ALTER TABLE "rounds" ADD COLUMN "closer" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "rounds" ADD COLUMN "walked_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument_checks" ADD CONSTRAINT "instrument_checks_instrument_id_instruments_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instruments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument_recalls" ADD CONSTRAINT "instrument_recalls_instrument_id_instruments_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instruments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_skips" ADD CONSTRAINT "round_skips_round_id_rounds_id_fk" FOREIGN KEY ("round_id") REFERENCES "public"."rounds"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_skips" ADD CONSTRAINT "round_skips_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "temporary_changes" ADD CONSTRAINT "temporary_changes_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "temporary_changes" ADD CONSTRAINT "temporary_changes_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_records" ADD CONSTRAINT "test_records_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_records" ADD CONSTRAINT "test_records_life_id_lives_id_fk" FOREIGN KEY ("life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "instrument_checks_instrument" ON "instrument_checks" USING btree ("instrument_id","at");--> statement-breakpoint
CREATE INDEX "instrument_recalls_instrument" ON "instrument_recalls" USING btree ("instrument_id");--> statement-breakpoint
CREATE INDEX "photos_point" ON "photos" USING btree ("point_id","at");--> statement-breakpoint
CREATE INDEX "round_skips_point" ON "round_skips" USING btree ("point_id","at");--> statement-breakpoint
CREATE INDEX "temporary_changes_machine" ON "temporary_changes" USING btree ("machine_id") WHERE "temporary_changes"."put_back_at" is null;--> statement-breakpoint
CREATE INDEX "test_records_component" ON "test_records" USING btree ("component_id","test","at");--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_recall_id_instrument_recalls_id_fk" FOREIGN KEY ("recall_id") REFERENCES "public"."instrument_recalls"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "readings_instrument" ON "readings" USING btree ("instrument_id","taken_at");