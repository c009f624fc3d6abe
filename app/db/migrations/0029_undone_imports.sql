ALTER TABLE "imports" ADD COLUMN "undone_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "undone_by" text;