/** Planned stops, and work that is booked or done. */
import { sql } from "drizzle-orm";
import { id, moment, retired, version } from "./columns";
import type { InterventionKind, WorkOrigin } from "./kinds";
import { users } from "./peopleTables";
import type { VerdictPart } from "@core";
import { boolean, date, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import { sites, components, lives, points } from "./assetTables";
import { jobs } from "./jobTables";

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
    jobId: uuid("job_id").references(() => jobs.id),
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
    /** Where it came from, and the id of that record. */
    origin: text("origin").$type<WorkOrigin>().notNull().default(""),
    originId: text("origin_id").notNull().default(""),
    /** What was said of the point when the work was booked: the finding that condemned the part. */
    condemnedBy: jsonb("condemned_by").$type<VerdictPart[]>().notNull().default([]),
    parts: text("parts").notNull().default(""),
    people: text("people").notNull().default(""),
    /** Settings as left, what stays open, and how it was modified (then trends are split). */
    settingsLeft: text("settings_left").notNull().default(""),
    openPoints: text("open_points").notNull().default(""),
    modification: text("modification").notNull().default(""),
    /** A stop-gap: its cause stays open, to be looked at again on this day. */
    interim: boolean("interim").notNull().default(false),
    lookAgainOn: date("look_again_on", { mode: "string" }),
    lookedAgainAt: moment("looked_again_at"),
    lookedAgainBy: text("looked_again_by"),
    /** Who signed although no reading proves it, and why; empty: proven, or not signed. */
    unprovenBecause: text("unproven_because").notNull().default(""),
    signedAt: moment("signed_at"),
    signedBy: text("signed_by"),
    signedById: uuid("signed_by_id").references(() => users.id),
    checkedAt: moment("checked_at"),
    checkedBy: text("checked_by"),
    checkedById: uuid("checked_by_id").references(() => users.id),
    version: version(),
  },
  (t) => [
    // a stop-gap that waits to be looked at, and work that is done and not signed: few, and asked for by every page
    index("interventions_look_again")
      .on(t.lookAgainOn)
      .where(sql`${t.interim} and ${t.lookedAgainAt} is null`),
    index("interventions_unsigned")
      .on(t.doneAt)
      .where(sql`${t.doneAt} is not null and ${t.signedAt} is null`),
    index("interventions_component").on(t.componentId),
    index("interventions_job").on(t.jobId),
    index("interventions_point").on(t.pointId),
    index("interventions_stop").on(t.stopId),
    index("interventions_open")
      .on(t.bookedAt)
      .where(sql`${t.doneAt} is null and ${t.cancelledAt} is null`),
  ],
);
