ALTER TABLE "round_skips" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "round_skips" ADD COLUMN "sent_by_id" uuid;--> statement-breakpoint
ALTER TABLE "component_moves" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "component_moves" ADD COLUMN "sent_by_id" uuid;--> statement-breakpoint
ALTER TABLE "work_entries" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "work_entries" ADD COLUMN "sent_by_id" uuid;--> statement-breakpoint
ALTER TABLE "work_findings" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "work_findings" ADD COLUMN "sent_by_id" uuid;--> statement-breakpoint
ALTER TABLE "work_photos" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "work_photos" ADD COLUMN "sent_by_id" uuid;--> statement-breakpoint
ALTER TABLE "round_skips" ADD CONSTRAINT "round_skips_sent_by_id_users_id_fk" FOREIGN KEY ("sent_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "component_moves" ADD CONSTRAINT "component_moves_sent_by_id_users_id_fk" FOREIGN KEY ("sent_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_entries" ADD CONSTRAINT "work_entries_sent_by_id_users_id_fk" FOREIGN KEY ("sent_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_findings" ADD CONSTRAINT "work_findings_sent_by_id_users_id_fk" FOREIGN KEY ("sent_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_photos" ADD CONSTRAINT "work_photos_sent_by_id_users_id_fk" FOREIGN KEY ("sent_by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;