ALTER TABLE "life_lessons" RENAME TO "peer_evidence";--> statement-breakpoint
ALTER TABLE "peer_evidence" RENAME COLUMN "told" TO "evidence";--> statement-breakpoint
ALTER TABLE "peer_evidence" RENAME CONSTRAINT "life_lessons_point_id_life_id_pk" TO "peer_evidence_point_id_life_id_pk";--> statement-breakpoint
ALTER TABLE "peer_evidence" RENAME CONSTRAINT "life_lessons_point_id_points_id_fk" TO "peer_evidence_point_id_points_id_fk";--> statement-breakpoint
ALTER TABLE "peer_evidence" RENAME CONSTRAINT "life_lessons_life_id_lives_id_fk" TO "peer_evidence_life_id_lives_id_fk";--> statement-breakpoint
ALTER INDEX "life_lessons_life" RENAME TO "peer_evidence_life";--> statement-breakpoint
ALTER INDEX "life_lessons_family" RENAME TO "peer_evidence_family";--> statement-breakpoint
ALTER TABLE "oil_assessments" RENAME COLUMN "dirt_at" TO "contaminated_at";--> statement-breakpoint
ALTER TABLE "oil_assessments" RENAME COLUMN "dirt_factor" TO "contamination_factor";
