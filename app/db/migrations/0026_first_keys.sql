CREATE TABLE "first_keys" (
	"key_hash" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
