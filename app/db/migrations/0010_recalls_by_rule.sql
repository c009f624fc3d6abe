ALTER TABLE "readings" DROP CONSTRAINT "readings_recall_id_instrument_recalls_id_fk";
--> statement-breakpoint
ALTER TABLE "instrument_recalls" DROP COLUMN "readings";--> statement-breakpoint
ALTER TABLE "readings" DROP COLUMN "recall_id";--> statement-breakpoint
UPDATE "life_lessons" t SET "family" = c.kind || '/' || p.quantity, "reached" = coalesce((t.told ->> 'reached')::boolean, false)
  FROM "points" p JOIN "components" c ON c.id = p.component_id WHERE p.id = t.point_id;--> statement-breakpoint
UPDATE "assessments" SET "stale" = true;--> statement-breakpoint
UPDATE "oil_assessments" SET "stale" = true;
