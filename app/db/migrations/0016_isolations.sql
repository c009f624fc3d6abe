CREATE TABLE "isolation_results" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"isolation_id" uuid NOT NULL,
	"place" bigserial NOT NULL,
	"test" text NOT NULL,
	"result" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	"entered_by" text NOT NULL,
	"withdrawn_at" timestamp with time zone,
	"withdrawn_by" text,
	"submission" uuid,
	CONSTRAINT "isolation_results_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "isolations" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"circuit_id" uuid NOT NULL,
	"symptom" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"opened_by" text NOT NULL,
	"evidence" jsonb,
	"netlist" jsonb,
	"taught" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"gauges_out" boolean DEFAULT false NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" text,
	"found" jsonb,
	"found_text" text DEFAULT '' NOT NULL,
	"found_odds" double precision,
	"findings" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"submission" uuid,
	CONSTRAINT "isolations_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
CREATE TABLE "practice_runs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"level" integer NOT NULL,
	"seed" integer NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"made" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"named" text,
	"ended_at" timestamp with time zone,
	"score" integer,
	"submission" uuid,
	CONSTRAINT "practice_runs_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
ALTER TABLE "isolation_results" ADD CONSTRAINT "isolation_results_isolation_id_isolations_id_fk" FOREIGN KEY ("isolation_id") REFERENCES "public"."isolations"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "isolations_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "practice_runs" ADD CONSTRAINT "practice_runs_person_id_users_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "isolation_results_of" ON "isolation_results" USING btree ("isolation_id","place");--> statement-breakpoint
CREATE INDEX "isolations_open" ON "isolations" USING btree ("closed_at" DESC NULLS FIRST,"opened_at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "isolations_symptom" ON "isolations" USING btree ("symptom","closed_at" DESC NULLS LAST) WHERE "isolations"."closed_at" is not null;--> statement-breakpoint
CREATE INDEX "isolations_circuit" ON "isolations" USING btree ("circuit_id","opened_at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "practice_runs_person" ON "practice_runs" USING btree ("person_id","started_at" DESC NULLS LAST);