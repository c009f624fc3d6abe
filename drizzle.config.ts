import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: ["./app/db/schema.ts", "./app/db/peopleTables.ts", "./app/db/oilTables.ts"],
  out: "./app/db/migrations",
});
