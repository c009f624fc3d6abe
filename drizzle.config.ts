import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: ["./app/db/*Tables.ts", "./app/db/views.ts"],
  out: "./app/db/migrations",
});
