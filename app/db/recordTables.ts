/** Files that were sent, signs of life of background processes, and who changed what. */
import { bytea, created, id, moment } from "./columns";
import { points } from "./assetTables";
import { users } from "./peopleTables";
import { bigint, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";

export const imports = pgTable(
  "imports",
  {
    id: id(),
    /** Of a laboratory's file: which laboratory. */
    laboratory: text("laboratory"),
    fileName: text("file_name").notNull(),
    content: bytea("content").notNull(),
    bytes: integer("bytes").notNull(),
    mapping: jsonb("mapping").$type<unknown>(),
    createdBy: text("created_by").notNull(),
    createdAt: created(),
    /** Where a job is with it, and its share of the file; null: nothing is under way. */
    stage: text("stage").$type<"previewing" | "importing">(),
    progress: doublePrecision("progress"),
    /** The preview under the mapping it was made with; made by a job. */
    preview: jsonb("preview").$type<unknown>(),
    /** Why a job could not do it. */
    failure: text("failure"),
    doneAt: moment("done_at"),
    added: integer("added"),
    alreadyThere: integer("already_there"),
    /** It was taken back as a whole. */
    undoneAt: moment("undone_at"),
    undoneBy: text("undone_by"),
  },
  (t) => [index("imports_created").on(t.createdAt)],
);

/** How the files of loggers and spreadsheets name points that bear another name here; tied once. */
export const pointNames = pgTable(
  "point_names",
  {
    /** As compared: folded, with machine and component where the file names them. */
    key: text("key").primaryKey(),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id),
    by: text("by").notNull(),
    at: moment("at").notNull().defaultNow(),
  },
  (t) => [index("point_names_point").on(t.pointId)],
);

/** When a background process last said that it runs. */
export const heartbeats = pgTable("heartbeats", {
  name: text("name").primaryKey(),
  at: moment("at").notNull(),
});

/** Who changed what and when, for records that are edited in place. */
export const changes = pgTable(
  "changes",
  {
    id: bigint("id", { mode: "number" }).primaryKey().generatedAlwaysAsIdentity(),
    at: moment("at").notNull().defaultNow(),
    /** The name as it was then. */
    by: text("by").notNull(),
    /** The person; null where a program acted, and in old rows whose name nobody bears. */
    byId: uuid("by_id").references(() => users.id),
    what: text("what").notNull(),
    recordId: uuid("record_id"),
    before: jsonb("before"),
    after: jsonb("after"),
  },
  (t) => [index("changes_at").on(t.at), index("changes_record").on(t.recordId), index("changes_by").on(t.byId)],
);
