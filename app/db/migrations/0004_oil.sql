CREATE TABLE "debris_events" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"circuit_id" uuid NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"opened_by" text NOT NULL,
	"what" text NOT NULL,
	"found_at_id" uuid,
	"source_component_id" uuid,
	"source_words" text DEFAULT '' NOT NULL,
	"source_not_found" boolean DEFAULT false NOT NULL,
	"clean_sample_id" uuid,
	"closed_at" timestamp with time zone,
	"closed_by" text,
	"submission" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "debris_events_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "debris_tasks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"event_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"position" integer NOT NULL,
	"component_id" uuid,
	"title" text NOT NULL,
	"detail" text DEFAULT '' NOT NULL,
	"due_on" date,
	"result" text,
	"note" text DEFAULT '' NOT NULL,
	"done_at" timestamp with time zone,
	"done_by" text
);
--> statement-breakpoint
CREATE TABLE "laboratories" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"mapping" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "laboratories_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "oil_assessments" (
	"circuit_id" uuid PRIMARY KEY NOT NULL,
	"state" text NOT NULL,
	"urgency" double precision NOT NULL,
	"last_at" timestamp with time zone,
	"code" text,
	"target" text,
	"margin" jsonb,
	"verdict" jsonb NOT NULL,
	"dirt_at" timestamp with time zone,
	"dirt_factor" double precision,
	"detail" jsonb,
	"stale" boolean DEFAULT false NOT NULL,
	"assessed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "oil_events" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"circuit_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"hours" double precision,
	"litres" double precision,
	"fluid_id" uuid,
	"level" text DEFAULT '' NOT NULL,
	"condition" text DEFAULT '' NOT NULL,
	"change_back_by" date,
	"note" text DEFAULT '' NOT NULL,
	"by" text NOT NULL,
	"submission" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "oil_events_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "sample_photos" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"sample_id" uuid NOT NULL,
	"media_type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "samples" DROP CONSTRAINT "samples_number_unique";--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "target_code" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "target_reason" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "target_set_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "start_temperature" double precision;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "makers_code" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "materials" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "fluid_need" jsonb;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "filter" jsonb;--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "symptom_if_stuck" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "fluids" ADD COLUMN "type" text DEFAULT 'mineral' NOT NULL;--> statement-breakpoint
ALTER TABLE "fluids" ADD COLUMN "water_a" double precision;--> statement-breakpoint
ALTER TABLE "fluids" ADD COLUMN "water_b" double precision;--> statement-breakpoint
ALTER TABLE "fluids" ADD COLUMN "fresh" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "laboratory" text;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "hours" double precision;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "place" text DEFAULT 'notStated' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "state" text DEFAULT 'notStated' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "code" text;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "colour" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "sludge" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "laboratory" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "taken_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "submission" uuid;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "withdrawn_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "withdrawn_by" text;--> statement-breakpoint
ALTER TABLE "samples" ADD COLUMN "withdrawn_why" text;--> statement-breakpoint
ALTER TABLE "debris_events" ADD CONSTRAINT "debris_events_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "debris_events" ADD CONSTRAINT "debris_events_found_at_id_components_id_fk" FOREIGN KEY ("found_at_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "debris_events" ADD CONSTRAINT "debris_events_source_component_id_components_id_fk" FOREIGN KEY ("source_component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "debris_events" ADD CONSTRAINT "debris_events_clean_sample_id_samples_id_fk" FOREIGN KEY ("clean_sample_id") REFERENCES "public"."samples"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "debris_tasks" ADD CONSTRAINT "debris_tasks_event_id_debris_events_id_fk" FOREIGN KEY ("event_id") REFERENCES "public"."debris_events"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "debris_tasks" ADD CONSTRAINT "debris_tasks_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_assessments" ADD CONSTRAINT "oil_assessments_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_events" ADD CONSTRAINT "oil_events_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_events" ADD CONSTRAINT "oil_events_fluid_id_fluids_id_fk" FOREIGN KEY ("fluid_id") REFERENCES "public"."fluids"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sample_photos" ADD CONSTRAINT "sample_photos_sample_id_samples_id_fk" FOREIGN KEY ("sample_id") REFERENCES "public"."samples"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "debris_events_circuit" ON "debris_events" USING btree ("circuit_id","opened_at");--> statement-breakpoint
CREATE INDEX "debris_events_open" ON "debris_events" USING btree ("opened_at") WHERE "debris_events"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "debris_tasks_event" ON "debris_tasks" USING btree ("event_id","position");--> statement-breakpoint
CREATE INDEX "oil_assessments_urgency" ON "oil_assessments" USING btree ("urgency");--> statement-breakpoint
CREATE INDEX "oil_assessments_stale" ON "oil_assessments" USING btree ("stale") WHERE "oil_assessments"."stale";--> statement-breakpoint
CREATE INDEX "oil_events_circuit" ON "oil_events" USING btree ("circuit_id","at");--> statement-breakpoint
CREATE INDEX "sample_photos_sample" ON "sample_photos" USING btree ("sample_id");--> statement-breakpoint
CREATE UNIQUE INDEX "samples_number" ON "samples" USING btree ("number") WHERE "samples"."withdrawn_at" is null;--> statement-breakpoint
CREATE INDEX "samples_withdrawn" ON "samples" USING btree ("circuit_id","taken_at") WHERE "samples"."withdrawn_at" is not null;--> statement-breakpoint
ALTER TABLE "samples" ADD CONSTRAINT "samples_submission_unique" UNIQUE("submission");