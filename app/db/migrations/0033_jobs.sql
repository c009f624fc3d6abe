CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "jobs_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"circuit_id" uuid NOT NULL,
	"component_id" uuid,
	"noticed" text DEFAULT '' NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"opened_by" text NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" text,
	"closed_because" text DEFAULT '' NOT NULL,
	"submission" uuid,
	CONSTRAINT "jobs_number_unique" UNIQUE("number"),
	CONSTRAINT "jobs_submission_unique" UNIQUE("submission")
);
--> statement-breakpoint
ALTER TABLE "isolations" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "interventions" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_component_id_components_id_fk" FOREIGN KEY ("component_id") REFERENCES "public"."components"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "jobs_newest" ON "jobs" USING btree ("opened_at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "jobs_circuit" ON "jobs" USING btree ("circuit_id","opened_at" DESC NULLS LAST);--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "isolations_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "interventions" ADD CONSTRAINT "interventions_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "isolations_job" ON "isolations" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "interventions_job" ON "interventions" USING btree ("job_id");--> statement-breakpoint
INSERT INTO "jobs" ("id", "circuit_id", "component_id", "noticed", "opened_at", "opened_by")
SELECT id, circuit_id, component_id, noticed, opened_at, opened_by FROM (
	SELECT i.id, i.circuit_id, NULL::uuid AS component_id, '' AS noticed, i.opened_at, i.opened_by FROM "isolations" i
	UNION ALL
	SELECT w.id, c.circuit_id, w.component_id, '', w.booked_at, w.booked_by FROM "interventions" w
		JOIN "components" c ON c.id = w.component_id
		WHERE NOT (w.origin = 'isolation' AND EXISTS (SELECT 1 FROM "isolations" i WHERE i.id::text = w.origin_id))
) AS began ORDER BY opened_at, id;
--> statement-breakpoint
UPDATE "isolations" SET "job_id" = "id";
--> statement-breakpoint
UPDATE "interventions" w SET "job_id" = COALESCE((SELECT i.id FROM "isolations" i WHERE w.origin = 'isolation' AND i.id::text = w.origin_id), w.id);
