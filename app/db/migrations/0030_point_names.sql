CREATE TABLE "point_names" (
	"key" text PRIMARY KEY NOT NULL,
	"point_id" uuid NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "point_names" ADD CONSTRAINT "point_names_point_id_points_id_fk" FOREIGN KEY ("point_id") REFERENCES "public"."points"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "point_names_point" ON "point_names" USING btree ("point_id");