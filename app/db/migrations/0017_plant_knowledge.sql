CREATE TABLE "plant_knowledge" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"cause" jsonb,
	"test" jsonb,
	"rank" jsonb,
	"entered_at" timestamp with time zone NOT NULL,
	"entered_by" text NOT NULL,
	"retired_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	"submission" uuid,
	CONSTRAINT "plant_knowledge_submission_unique" UNIQUE("submission"),
	CONSTRAINT "plant_knowledge_one" CHECK (num_nonnulls("plant_knowledge"."cause", "plant_knowledge"."test", "plant_knowledge"."rank") = 1)
);
--> statement-breakpoint
CREATE TABLE "test_point_advices" (
	"circuit_id" uuid PRIMARY KEY NOT NULL,
	"asked_at" timestamp with time zone NOT NULL,
	"made_at" timestamp with time zone,
	"advice" jsonb,
	"failure" text
);
--> statement-breakpoint
ALTER TABLE "isolations" ADD COLUMN "plant" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "test_point_advices" ADD CONSTRAINT "test_point_advices_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plant_knowledge_used" ON "plant_knowledge" USING btree ("entered_at") WHERE "plant_knowledge"."retired_at" is null;