CREATE TABLE "circuit_diagrams" (
	"circuit_id" uuid PRIMARY KEY NOT NULL,
	"netlist" jsonb NOT NULL,
	"drawing" jsonb NOT NULL,
	"assumed" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"fit" jsonb,
	"basis" text NOT NULL,
	"drawn_by" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "circuit_diagrams" ADD CONSTRAINT "circuit_diagrams_circuit_id_circuits_id_fk" FOREIGN KEY ("circuit_id") REFERENCES "public"."circuits"("id") ON DELETE cascade ON UPDATE no action;