CREATE TABLE "life_lessons" (
	"point_id" uuid NOT NULL,
	"life_id" uuid NOT NULL,
	"told" jsonb,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "life_lessons_point_id_life_id_pk" PRIMARY KEY("point_id","life_id")
);
--> statement-breakpoint
ALTER TABLE "life_lessons" ADD CONSTRAINT "life_lessons_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "life_lessons" ADD CONSTRAINT "life_lessons_life_id_lives_id_fk" FOREIGN KEY ("life_id") REFERENCES "public"."lives"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assessments" DROP COLUMN "life";--> statement-breakpoint
UPDATE "assessments" SET "stale" = true;
