/** Plans: what a site's work costs, plans as they were made and signed, and calendars that people read elsewhere. */
import { sql } from "drizzle-orm";
import { doublePrecision, index, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { PlanCosts, PlanValue, Wishes } from "@core";
import { sites } from "./assetTables";
import { id, moment, retired, version } from "./columns";
import { users } from "./peopleTables";

/** What a site sets once; usual figures where it has none. */
export const planCosts = pgTable("plan_costs", {
  siteId: uuid("site_id")
    .primaryKey()
    .references(() => sites.id),
  costs: jsonb("costs").$type<PlanCosts>().notNull(),
  setBy: text("set_by").notNull(),
  setAt: moment("set_at").notNull(),
  version: version(),
});

/** One line of a plan as it was kept: in words too, since what it stands on changes. */
export interface KeptLine {
  piece: string;
  componentId: string;
  pointId: string | null;
  workId: string | null;
  label: string;
  kind: "stop" | "own" | "wait";
  option: string;
  /** What it is called, and when, epoch ms. */
  name: string;
  at: number;
  hours: number;
  needsPart: boolean;
  /** Chance of the limit before it. */
  crossed: number;
  reason: string;
}

export const plans = pgTable(
  "plans",
  {
    id: id(),
    siteId: uuid("site_id")
      .notNull()
      .references(() => sites.id),
    name: text("name").notNull(),
    madeAt: moment("made_at").notNull(),
    madeBy: text("made_by").notNull(),
    wishes: jsonb("wishes").$type<Wishes>().notNull(),
    lines: jsonb("lines").$type<KeptLine[]>().notNull(),
    totals: jsonb("totals").$type<PlanValue>().notNull(),
    /** How near to the best it was proven to be, 0 to 1. */
    gap: doublePrecision("gap").notNull(),
    bookedAt: moment("booked_at"),
    bookedBy: text("booked_by"),
    retiredAt: retired(),
    submission: uuid("submission").unique(),
  },
  (t) => [
    index("plans_kept")
      .on(t.siteId, t.madeAt.desc())
      .where(sql`${t.retiredAt} is null`),
  ],
);

/** A private address at which a calendar is read without signing in; whoever has it can read it, until it is revoked. */
export const calendarFeeds = pgTable(
  "calendar_feeds",
  {
    id: id(),
    personId: uuid("person_id")
      .notNull()
      .references(() => users.id),
    /** SHA-256 of the token in the address: a copy of the table opens none. */
    tokenHash: text("token_hash").notNull().unique(),
    madeAt: moment("made_at").notNull(),
    lastReadAt: moment("last_read_at"),
    revokedAt: moment("revoked_at"),
  },
  (t) => [index("calendar_feeds_person").on(t.personId, t.madeAt.desc())],
);
