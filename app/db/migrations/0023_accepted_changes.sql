CREATE TABLE "work_accepted_changes" (
	"intervention_id" uuid NOT NULL,
	"change_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"by_id" uuid,
	CONSTRAINT "work_accepted_changes_intervention_id_change_id_pk" PRIMARY KEY("intervention_id","change_id")
);
--> statement-breakpoint
ALTER TABLE "work_findings" ADD COLUMN "by_id" uuid;--> statement-breakpoint
ALTER TABLE "work_findings" ADD COLUMN "withdrawn_because" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "work_accepted_changes" ADD CONSTRAINT "work_accepted_changes_intervention_id_interventions_id_fk" FOREIGN KEY ("intervention_id") REFERENCES "public"."interventions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_accepted_changes" ADD CONSTRAINT "work_accepted_changes_change_id_temporary_changes_id_fk" FOREIGN KEY ("change_id") REFERENCES "public"."temporary_changes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_accepted_changes" ADD CONSTRAINT "work_accepted_changes_by_id_users_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_findings" ADD CONSTRAINT "work_findings_by_id_users_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;