/** The plant: sites, machines, circuits, components with their lives, measuring points, fluids. */
import { sql } from "drizzle-orm";
import { created, id, moment, retired, version } from "./columns";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import type {
  AnalyteId,
  ComponentFluidNeed,
  FilterData,
  FluidType,
  LimitBasis,
  Material,
  PointQuantityId,
  ReadingState,
} from "@core";
import { instruments } from "./instrumentTables";

export const sites = pgTable("sites", {
  id: id(),
  name: text("name").notNull(),
  timeZone: text("time_zone").notNull(),
  /** An engineer releases each hold point of a procedure. */
  holdsReleased: boolean("holds_released").notNull().default(false),
  /** Records are signed by who did the work and by a second person who checked it. */
  twoSignatures: boolean("two_signatures").notNull().default(false),
  /** Where no stop is planned: days within which a machine could be stopped for what cannot wait. */
  nextChanceDays: integer("next_chance_days").notNull().default(28),
  /** Percent: a chance of the limit before it can be helped above this one is an alarm. */
  acceptedPercent: integer("accepted_percent").notNull().default(30),
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
    /** Of a new part, and of failing in service all told (repair, standing, damage downstream); null: usual of its kind. */
    partCost: doublePrecision("part_cost"),
    failureCost: doublePrecision("failure_cost"),
    sparesOnHand: integer("spares_on_hand").notNull().default(0),
    /** Longest time without a move, days; null: it moves by itself. */
    exerciseDays: integer("exercise_days"),
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
