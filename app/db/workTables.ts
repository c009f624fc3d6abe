/** Planned stops, and work that is booked or done. */
import { sql } from "drizzle-orm";
import { id, moment, retired, version } from "./columns";
import type { InterventionKind } from "./kinds";
import { date, doublePrecision, index, integer, pgTable, text, uuid } from "drizzle-orm/pg-core";
import { sites, components, lives, points } from "./assetTables";

export const stops = pgTable(
  "stops",
  {
    id: id(),
    siteId: uuid("site_id")
      .notNull()
      .references(() => sites.id),
    name: text("name").notNull(),
    startsOn: date("starts_on", { mode: "string" }).notNull(),
    days: integer("days").notNull().default(1),
    /** Hours of fitters, and of electricians. */
    crewHours: doublePrecision("crew_hours").notNull().default(24),
    electricianHours: doublePrecision("electrician_hours").notNull().default(0),
    /** Tags of the machines that stand, separated by commas; empty: all of them. */
    machineTags: text("machine_tags").notNull().default(""),
    retiredAt: retired(),
    version: version(),
  },
  (t) => [index("stops_start").on(t.startsOn)],
);

export const interventions = pgTable(
  "interventions",
  {
    id: id(),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    /** The point that asked for it. */
    pointId: uuid("point_id").references(() => points.id),
    stopId: uuid("stop_id").references(() => stops.id),
    kind: text("kind").$type<InterventionKind>().notNull(),
    note: text("note").notNull().default(""),
    crewHours: doublePrecision("crew_hours").notNull().default(4),
    partOrderedOn: date("part_ordered_on", { mode: "string" }),
    bookedBy: text("booked_by").notNull(),
    bookedAt: moment("booked_at").notNull().defaultNow(),
    submission: uuid("submission").unique(),
    doneAt: moment("done_at"),
    doneHours: doublePrecision("done_hours"),
    doneBy: text("done_by"),
    findings: text("findings").notNull().default(""),
    endedLifeId: uuid("ended_life_id").references(() => lives.id),
    startedLifeId: uuid("started_life_id").references(() => lives.id),
    cancelledAt: moment("cancelled_at"),
    version: version(),
  },
  (t) => [
    index("interventions_component").on(t.componentId),
    index("interventions_point").on(t.pointId),
    index("interventions_stop").on(t.stopId),
    index("interventions_open")
      .on(t.bookedAt)
      .where(sql`${t.doneAt} is null and ${t.cancelledAt} is null`),
  ],
);
