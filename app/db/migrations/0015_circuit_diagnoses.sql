CREATE TABLE "circuit_diagnoses" (
	"circuit_id" uuid PRIMARY KEY NOT NULL,
	"none" text,
	"detail" jsonb,
	"explained" uuid[] DEFAULT '{}'::uuid[] NOT NULL,
	"share" double precision,
	"basis" text DEFAULT '' NOT NULL,
	"shape" integer DEFAULT 0 NOT NULL,
	"stale" boolean DEFAULT true NOT NULL,
	"asked" integer DEFAULT 0 NOT NULL,
	"failure" text,
	"failures" integer DEFAULT 0 NOT NULL,
	"tried_at" timestamp with time zone,
	"assessed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "circuit_diagnoses" ADD CONSTRAINT "circuit_diagnoses_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "circuit_diagnoses_stale" ON "circuit_diagnoses" USING btree ("tried_at","assessed_at") WHERE "circuit_diagnoses"."stale";--> statement-breakpoint
-- circuits of before are diagnosed at the next sweep
INSERT INTO "circuit_diagnoses" ("circuit_id") SELECT "id" FROM "circuits" ON CONFLICT DO NOTHING;
