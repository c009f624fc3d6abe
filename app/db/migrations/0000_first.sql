CREATE TABLE "assessments" (
	"point_id" uuid PRIMARY KEY NOT NULL,
	"life_id" uuid,
	"state" text NOT NULL,
	"urgency" double precision NOT NULL,
	"readings" integer NOT NULL,
	"last_at" timestamp with time zone,
	"last_raw" double precision,
	"margin" jsonb,
	"verdict" jsonb NOT NULL,
	"p10" timestamp with time zone,
	"p50" timestamp with time zone,
	"p90" timestamp with time zone,
	"life" jsonb,
	"detail" jsonb,
	"stale" boolean DEFAULT false NOT NULL,
	"assessed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "changes" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "changes_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	"what" text NOT NULL,
	"record_id" uuid,
	"before" jsonb,
	"after" jsonb
);
--> statement-breakpoint
CREATE TABLE "circuits" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"machine_id" uuid NOT NULL,
	"name" text NOT NULL,
	"fluid_id" uuid,
	"volume" double precision,
	"working_pressure" double precision,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "components" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"circuit_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"tag" text DEFAULT '' NOT NULL,
	"model" text DEFAULT '' NOT NULL,
	"position" integer DEFAULT 0 NOT NULL,
	"displacement" double precision,
	"speed" double precision,
	"max_pressure" double precision,
	"lead_time_days" integer,
	"run_in_hours" double precision DEFAULT 50 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fluids" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"kv40" double precision NOT NULL,
	"kv100" double precision NOT NULL,
	"density15" double precision NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "forecasts_issued" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"point_id" uuid NOT NULL,
	"life_id" uuid NOT NULL,
	"issued_at" timestamp with time zone NOT NULL,
	"last_reading_at" timestamp with time zone NOT NULL,
	"readings" integer NOT NULL,
	"p10" timestamp with time zone,
	"p50" timestamp with time zone,
	"p90" timestamp with time zone,
	"paths" jsonb NOT NULL,
	"outcome_at" timestamp with time zone,
	"outcome" text
);
--> statement-breakpoint
CREATE TABLE "imports" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"file_name" text NOT NULL,
	"content" "bytea" NOT NULL,
	"bytes" integer NOT NULL,
	"mapping" jsonb,
	"created_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone,
	"added" integer,
	"already_there" integer
);
--> statement-breakpoint
CREATE TABLE "instruments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"tag" text NOT NULL,
	"name" text NOT NULL,
	"quantity" text NOT NULL,
	"full_scale" double precision NOT NULL,
	"accuracy_class" double precision NOT NULL,
	"calibrated_at" timestamp with time zone,
	"calibration_due_at" timestamp with time zone,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "instruments_tag_unique" UNIQUE("tag")
);
--> statement-breakpoint
CREATE TABLE "interventions" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"component_id" uuid NOT NULL,
	"point_id" uuid,
	"stop_id" uuid,
	"kind" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"crew_hours" double precision DEFAULT 4 NOT NULL,
	"part_ordered_on" date,
	"booked_by" text NOT NULL,
	"booked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"submission" uuid,
	"done_at" timestamp with time zone,
	"done_hours" double precision,
	"done_by" text,
	"findings" text DEFAULT '' NOT NULL,
	"ended_life_id" uuid,
	"started_life_id" uuid,
	"cancelled_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "interventions_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "lives" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"component_id" uuid NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"start_hours" double precision DEFAULT 0 NOT NULL,
	"ended_at" timestamp with time zone,
	"end_hours" double precision,
	"end_reason" text,
	"serial" text DEFAULT '' NOT NULL,
	"known_when_new" boolean DEFAULT true NOT NULL
);
--> statement-breakpoint
CREATE TABLE "machines" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"site_id" uuid NOT NULL,
	"name" text NOT NULL,
	"tag" text NOT NULL,
	"area" text DEFAULT '' NOT NULL,
	"hours_per_day" double precision DEFAULT 8 NOT NULL,
	"duty_deviation" double precision DEFAULT 0.15 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "points" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"component_id" uuid NOT NULL,
	"name" text NOT NULL,
	"tag" text DEFAULT '' NOT NULL,
	"quantity" text NOT NULL,
	"state" text NOT NULL,
	"unit" text NOT NULL,
	"reference_pressure" double precision,
	"reference_temperature" double precision,
	"limit_basis" text,
	"limit_upper" double precision,
	"limit_lower" double precision,
	"limit_reason" text DEFAULT '' NOT NULL,
	"limit_set_by" text DEFAULT '' NOT NULL,
	"limit_set_at" timestamp with time zone,
	"makers_new" double precision,
	"interval_days" integer DEFAULT 30 NOT NULL,
	"instrument_id" uuid,
	"conditions_text" text DEFAULT '' NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	"last_reading_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"point_id" uuid NOT NULL,
	"life_id" uuid NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"value" double precision NOT NULL,
	"least" double precision,
	"entered" text NOT NULL,
	"pressure" double precision,
	"temperature" double precision,
	"speed" double precision,
	"hours" double precision,
	"instrument_id" uuid,
	"note" text DEFAULT '' NOT NULL,
	"kept_because" text DEFAULT '' NOT NULL,
	"doubtful" boolean DEFAULT false NOT NULL,
	"taken_by" text NOT NULL,
	"import_id" uuid,
	"submission" uuid,
	"supersedes_id" uuid,
	"superseded_at" timestamp with time zone,
	"superseded_by" text,
	"superseded_why" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "readings_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "round_points" (
	"round_id" uuid NOT NULL,
	"point_id" uuid NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "round_points_round_id_point_id_pk" PRIMARY KEY("round_id","point_id")
);
--> statement-breakpoint
CREATE TABLE "rounds" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"site_id" uuid NOT NULL,
	"name" text NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "samples" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"circuit_id" uuid NOT NULL,
	"number" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"results" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "samples_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"user_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "sites" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"time_zone" text NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stops" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"site_id" uuid NOT NULL,
	"name" text NOT NULL,
	"starts_on" date NOT NULL,
	"days" integer DEFAULT 1 NOT NULL,
	"crew_hours" double precision DEFAULT 24 NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "users" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"sign_in" text NOT NULL,
	"password_hash" text NOT NULL,
	"role" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "users_sign_in_unique" UNIQUE("sign_in"),
	CONSTRAINT "users_role" CHECK ("users"."role" in ('viewer', 'technician', 'engineer'))
);
--> statement-breakpoint
ALTER TABLE "assessments" ADD CONSTRAINT "assessments_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assessments" ADD CONSTRAINT "assessments_life_id_lives_id_fk" FOREIGN KEY ("life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "circuits" ADD CONSTRAINT "circuits_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "circuits" ADD CONSTRAINT "circuits_fluid_id_fluids_id_fk" FOREIGN KEY ("fluid_id") REFERENCES "public"."fluids"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "components" ADD CONSTRAINT "components_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "forecasts_issued" ADD CONSTRAINT "forecasts_issued_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "forecasts_issued" ADD CONSTRAINT "forecasts_issued_life_id_lives_id_fk" FOREIGN KEY ("life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_stop_id_stops_id_fk" FOREIGN KEY ("stop_id") REFERENCES "public"."stops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_ended_life_id_lives_id_fk" FOREIGN KEY ("ended_life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_started_life_id_lives_id_fk" FOREIGN KEY ("started_life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lives" ADD CONSTRAINT "lives_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machines" ADD CONSTRAINT "machines_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "points" ADD CONSTRAINT "points_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "points" ADD CONSTRAINT "points_instrument_id_instruments_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instruments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_life_id_lives_id_fk" FOREIGN KEY ("life_id") REFERENCES "public"."lives"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_instrument_id_instruments_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instruments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_points" ADD CONSTRAINT "round_points_round_id_rounds_id_fk" FOREIGN KEY ("round_id") REFERENCES "public"."rounds"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_points" ADD CONSTRAINT "round_points_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rounds" ADD CONSTRAINT "rounds_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "samples" ADD CONSTRAINT "samples_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stops" ADD CONSTRAINT "stops_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assessments_urgency" ON "assessments" USING btree ("urgency");--> statement-breakpoint
CREATE INDEX "assessments_p10" ON "assessments" USING btree ("p10");--> statement-breakpoint
CREATE INDEX "assessments_stale" ON "assessments" USING btree ("stale") WHERE "assessments"."stale";--> statement-breakpoint
CREATE INDEX "changes_at" ON "changes" USING btree ("at");--> statement-breakpoint
CREATE INDEX "changes_record" ON "changes" USING btree ("record_id");--> statement-breakpoint
CREATE INDEX "circuits_machine" ON "circuits" USING btree ("machine_id");--> statement-breakpoint
CREATE INDEX "components_circuit" ON "components" USING btree ("circuit_id");--> statement-breakpoint
CREATE UNIQUE INDEX "forecasts_once" ON "forecasts_issued" USING btree ("point_id","life_id","last_reading_at","readings");--> statement-breakpoint
CREATE INDEX "interventions_component" ON "interventions" USING btree ("component_id");--> statement-breakpoint
CREATE INDEX "interventions_stop" ON "interventions" USING btree ("stop_id");--> statement-breakpoint
CREATE INDEX "interventions_open" ON "interventions" USING btree ("booked_at") WHERE "interventions"."done_at" is null and "interventions"."cancelled_at" is null;--> statement-breakpoint
CREATE INDEX "lives_component" ON "lives" USING btree ("component_id","started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "lives_current" ON "lives" USING btree ("component_id") WHERE "lives"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "machines_site" ON "machines" USING btree ("site_id");--> statement-breakpoint
CREATE UNIQUE INDEX "machines_tag" ON "machines" USING btree ("site_id","tag");--> statement-breakpoint
CREATE INDEX "points_component" ON "points" USING btree ("component_id");--> statement-breakpoint
CREATE INDEX "points_due" ON "points" USING btree ("last_reading_at") WHERE "points"."retired_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "readings_once" ON "readings" USING btree ("point_id","taken_at") WHERE "readings"."superseded_at" is null;--> statement-breakpoint
CREATE INDEX "readings_life" ON "readings" USING btree ("life_id","point_id","taken_at");--> statement-breakpoint
CREATE INDEX "round_points_point" ON "round_points" USING btree ("point_id");--> statement-breakpoint
CREATE INDEX "samples_circuit" ON "samples" USING btree ("circuit_id","taken_at");--> statement-breakpoint
CREATE INDEX "sessions_expires" ON "sessions" USING btree ("expires_at");--> statement-breakpoint
CREATE INDEX "stops_start" ON "stops" USING btree ("starts_on");