-- ISO date on which the oldest hose of a netlist was fitted; null where none is known
CREATE FUNCTION oldest_hose(netlist jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT min(l -> 'data' ->> 'fittedOn') FROM jsonb_array_elements(netlist -> 'lines') l
  WHERE l -> 'data' ->> 'made' = 'hose' AND l -> 'data' ->> 'fittedOn' <> ''
$$;--> statement-breakpoint
CREATE TABLE "campaign_parts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"campaign_id" uuid NOT NULL,
	"component_id" uuid NOT NULL,
	"result" text DEFAULT 'open' NOT NULL,
	"marking" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone,
	"by" text,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "campaign_parts_once" UNIQUE("campaign_id","component_id")
);
--> statement-breakpoint
CREATE TABLE "campaigns" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"site_id" uuid NOT NULL,
	"title" text NOT NULL,
	"bulletin" text NOT NULL,
	"why" text DEFAULT '' NOT NULL,
	"marking" text NOT NULL,
	"due_on" date,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" text,
	"submission" uuid NOT NULL,
	CONSTRAINT "campaigns_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "component_moves" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"component_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "component_moves_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "plant_procedures" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"copy_id" uuid NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"machine_id" uuid,
	"procedure" jsonb NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"made_by" text NOT NULL,
	"retired_at" timestamp with time zone,
	CONSTRAINT "plant_procedures_version" UNIQUE("copy_id","version")
);
--> statement-breakpoint
CREATE TABLE "stored_files" (
	"key" text PRIMARY KEY NOT NULL,
	"content" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "work_addenda" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"intervention_id" uuid NOT NULL,
	"text" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "work_addenda_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "work_entries" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"step" text NOT NULL,
	"kind" text NOT NULL,
	"values" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"by_id" uuid,
	"submission" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "work_entries_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "work_findings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"intervention_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"values" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	"withdrawn_at" timestamp with time zone,
	"withdrawn_by" text,
	CONSTRAINT "work_findings_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "work_photos" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"intervention_id" uuid NOT NULL,
	"step" text DEFAULT '' NOT NULL,
	"finding_id" uuid,
	"caption" text DEFAULT '' NOT NULL,
	"marks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "work_photos_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "work_runs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"intervention_id" uuid NOT NULL,
	"procedure" jsonb NOT NULL,
	"procedure_version" integer DEFAULT 0 NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"started_by" text NOT NULL,
	"submission" uuid NOT NULL,
	CONSTRAINT "work_runs_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
ALTER TABLE "components" ADD COLUMN "exercise_days" integer;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "holds_released" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "two_signatures" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "circuit_diagrams" ADD COLUMN "oldest_hose" text GENERATED ALWAYS AS (oldest_hose(netlist)) STORED;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "origin" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "origin_id" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "condemned_by" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "parts" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "people" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "settings_left" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "open_points" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "modification" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "interim" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "look_again_on" date;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "looked_again_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "looked_again_by" text;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "unproven_because" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "signed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "signed_by" text;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "signed_by_id" uuid;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "checked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "checked_by" text;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "checked_by_id" uuid;--> statement-breakpoint
ALTER TABLE "campaign_parts" ADD CONSTRAINT "campaign_parts_campaign_id_campaigns_id_fk" FOREIGN KEY ("campaign_id") REFERENCES "public"."campaigns"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "campaign_parts" ADD CONSTRAINT "campaign_parts_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "campaigns" ADD CONSTRAINT "campaigns_site_id_sites_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."sites"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "component_moves" ADD CONSTRAINT "component_moves_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plant_procedures" ADD CONSTRAINT "plant_procedures_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_addenda" ADD CONSTRAINT "work_addenda_intervention_id_interventions_id_fk" FOREIGN KEY ("intervention_id") REFERENCES "public"."interventions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_entries" ADD CONSTRAINT "work_entries_run_id_work_runs_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."work_runs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_entries" ADD CONSTRAINT "work_entries_by_id_users_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_findings" ADD CONSTRAINT "work_findings_intervention_id_interventions_id_fk" FOREIGN KEY ("intervention_id") REFERENCES "public"."interventions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_photos" ADD CONSTRAINT "work_photos_intervention_id_interventions_id_fk" FOREIGN KEY ("intervention_id") REFERENCES "public"."interventions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_photos" ADD CONSTRAINT "work_photos_finding_id_work_findings_id_fk" FOREIGN KEY ("finding_id") REFERENCES "public"."work_findings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_runs" ADD CONSTRAINT "work_runs_intervention_id_interventions_id_fk" FOREIGN KEY ("intervention_id") REFERENCES "public"."interventions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "campaign_parts_component" ON "campaign_parts" USING btree ("component_id");--> statement-breakpoint
CREATE INDEX "component_moves_component" ON "component_moves" USING btree ("component_id","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "plant_procedures_in_use" ON "plant_procedures" USING btree ("copy_id") WHERE "plant_procedures"."retired_at" is null;--> statement-breakpoint
CREATE INDEX "work_addenda_intervention" ON "work_addenda" USING btree ("intervention_id","at");--> statement-breakpoint
CREATE INDEX "work_entries_run" ON "work_entries" USING btree ("run_id","id");--> statement-breakpoint
CREATE INDEX "work_findings_intervention" ON "work_findings" USING btree ("intervention_id","at");--> statement-breakpoint
CREATE INDEX "work_photos_intervention" ON "work_photos" USING btree ("intervention_id","at");--> statement-breakpoint
CREATE INDEX "work_photos_finding" ON "work_photos" USING btree ("finding_id");--> statement-breakpoint
CREATE INDEX "work_runs_intervention" ON "work_runs" USING btree ("intervention_id");--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_signed_by_id_users_id_fk" FOREIGN KEY ("signed_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_checked_by_id_users_id_fk" FOREIGN KEY ("checked_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "circuit_diagrams_oldest_hose" ON "circuit_diagrams" USING btree ("oldest_hose");--> statement-breakpoint
CREATE INDEX "interventions_look_again" ON "interventions" USING btree ("look_again_on") WHERE "interventions"."interim" and "interventions"."looked_again_at" is null;--> statement-breakpoint
CREATE INDEX "interventions_unsigned" ON "interventions" USING btree ("done_at") WHERE "interventions"."done_at" is not null and "interventions"."signed_at" is null;