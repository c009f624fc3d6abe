ALTER TABLE "changes" ADD COLUMN "by_id" uuid;--> statement-breakpoint
ALTER TABLE "changes" ADD CONSTRAINT "changes_by_id_users_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "changes_by" ON "changes" USING btree ("by_id");--> statement-breakpoint
UPDATE "changes" SET "by_id" = "users"."id" FROM "users" WHERE "users"."name" = "changes"."by";
