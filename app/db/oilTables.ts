/** The tables of the oil: samples, what was filled, what is said of it, laboratories, debris events. */
import { sql } from "drizzle-orm";
import {
  boolean,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { OilAssessment, Results, SamplePlace, SampleState } from "@core";
import { bytea, created, derived, id, moment, version } from "./columns";
import { circuits, components, fluids } from "./assetTables";

/** A sample of a circuit's oil. Never changed: a wrong one is withdrawn with its reason and stays. */
export const samples = pgTable(
  "samples",
  {
    id: id(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    number: text("number").notNull(),
    takenAt: moment("taken_at").notNull(),
    hours: doublePrecision("hours"),
    place: text("place").$type<SamplePlace>().notNull().default("notStated"),
    state: text("state").$type<SampleState>().notNull().default("notStated"),
    /** Results by name in core units; a "less than" value carries its sign. */
    results: jsonb("results").$type<Results>().notNull(),
    /** Code as the laboratory wrote it. */
    code: text("code"),
    colour: text("colour").notNull().default(""),
    sludge: text("sludge").notNull().default(""),
    laboratory: text("laboratory").notNull().default(""),
    note: text("note").notNull().default(""),
    takenBy: text("taken_by").notNull().default(""),
    importId: uuid("import_id"),
    submission: uuid("submission").unique(),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    withdrawnWhy: text("withdrawn_why"),
    createdAt: created(),
  },
  (t) => [
    index("samples_circuit").on(t.circuitId, t.takenAt),
    uniqueIndex("samples_number")
      .on(t.laboratory, t.number)
      .where(sql`${t.withdrawnAt} is null`),
    index("samples_withdrawn")
      .on(t.circuitId, t.takenAt)
      .where(sql`${t.withdrawnAt} is not null`),
  ],
);

/** A patch, the bottle, the debris. */
export const samplePhotos = pgTable(
  "sample_photos",
  {
    id: id(),
    sampleId: uuid("sample_id")
      .notNull()
      .references(() => samples.id, { onDelete: "cascade" }),
    mediaType: text("media_type").notNull(),
    content: bytea("content").notNull(),
    by: text("by").notNull(),
    at: moment("at").notNull().defaultNow(),
  },
  (t) => [index("sample_photos_sample").on(t.sampleId)],
);

export const oilEventKinds = ["fill", "change", "topUp", "drained", "level"] as const;
export type OilEventKind = (typeof oilEventKinds)[number];

/** What was filled in, let out, and how high it stood. A wrong one is withdrawn with its reason and stays. */
export const oilEvents = pgTable(
  "oil_events",
  {
    id: id(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    kind: text("kind").$type<OilEventKind>().notNull(),
    at: moment("at").notNull(),
    hours: doublePrecision("hours"),
    litres: doublePrecision("litres"),
    fluidId: uuid("fluid_id").references(() => fluids.id),
    /** Of a level: what the glass showed, and how the machine stood: oil temperature, level ground, where the actuators were. */
    level: text("level").notNull().default(""),
    condition: text("condition").notNull().default(""),
    /** A stop-gap fill is changed back by then. */
    changeBackBy: date("change_back_by", { mode: "string" }),
    note: text("note").notNull().default(""),
    by: text("by").notNull(),
    submission: uuid("submission").unique(),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    withdrawnWhy: text("withdrawn_why"),
    createdAt: created(),
  },
  (t) => [index("oil_events_circuit").on(t.circuitId, t.at)],
);

/** What a circuit's oil says: derived, can be thrown away and made again. */
export const oilAssessments = pgTable(
  "oil_assessments",
  {
    circuitId: uuid("circuit_id")
      .primaryKey()
      .references(() => circuits.id, { onDelete: "cascade" }),
    state: text("state").$type<OilAssessment["state"]>().notNull(),
    urgency: doublePrecision("urgency").notNull(),
    lastAt: moment("last_at"),
    code: text("code"),
    target: text("target"),
    margin: jsonb("margin").$type<OilAssessment["margin"]>(),
    verdict: jsonb("verdict").$type<OilAssessment["verdict"]>().notNull(),
    /** Contamination that the forecasts of this circuit's parts reckon with. */
    contaminatedAt: moment("contaminated_at"),
    contaminationFactor: doublePrecision("contamination_factor"),
    detail: jsonb("detail").$type<OilAssessment>(),
    ...derived(),
  },
  (t) => [
    index("oil_assessments_urgency").on(t.urgency),
    index("oil_assessments_stale")
      .on(t.triedAt, t.assessedAt)
      .where(sql`${t.stale}`),
    index("oil_assessments_failed")
      .on(t.circuitId)
      .where(sql`${t.failure} is not null`),
  ],
);

/** How a laboratory writes its files, kept from the last one. */
export const laboratories = pgTable("laboratories", {
  id: id(),
  name: text("name").notNull().unique(),
  mapping: jsonb("mapping").$type<unknown>().notNull(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const debrisEvents = pgTable(
  "debris_events",
  {
    id: id(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    openedAt: moment("opened_at").notNull(),
    openedBy: text("opened_by").notNull(),
    what: text("what").notNull(),
    foundAtId: uuid("found_at_id").references(() => components.id),
    sourceComponentId: uuid("source_component_id").references(() => components.id),
    sourceWords: text("source_words").notNull().default(""),
    sourceNotFound: boolean("source_not_found").notNull().default(false),
    cleanSampleId: uuid("clean_sample_id").references(() => samples.id),
    closedAt: moment("closed_at"),
    closedBy: text("closed_by"),
    /** The last time that it was closed too early. */
    reopenedAt: moment("reopened_at"),
    reopenedBy: text("reopened_by"),
    reopenedWhy: text("reopened_why"),
    submission: uuid("submission").unique(),
    version: version(),
  },
  (t) => [
    index("debris_events_circuit").on(t.circuitId, t.openedAt),
    index("debris_events_open")
      .on(t.openedAt)
      .where(sql`${t.closedAt} is null`),
  ],
);

export const debrisTaskKinds = ["check", "flush", "sample"] as const;
export const debrisResults = ["clean", "dirtFound", "stuckFreed", "renewed", "left", "done"] as const;

/** One part to look at, one step of the flush, one sample to take. */
export const debrisTasks = pgTable(
  "debris_tasks",
  {
    id: id(),
    eventId: uuid("event_id")
      .notNull()
      .references(() => debrisEvents.id, { onDelete: "cascade" }),
    kind: text("kind").$type<(typeof debrisTaskKinds)[number]>().notNull(),
    position: integer("position").notNull(),
    componentId: uuid("component_id").references(() => components.id),
    title: text("title").notNull(),
    detail: text("detail").notNull().default(""),
    dueOn: date("due_on", { mode: "string" }),
    result: text("result").$type<(typeof debrisResults)[number]>(),
    note: text("note").notNull().default(""),
    doneAt: moment("done_at"),
    doneBy: text("done_by"),
  },
  (t) => [index("debris_tasks_event").on(t.eventId, t.position)],
);
