/**
 * What is derived from readings: assessments, what lives tell their peers. It can be thrown away and made again; the
 * forecasts as issued are the exception, since they are held to account.
 */
import { sql } from "drizzle-orm";
import { derived, id, moment } from "./columns";
import { boolean, doublePrecision, index, integer, jsonb, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import type { Assessment, ForecastMemory, ReadingMark, PeerLife, StateMemory } from "@core";
import { lives, points } from "./assetTables";

/** What was told before: of the future, with how it moved since the newest reading, and the word that stands. */
export type AssessmentMemory = ForecastMemory & { word: StateMemory };

/** An assessment as stored: the series is left out, since the readings make it again; odd readings keep their mark. */
export type AssessmentDetail = Omit<Assessment, "series" | "life"> & {
  marks: Record<string, ReadingMark>;
  memory: AssessmentMemory;
};

export const assessments = pgTable(
  "assessments",
  {
    pointId: uuid("point_id")
      .primaryKey()
      .references(() => points.id, { onDelete: "cascade" }),
    lifeId: uuid("life_id").references(() => lives.id),
    state: text("state").$type<Assessment["state"]>().notNull(),
    /** The state before this one, and since when this one stands; null: it has never been another. */
    stateBefore: text("state_before").$type<Assessment["state"]>(),
    stateSince: moment("state_since"),
    urgency: doublePrecision("urgency").notNull(),
    readings: integer("readings").notNull(),
    lastAt: moment("last_at"),
    lastRaw: doublePrecision("last_raw"),
    margin: jsonb("margin").$type<Assessment["margin"]>(),
    verdict: jsonb("verdict").$type<Assessment["verdict"]>().notNull(),
    p10: moment("p10"),
    p50: moment("p50"),
    p90: moment("p90"),
    /** The assessment without its series, for the point's own page; null until it is first assessed. */
    detail: jsonb("detail").$type<AssessmentDetail>(),
    /** The newest reading asks for a second one. */
    asksAgain: boolean("asks_again").notNull().default(false),
    ...derived(),
  },
  (t) => [
    index("assessments_urgency").on(t.urgency),
    index("assessments_p10").on(t.p10),
    index("assessments_changed").on(t.stateSince.desc()),
    index("assessments_life").on(t.lifeId),
    // every page counts what needs a decision, and of a thousand points a few do
    index("assessments_unsettled")
      .on(t.urgency)
      .where(sql`${t.state} <> 'steady' or ${t.asksAgain}`),
    index("assessments_stale")
      .on(t.triedAt, t.assessedAt)
      .where(sql`${t.stale}`),
    index("assessments_failed")
      .on(t.pointId)
      .where(sql`${t.failure} is not null`),
  ],
);

/** What every life, ended ones too, tells its peers of how parts like it wear. Derived from its readings, as an assessment is. */
export const peerEvidence = pgTable(
  "peer_evidence",
  {
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    lifeId: uuid("life_id")
      .notNull()
      .references(() => lives.id, { onDelete: "cascade" }),
    /** Kind of component and quantity: whose peer it is. */
    family: text("family").notNull().default(""),
    /** Its limit was reached, so that its hours are measured. */
    reached: boolean("reached").notNull().default(false),
    /** When it crossed its limit, as readings show; null: not so far. And until when that is known. */
    crossedAt: moment("crossed_at"),
    seenUntil: moment("seen_until"),
    /** Null: too few readings, or no limit. */
    evidence: jsonb("evidence").$type<PeerLife>(),
    madeAt: moment("made_at").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.pointId, t.lifeId] }),
    index("peer_evidence_life").on(t.lifeId),
    index("peer_evidence_family")
      .on(t.family, t.reached.desc(), t.madeAt.desc())
      .where(sql`${t.evidence} is not null`),
  ],
);

/** Every forecast as it was first shown, one row when what is shown has changed; to be scored when the crossing or replacement comes. */
export const forecastsIssued = pgTable(
  "forecasts_issued",
  {
    id: id(),
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    lifeId: uuid("life_id")
      .notNull()
      .references(() => lives.id),
    issuedAt: moment("issued_at").notNull(),
    lastReadingAt: moment("last_reading_at").notNull(),
    readings: integer("readings").notNull(),
    /** Earliest plausible date; where no trend was proved it is all that was shown. */
    p5: moment("p5"),
    noTrend: boolean("no_trend").notNull().default(false),
    p10: moment("p10"),
    p50: moment("p50"),
    p90: moment("p90"),
    paths: jsonb("paths").$type<{ id: string; share: number }[]>().notNull(),
    /** Share of probability that the life is like its peers; null: none was known. */
    like: doublePrecision("like"),
    /** Which way of forecasting it was: the shape of its assessment. */
    model: integer("model").notNull().default(0),
    outcomeAt: moment("outcome_at"),
    outcome: text("outcome"),
  },
  (t) => [
    index("forecasts_point").on(t.pointId, t.lifeId, t.issuedAt),
    index("forecasts_life").on(t.lifeId),
    index("forecasts_newest").on(t.issuedAt.desc()),
  ],
);
