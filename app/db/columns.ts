/** Columns that many tables have. */
import { customType, integer, timestamp, uuid } from "drizzle-orm/pg-core";

export const bytea = customType<{ data: Buffer }>({ dataType: () => "bytea" });
export const id = () => uuid("id").primaryKey().defaultRandom();
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });
export const created = () => moment("created_at").notNull().defaultNow();
/** Counts edits of a record that two people may change: the second is told. */
export const version = () => integer("version").notNull().default(1);
export const retired = () => moment("retired_at");
