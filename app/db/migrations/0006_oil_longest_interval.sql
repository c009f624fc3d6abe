ALTER TABLE "circuits" ADD COLUMN "longest_hours" double precision;--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "longest_months" double precision;--> statement-breakpoint
UPDATE "oil_assessments" SET "stale" = true;