ALTER TABLE "assessments" ADD COLUMN "state_before" text;--> statement-breakpoint
ALTER TABLE "assessments" ADD COLUMN "state_since" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "looked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "looked_before" timestamp with time zone;--> statement-breakpoint
CREATE INDEX "assessments_changed" ON "assessments" USING btree ("state_since" DESC NULLS LAST);