/**
 * The tables. Values are stored in core units; what was typed is kept beside them. Readings are never
 * changed or deleted: a correction supersedes. Assessments are derived and can be rebuilt.
 */
import { sql } from "drizzle-orm";
import { bytea, created, id, moment, retired, version } from "./columns";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import type { InterventionKind } from "./kinds";
import { users } from "./peopleTables";
import {
  bigint,
  boolean,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type {
  AnalyteId,
  Assessment,
  ComponentFluidNeed,
  FilterData,
  FluidType,
  LimitBasis,
  Material,
  Outcome,
  PlantTest,
  PointQuantityId,
  Principle,
  ReadingMark,
  ReadingState,
  SisterLife,
} from "@core";

/** An assessment as stored: the series is left out, since the readings make it again; odd readings keep their mark. */
export type AssessmentDetail = Omit<Assessment, "series" | "life"> & { marks: Record<string, ReadingMark> };

export const sites = pgTable("sites", {
  id: id(),
  name: text("name").notNull(),
  timeZone: text("time_zone").notNull(),
  retiredAt: retired(),
  version: version(),
});

export const fluids = pgTable("fluids", {
  id: id(),
  name: text("name").notNull(),
  /** mm²/s at 40 and 100 °C. */
  kv40: doublePrecision("kv40").notNull(),
  kv100: doublePrecision("kv100").notNull(),
  /** kg/m³ at 15 °C. */
  density15: doublePrecision("density15").notNull(),
  type: text("type").$type<FluidType>().notNull().default("mineral"),
  /** Water that it dissolves: log10 S[ppm] = A − B/T[K], its maker's constants. */
  waterA: doublePrecision("water_a"),
  waterB: doublePrecision("water_b"),
  /** Of the new oil: acid number in mg KOH/g, metals and additives in ppm. */
  fresh: jsonb("fresh").$type<Partial<Record<AnalyteId, number>>>().notNull().default({}),
  retiredAt: retired(),
  version: version(),
});

export const machines = pgTable(
  "machines",
  {
    id: id(),
    siteId: uuid("site_id")
      .notNull()
      .references(() => sites.id),
    name: text("name").notNull(),
    tag: text("tag").notNull(),
    area: text("area").notNull().default(""),
    /** Running hours a day and the relative standard deviation of that figure. */
    hoursPerDay: doublePrecision("hours_per_day").notNull().default(8),
    dutyDeviation: doublePrecision("duty_deviation").notNull().default(0.15),
    note: text("note").notNull().default(""),
    retiredAt: retired(),
    version: version(),
  },
  (t) => [index("machines_site").on(t.siteId), uniqueIndex("machines_tag").on(t.siteId, t.tag)],
);

export const circuits = pgTable(
  "circuits",
  {
    id: id(),
    machineId: uuid("machine_id")
      .notNull()
      .references(() => machines.id),
    name: text("name").notNull(),
    fluidId: uuid("fluid_id").references(() => fluids.id),
    volume: doublePrecision("volume"),
    workingPressure: doublePrecision("working_pressure"),
    /** Target cleanliness set by hand, "18/16/13", with its reason; empty: from the components. */
    targetCode: text("target_code").notNull().default(""),
    targetReason: text("target_reason").notNull().default(""),
    /** Limits of metals and dirt as read, ppm, where the laboratory or the maker states its own. */
    metalLimits: jsonb("metal_limits").$type<Partial<Record<AnalyteId, number>>>().notNull().default({}),
    targetSetBy: text("target_set_by").notNull().default(""),
    /** The longest that an oil may stay in, running hours and months, as the maker or the plant states it. */
    longestHours: doublePrecision("longest_hours"),
    longestMonths: doublePrecision("longest_months"),
    /** Coldest start, °C. */
    startTemperature: doublePrecision("start_temperature"),
    retiredAt: retired(),
    version: version(),
  },
  (t) => [index("circuits_machine").on(t.machineId)],
);

export const components = pgTable(
  "components",
  {
    id: id(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    kind: text("kind").notNull(),
    name: text("name").notNull(),
    tag: text("tag").notNull().default(""),
    model: text("model").notNull().default(""),
    /** Place along the circuit, from the reservoir. */
    position: integer("position").notNull().default(0),
    displacement: doublePrecision("displacement"),
    speed: doublePrecision("speed"),
    maxPressure: doublePrecision("max_pressure"),
    leadTimeDays: integer("lead_time_days"),
    runInHours: doublePrecision("run_in_hours").notNull().default(50),
    /** The maker's cleanliness code; empty: typical guidance. */
    makersCode: text("makers_code").notNull().default(""),
    materials: jsonb("materials").$type<Material[]>().notNull().default([]),
    fluidNeed: jsonb("fluid_need").$type<ComponentFluidNeed>(),
    filter: jsonb("filter").$type<FilterData>(),
    /** Symptom when contamination jams it; empty: usual of its kind. */
    symptomIfStuck: text("symptom_if_stuck").notNull().default(""),
    note: text("note").notNull().default(""),
    retiredAt: retired(),
    version: version(),
  },
  (t) => [index("components_circuit").on(t.circuitId)],
);

/**
 * A change of a machine's hour meter: replaced, set back, or a wrong figure put right. A wrong record is withdrawn
 * and stays.
 */
export const hourMeterChanges = pgTable(
  "hour_meter_changes",
  {
    id: id(),
    machineId: uuid("machine_id")
      .notNull()
      .references(() => machines.id),
    at: moment("at").notNull(),
    kind: text("kind").$type<"replaced" | "reset" | "corrected">().notNull(),
    /** What the meter showed before and after, hours. */
    before: doublePrecision("before").notNull(),
    after: doublePrecision("after").notNull(),
    note: text("note").notNull().default(""),
    by: text("by").notNull(),
    submission: uuid("submission").unique(),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    createdAt: created(),
  },
  (t) => [index("hour_meter_changes_machine").on(t.machineId, t.at)],
);

/** One physical part in one place, from fitting to removal. */
export const lives = pgTable(
  "lives",
  {
    id: id(),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    startedAt: moment("started_at").notNull(),
    startHours: doublePrecision("start_hours").notNull().default(0),
    endedAt: moment("ended_at"),
    endHours: doublePrecision("end_hours"),
    endReason: text("end_reason"),
    serial: text("serial").notNull().default(""),
    knownWhenNew: boolean("known_when_new").notNull().default(true),
  },
  (t) => [
    index("lives_component").on(t.componentId, t.startedAt),
    uniqueIndex("lives_current")
      .on(t.componentId)
      .where(sql`${t.endedAt} is null`),
  ],
);

export const points = pgTable(
  "points",
  {
    id: id(),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    name: text("name").notNull(),
    tag: text("tag").notNull().default(""),
    quantity: text("quantity").$type<PointQuantityId>().notNull(),
    state: text("state").$type<ReadingState>().notNull(),
    /** Unit in which it is usually read. */
    unit: text("unit").notNull(),
    referencePressure: doublePrecision("reference_pressure"),
    referenceTemperature: doublePrecision("reference_temperature"),
    limitBasis: text("limit_basis").$type<LimitBasis>(),
    limitUpper: doublePrecision("limit_upper"),
    limitLower: doublePrecision("limit_lower"),
    limitReason: text("limit_reason").notNull().default(""),
    limitSetBy: text("limit_set_by").notNull().default(""),
    limitSetAt: moment("limit_set_at"),
    makersNew: doublePrecision("makers_new"),
    intervalDays: integer("interval_days").notNull().default(30),
    instrumentId: uuid("instrument_id").references((): AnyPgColumn => instruments.id),
    conditionsText: text("conditions_text").notNull().default(""),
    retiredAt: retired(),
    version: version(),
    /** Newest reading, kept beside the point so that what is due needs no look at the readings. */
    lastReadingAt: moment("last_reading_at"),
  },
  (t) => [
    index("points_component").on(t.componentId),
    index("points_instrument").on(t.instrumentId),
    index("points_due")
      .on(t.lastReadingAt)
      .where(sql`${t.retiredAt} is null`),
  ],
);

export const instruments = pgTable("instruments", {
  id: id(),
  tag: text("tag").notNull().unique(),
  name: text("name").notNull(),
  quantity: text("quantity").$type<PointQuantityId>().notNull(),
  fullScale: doublePrecision("full_scale").notNull(),
  /** Permissible error, percent of full scale. */
  accuracyClass: doublePrecision("accuracy_class").notNull(),
  principle: text("principle").$type<Principle>().notNull().default("any"),
  /** Least value that it reads at all, core unit. */
  leastReading: doublePrecision("least_reading"),
  /** mm²/s */
  viscosityLow: doublePrecision("viscosity_low"),
  viscosityHigh: doublePrecision("viscosity_high"),
  note: text("note").notNull().default(""),
  calibratedAt: moment("calibrated_at"),
  calibrationDueAt: moment("calibration_due_at"),
  retiredAt: retired(),
  version: version(),
});

/** A calibration, or a check before use, at two or more values. */
export const instrumentChecks = pgTable(
  "instrument_checks",
  {
    id: id(),
    instrumentId: uuid("instrument_id")
      .notNull()
      .references(() => instruments.id),
    at: moment("at").notNull(),
    kind: text("kind").$type<"calibration" | "check">().notNull(),
    /** Stated value and what it read, core unit. */
    points: jsonb("points").$type<{ stated: number; read: number }[]>().notNull(),
    passed: boolean("passed").notNull(),
    certificate: text("certificate").notNull().default(""),
    note: text("note").notNull().default(""),
    by: text("by").notNull(),
    submission: uuid("submission").unique(),
    createdAt: created(),
  },
  (t) => [index("instrument_checks_instrument").on(t.instrumentId, t.at)],
);

/** Found out of calibration: what it read between two moments is not believed. */
export const instrumentRecalls = pgTable(
  "instrument_recalls",
  {
    id: id(),
    instrumentId: uuid("instrument_id")
      .notNull()
      .references(() => instruments.id),
    fromAt: moment("from_at").notNull(),
    untilAt: moment("until_at").notNull(),
    reason: text("reason").notNull(),
    by: text("by").notNull(),
    submission: uuid("submission").unique(),
    /** Found to be wrong: its readings are believed again. */
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    withdrawnWhy: text("withdrawn_why"),
    createdAt: created(),
  },
  (t) => [index("instrument_recalls_instrument").on(t.instrumentId, t.fromAt)],
);

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

export const assessments = pgTable(
  "assessments",
  {
    pointId: uuid("point_id")
      .primaryKey()
      .references(() => points.id, { onDelete: "cascade" }),
    lifeId: uuid("life_id").references(() => lives.id),
    state: text("state").$type<Assessment["state"]>().notNull(),
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
    /** Shape of what is stored as JSON; another one is stale. */
    shape: integer("shape").notNull().default(0),
    /** The newest reading asks for a second one. */
    asksAgain: boolean("asks_again").notNull().default(false),
    stale: boolean("stale").notNull().default(false),
    /** Counts what has changed about it: an assessment that began before the newest change leaves it stale. */
    asked: integer("asked").notNull().default(0),
    /** Why it could not be assessed, and how often that was tried; null: it could. */
    failure: text("failure"),
    failures: integer("failures").notNull().default(0),
    triedAt: moment("tried_at"),
    assessedAt: moment("assessed_at").notNull().defaultNow(),
  },
  (t) => [
    index("assessments_urgency").on(t.urgency),
    index("assessments_p10").on(t.p10),
    index("assessments_life").on(t.lifeId),
    index("assessments_stale")
      .on(t.triedAt, t.assessedAt)
      .where(sql`${t.stale}`),
    index("assessments_failed")
      .on(t.pointId)
      .where(sql`${t.failure} is not null`),
  ],
);

/** What every life, ended ones too, tells its sisters of how parts like it wear. Derived from its readings, as an assessment is. */
export const lifeLessons = pgTable(
  "life_lessons",
  {
    pointId: uuid("point_id")
      .notNull()
      .references(() => points.id, { onDelete: "cascade" }),
    lifeId: uuid("life_id")
      .notNull()
      .references(() => lives.id, { onDelete: "cascade" }),
    /** Kind of component and quantity: whose sister it is. */
    family: text("family").notNull().default(""),
    /** Its limit was reached, so that its hours are measured. */
    reached: boolean("reached").notNull().default(false),
    /** Null: too few readings, or no limit. */
    told: jsonb("told").$type<SisterLife>(),
    madeAt: moment("made_at").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.pointId, t.lifeId] }),
    index("life_lessons_life").on(t.lifeId),
    index("life_lessons_family")
      .on(t.family, t.reached.desc(), t.madeAt.desc())
      .where(sql`${t.told} is not null`),
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
    p10: moment("p10"),
    p50: moment("p50"),
    p90: moment("p90"),
    paths: jsonb("paths").$type<{ id: string; share: number }[]>().notNull(),
    outcomeAt: moment("outcome_at"),
    outcome: text("outcome"),
  },
  (t) => [index("forecasts_point").on(t.pointId, t.lifeId, t.issuedAt), index("forecasts_life").on(t.lifeId)],
);

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
    crewHours: doublePrecision("crew_hours").notNull().default(24),
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
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("round_skips_point").on(t.pointId, t.at)],
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

