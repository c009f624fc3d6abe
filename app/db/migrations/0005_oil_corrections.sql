ALTER TABLE "circuits" ADD COLUMN "metal_limits" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "debris_events" ADD COLUMN "reopened_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "debris_events" ADD COLUMN "reopened_by" text;--> statement-breakpoint
ALTER TABLE "debris_events" ADD COLUMN "reopened_why" text;--> statement-breakpoint
ALTER TABLE "oil_events" ADD COLUMN "withdrawn_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "oil_events" ADD COLUMN "withdrawn_by" text;--> statement-breakpoint
ALTER TABLE "oil_events" ADD COLUMN "withdrawn_why" text;