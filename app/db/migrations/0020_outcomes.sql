ALTER TABLE "forecasts_issued" ADD COLUMN "p5" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "forecasts_issued" ADD COLUMN "no_trend" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "forecasts_issued" ADD COLUMN "like" double precision;--> statement-breakpoint
ALTER TABLE "forecasts_issued" ADD COLUMN "model" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "peer_evidence" ADD COLUMN "crossed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "peer_evidence" ADD COLUMN "seen_until" timestamp with time zone;--> statement-breakpoint
CREATE INDEX "forecasts_newest" ON "forecasts_issued" USING btree ("issued_at" DESC NULLS LAST);