/** A test as a plant defines it: readings with their bounds. The tests that ship are in core. */
export const testDefinitions = pgTable("test_definitions", {
  id: id(),
  definition: jsonb("definition").$type<PlantTest>().notNull(),
  createdBy: text("created_by").notNull(),
  createdAt: created(),
  retiredAt: retired(),
});

/** A test that was made: what was entered, what it said. Never changed. */
export const testRecords = pgTable(
  "test_records",
  {
    id: id(),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    lifeId: uuid("life_id").references(() => lives.id),
    /** Id of a test in core, or of a test definition. */
    test: text("test").notNull(),
    at: moment("at").notNull(),
    typed: jsonb("typed").$type<Record<string, string>>().notNull(),
    outcome: jsonb("outcome").$type<Outcome>().notNull(),
    note: text("note").notNull().default(""),
    by: text("by").notNull(),
    submission: uuid("submission").notNull().unique(),
    createdAt: created(),
  },
  (t) => [index("test_records_component").on(t.componentId, t.test, t.at)],
);

/** What was altered for a test, shown on the machine until it is put back. */
export const temporaryChanges = pgTable(
  "temporary_changes",
  {
    id: id(),
    machineId: uuid("machine_id")
      .notNull()
      .references(() => machines.id),
    componentId: uuid("component_id").references(() => components.id),
    what: text("what").notNull(),
    /** How it stood before, to put it back. */
    before: text("before").notNull().default(""),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    putBackAt: moment("put_back_at"),
    putBackBy: text("put_back_by"),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [
    index("temporary_changes_machine")
      .on(t.machineId)
      .where(sql`${t.putBackAt} is null`),
  ],
);

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
  },
  (t) => [index("imports_created").on(t.createdAt)],
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
