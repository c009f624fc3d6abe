/** Readings, and photographs taken beside them. A reading is never changed: a correction supersedes it. */
import { sql } from "drizzle-orm";
import { bytea, created, id, moment } from "./columns";
import { boolean, doublePrecision, index, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { lives, points } from "./assetTables";
import { instruments } from "./instrumentTables";

export const readings = pgTable(
  "readings",
  {
    id: id(),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id),
    lifeId: uuid("life_id")
      .notNull()
      .references(() => lives.id),
    takenAt: moment("taken_at").notNull(),
    /** Core unit. Over a cycle: the greatest; the least stands beside it. */
    value: doublePrecision("value").notNull(),
    least: doublePrecision("least"),
    /** Number and unit as entered. */
    entered: text("entered").notNull(),
    pressure: doublePrecision("pressure"),
    temperature: doublePrecision("temperature"),
    speed: doublePrecision("speed"),
    hours: doublePrecision("hours"),
    instrumentId: uuid("instrument_id").references(() => instruments.id),
    note: text("note").notNull().default(""),
    /** Why a questioned value was kept. */
    keptBecause: text("kept_because").notNull().default(""),
    doubtful: boolean("doubtful").notNull().default(false),
    takenBy: text("taken_by").notNull(),
    /** Who sent or imported it, where that was somebody else. */
    sentBy: text("sent_by"),
    importId: uuid("import_id"),
    /** Made by the form that sent it: the same form sent twice saves once. */
    submission: uuid("submission").unique(),
    supersedesId: uuid("supersedes_id"),
    supersededAt: moment("superseded_at"),
    supersededBy: text("superseded_by"),
    supersededWhy: text("superseded_why"),
    createdAt: created(),
  },
  (t) => [
    uniqueIndex("readings_once")
      .on(t.pointId, t.takenAt)
      .where(sql`${t.supersededAt} is null`),
    index("readings_instrument").on(t.instrumentId, t.takenAt),
    index("readings_life")
      .on(t.lifeId, t.pointId, t.takenAt)
      .where(sql`${t.supersededAt} is null`),
    index("readings_superseded_point")
      .on(t.pointId, t.supersededAt)
      .where(sql`${t.supersededAt} is not null`),
    index("readings_import")
      .on(t.importId)
      .where(sql`${t.importId} is not null`),
    index("readings_hours")
      .on(t.pointId, t.takenAt)
      .where(sql`${t.hours} is not null and ${t.supersededAt} is null`),
    index("readings_superseded")
      .on(t.supersededAt)
      .where(sql`${t.supersededAt} is not null`),
  ],
);

export const photos = pgTable(
  "photos",
  {
    id: id(),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    /** The reading that it was taken with, by its form. */
    readingSubmission: uuid("reading_submission"),
    at: moment("at").notNull(),
    mediaType: text("media_type").notNull(),
    content: bytea("content").notNull(),
    by: text("by").notNull(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("photos_point").on(t.pointId, t.at)],
);
