/** Columns that many tables have. */
import { boolean, customType, integer, text, timestamp, uuid } from "drizzle-orm/pg-core";

export const bytea = customType<{ data: Buffer }>({ dataType: () => "bytea" });
export const id = () => uuid("id").primaryKey().defaultRandom();
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });
export const created = () => moment("created_at").notNull().defaultNow();
/** Counts edits of a record that two people may change: the second is told. */
export const version = () => integer("version").notNull().default(1);
export const retired = () => moment("retired_at");

/** Of rows that are derived, and made again by whoever claims them: see app/domain/condition/claims.server.ts. */
export const derived = (staleAtFirst = false) => ({
  /** Shape of what is stored as JSON; another one is stale. */
  shape: integer("shape").notNull().default(0),
  stale: boolean("stale").notNull().default(staleAtFirst),
  /** Counts what has changed about it: one that was made before the newest change stays stale. */
  asked: integer("asked").notNull().default(0),
  /** Why it could not be made, and how often that was tried; null: it could. */
  failure: text("failure"),
  failures: integer("failures").notNull().default(0),
  triedAt: moment("tried_at"),
  assessedAt: moment("assessed_at").notNull().defaultNow(),
});
