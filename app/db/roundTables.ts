/** Rounds, their points in walking order, points that were passed over. */
import { id, moment, retired, version } from "./columns";
import { boolean, doublePrecision, index, integer, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { sites, points } from "./assetTables";
import { sender } from "./peopleTables";

export const rounds = pgTable("rounds", {
  id: id(),
  siteId: uuid("site_id")
    .notNull()
    .references(() => sites.id),
  name: text("name").notNull(),
  /** Days between walks. */
  intervalDays: integer("interval_days").notNull().default(30),
  /** Running hours between walks, instead of days; the machines' duty tells the day. */
  intervalHours: doublePrecision("interval_hours"),
  /** A point whose limit comes near is due sooner. */
  closer: boolean("closer").notNull().default(true),
  walkedBy: text("walked_by").notNull().default(""),
  /** Since when it is walked: no point was late for it before. Null: from before this was kept. */
  begunAt: moment("begun_at"),
  retiredAt: retired(),
  version: version(),
});

export const roundPoints = pgTable(
  "round_points",
  {
    roundId: uuid("round_id")
      .notNull()
      .references(() => rounds.id, { onDelete: "cascade" }),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    position: integer("position").notNull(),
    /** Since when the round asks for it: for the time before that it is not late. */
    addedAt: moment("added_at").notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.pointId] }), index("round_points_point").on(t.pointId)],
);

/** A point passed over on a round, and why. */
export const roundSkips = pgTable(
  "round_skips",
  {
    id: id(),
    roundId: uuid("round_id")
      .notNull()
      .references(() => rounds.id, { onDelete: "cascade" }),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    at: moment("at").notNull(),
    reason: text("reason").notNull(),
    by: text("by").notNull(),
    ...sender(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("round_skips_point").on(t.pointId, t.at)],
);
