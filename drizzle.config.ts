import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: "./app/db/*Tables.ts",
  out: "./app/db/migrations",
});
