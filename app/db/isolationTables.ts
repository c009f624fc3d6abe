/** What is wrong with a circuit: its standing diagnosis, derived from assessments, and isolations that people walk. */
import { sql } from "drizzle-orm";
import {
  bigserial,
  boolean,
  check,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  uuid,
} from "drizzle-orm/pg-core";
import type {
  CauseId,
  GaugeEvidence,
  Netlist,
  NoDiagnosis,
  PlantKnowledge,
  PlantCause,
  PracticeHidden,
  PracticeLevel,
  IsolationRank,
  IsolationTest,
  StandingDiagnosis,
  SymptomId,
  TestPointAdvice,
} from "@core";
import { circuits } from "./assetTables";
import { jobs } from "./jobTables";
import { users } from "./peopleTables";
import { derived, id, moment, retired, version } from "./columns";

/** A diagnosis as stored; `since` by point: when its level left its baseline, epoch ms. */
export type DiagnosisDetail = StandingDiagnosis & { since: Record<string, number> };

/** Derived, as assessments are: it can be thrown away and made again. */
export const circuitDiagnoses = pgTable(
  "circuit_diagnoses",
  {
    circuitId: uuid("circuit_id")
      .primaryKey()
      .references(() => circuits.id, { onDelete: "cascade" }),
    /** Why none was made; null: one was. */
    none: text("none").$type<NoDiagnosis>(),
    detail: jsonb("detail").$type<DiagnosisDetail>(),
    /** Points that its named faults account for, so that they are one entry a fault; empty: no fault is named. */
    explained: uuid("explained")
      .array()
      .notNull()
      .default(sql`'{}'::uuid[]`),
    /** Odds of the likeliest named fault, 0 to 1; null: none is named. */
    share: doublePrecision("share"),
    /** Hash of what it was made of. */
    basis: text("basis").notNull().default(""),
    ...derived(true),
  },
  (t) => [
    index("circuit_diagnoses_stale")
      .on(t.triedAt, t.assessedAt)
      .where(sql`${t.stale}`),
  ],
);

/** Where test points would shorten the isolations of a circuit: worked out when somebody asks. Derived. */
export const testPointAdvices = pgTable("test_point_advices", {
  circuitId: uuid("circuit_id")
    .primaryKey()
    .references(() => circuits.id, { onDelete: "cascade" }),
  askedAt: moment("asked_at").notNull(),
  madeAt: moment("made_at"),
  advice: jsonb("advice").$type<TestPointAdvice>(),
  failure: text("failure"),
});

export interface PlantRank {
  symptom: SymptomId;
  cause: CauseId;
  rank: IsolationRank;
  basis: string;
}

/** What a plant adds to the knowledge of the house: a cause, a test, or how a cause ranks here. */
export const plantKnowledge = pgTable(
  "plant_knowledge",
  {
    id: id(),
    cause: jsonb("cause").$type<PlantCause>(),
    test: jsonb("test").$type<IsolationTest>(),
    rank: jsonb("rank").$type<PlantRank>(),
    enteredAt: moment("entered_at").notNull(),
    enteredBy: text("entered_by").notNull(),
    retiredAt: retired(),
    version: version(),
    submission: uuid("submission").unique(),
  },
  (t) => [
    index("plant_knowledge_used")
      .on(t.enteredAt)
      .where(sql`${t.retiredAt} is null`),
    check("plant_knowledge_one", sql`num_nonnulls(${t.cause}, ${t.test}, ${t.rank}) = 1`),
  ],
);

/** A fault that somebody looks for: from a symptom to what was found. */
export const isolations = pgTable(
  "isolations",
  {
    id: id(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    jobId: uuid("job_id").references(() => jobs.id),
    symptom: text("symptom").$type<SymptomId>().notNull(),
    note: text("note").notNull().default(""),
    openedAt: moment("opened_at").notNull(),
    openedBy: text("opened_by").notNull(),
    /** The diagram and what the gauges said when it was opened; null: no model that fits. */
    evidence: jsonb("evidence").$type<GaugeEvidence>(),
    netlist: jsonb("netlist").$type<Netlist>(),
    /** What the plant's closed cases of this symptom had found when it was opened: counts by cause. */
    taught: jsonb("taught").$type<PlantKnowledge["found"]>().notNull().default({}),
    /** What the plant had added to the house's knowledge by then. */
    plant: jsonb("plant").$type<Omit<PlantKnowledge, "found">>().notNull().default({}),
    /** Somebody took the gauges out of the evidence. */
    gaugesOut: boolean("gauges_out").notNull().default(false),
    closedAt: moment("closed_at"),
    closedBy: text("closed_by"),
    /** What it was, by id of the suspect; empty: something else. Null while it is open. */
    found: jsonb("found").$type<string[]>(),
    /** The same in words, for lists. */
    foundText: text("found_text").notNull().default(""),
    /** Odds that were given to what was found, when it was closed. */
    foundOdds: doublePrecision("found_odds"),
    findings: text("findings").notNull().default(""),
    version: version(),
    submission: uuid("submission").unique(),
  },
  (t) => [
    index("isolations_open").on(t.closedAt.desc().nullsFirst(), t.openedAt.desc()),
    index("isolations_symptom")
      .on(t.symptom, t.closedAt.desc())
      .where(sql`${t.closedAt} is not null`),
    index("isolations_job").on(t.jobId),
    index("isolations_circuit").on(t.circuitId, t.openedAt.desc()),
  ],
);

/** Results in the order in which they came. One that was wrong is withdrawn and stays on record. */
export const isolationResults = pgTable(
  "isolation_results",
  {
    id: id(),
    isolationId: uuid("isolation_id")
      .notNull()
      .references(() => isolations.id, { onDelete: "cascade" }),
    /** In which order they came: two of one second keep theirs. */
    place: bigserial("place", { mode: "number" }).notNull(),
    /** Id of the test at its place, and of its result. */
    test: text("test").notNull(),
    result: text("result").notNull(),
    enteredAt: moment("entered_at").notNull(),
    enteredBy: text("entered_by").notNull(),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    submission: uuid("submission").unique(),
  },
  (t) => [index("isolation_results_of").on(t.isolationId, t.place)],
);

/** A hidden fault that somebody practised on. What was hidden follows from level and seed and is not stored. */
export const practiceRuns = pgTable(
  "practice_runs",
  {
    id: id(),
    personId: uuid("person_id")
      .notNull()
      .references(() => users.id),
    level: integer("level").$type<PracticeLevel>().notNull(),
    seed: integer("seed").notNull(),
    /** What it hides, drawn when it began; null: begun before this was kept, so that its seed draws it. */
    hidden: jsonb("hidden").$type<PracticeHidden>(),
    startedAt: moment("started_at").notNull(),
    /** Ids of the tests that were made, in order. */
    made: jsonb("made").$type<string[]>().notNull().default([]),
    /** What was named; null while it goes on. */
    named: text("named"),
    endedAt: moment("ended_at"),
    score: integer("score"),
    submission: uuid("submission").unique(),
  },
  (t) => [index("practice_runs_person").on(t.personId, t.startedAt.desc())],
);
