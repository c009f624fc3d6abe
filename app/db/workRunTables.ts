/** Work as it is carried out: procedures step by step, findings, photographs, the record's additions. */
import { sql } from "drizzle-orm";
import { bigserial, date, index, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from "drizzle-orm/pg-core";
import type { FindingKindId, StepEntry, WorkProcedure } from "@core";
import { components, machines, sites } from "./assetTables";
import { bytea, created, id, moment, retired, version } from "./columns";
import type { CampaignResult } from "./kinds";
import { sender, users } from "./peopleTables";
import { temporaryChanges } from "./checkTables";
import { interventions } from "./workTables";

/** A plant's copy of a procedure, for all machines or for one; each change is a row of its own. */
export const plantProcedures = pgTable(
  "plant_procedures",
  {
    id: id(),
    /** The copy of which this is a version. */
    copyId: uuid("copy_id").notNull(),
    version: version(),
    /** Of a copy for one machine. */
    machineId: uuid("machine_id").references(() => machines.id),
    procedure: jsonb("procedure").$type<WorkProcedure>().notNull(),
    madeAt: moment("made_at").notNull(),
    madeBy: text("made_by").notNull(),
    retiredAt: retired(),
  },
  (t) => [
    unique("plant_procedures_version").on(t.copyId, t.version),
    index("plant_procedures_in_use")
      .on(t.copyId)
      .where(sql`${t.retiredAt} is null`),
  ],
);

/** A procedure that is carried out for a piece of work, as it was written when it began. */
export const workRuns = pgTable(
  "work_runs",
  {
    id: id(),
    interventionId: uuid("intervention_id")
      .notNull()
      .references(() => interventions.id),
    procedure: jsonb("procedure").$type<WorkProcedure>().notNull(),
    /** Version of the plant's copy; 0: as it ships. */
    procedureVersion: integer("procedure_version").notNull().default(0),
    startedAt: moment("started_at").notNull(),
    startedBy: text("started_by").notNull(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("work_runs_intervention").on(t.interventionId)],
);

/** What was done at a step. Never changed: what is taken back is an entry too. */
export const workEntries = pgTable(
  "work_entries",
  {
    /** The order in which entries were taken. */
    id: bigserial("id", { mode: "number" }).primaryKey(),
    runId: uuid("run_id")
      .notNull()
      .references(() => workRuns.id),
    step: text("step").notNull(),
    kind: text("kind").$type<StepEntry["kind"]>().notNull(),
    values: jsonb("values").$type<Record<string, string>>().notNull().default({}),
    reason: text("reason").notNull().default(""),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    byId: uuid("by_id").references(() => users.id),
    ...sender(),
    submission: uuid("submission").notNull().unique(),
    createdAt: created(),
  },
  (t) => [index("work_entries_run").on(t.runId, t.id)],
);

export const workFindings = pgTable(
  "work_findings",
  {
    id: id(),
    interventionId: uuid("intervention_id")
      .notNull()
      .references(() => interventions.id),
    kind: text("kind").$type<FindingKindId>().notNull(),
    values: jsonb("values").$type<Record<string, string>>().notNull(),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    byId: uuid("by_id").references(() => users.id),
    ...sender(),
    submission: uuid("submission").notNull().unique(),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: text("withdrawn_by"),
    withdrawnBecause: text("withdrawn_because").notNull().default(""),
  },
  (t) => [index("work_findings_intervention").on(t.interventionId, t.at)],
);

/** Where a mark was drawn, as shares of the picture's width and height. */
export interface PhotoMark {
  x: number;
  y: number;
  radius: number;
}

export const workPhotos = pgTable(
  "work_photos",
  {
    id: id(),
    interventionId: uuid("intervention_id")
      .notNull()
      .references(() => interventions.id),
    /** The step of a procedure that it shows; empty: the work as such. */
    step: text("step").notNull().default(""),
    findingId: uuid("finding_id").references(() => workFindings.id),
    caption: text("caption").notNull().default(""),
    marks: jsonb("marks").$type<PhotoMark[]>().notNull().default([]),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    ...sender(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("work_photos_intervention").on(t.interventionId, t.at), index("work_photos_finding").on(t.findingId)],
);

/** Pictures themselves, where no folder is configured for them. */
export const storedFiles = pgTable("stored_files", {
  key: text("key").primaryKey(),
  content: bytea("content").notNull(),
});

/** What is added to a record after it was signed. */
export const workAddenda = pgTable(
  "work_addenda",
  {
    id: id(),
    interventionId: uuid("intervention_id")
      .notNull()
      .references(() => interventions.id),
    text: text("text").notNull(),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("work_addenda_intervention").on(t.interventionId, t.at)],
);

/** What stays altered on the machine when a record is signed: each entry accepted by name. */
export const acceptedChanges = pgTable(
  "work_accepted_changes",
  {
    interventionId: uuid("intervention_id")
      .notNull()
      .references(() => interventions.id),
    changeId: uuid("change_id")
      .notNull()
      .references(() => temporaryChanges.id),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    byId: uuid("by_id").references(() => users.id),
  },
  (t) => [primaryKey({ columns: [t.interventionId, t.changeId] })],
);

/** A manufacturer's bulletin: which parts have the old variant, by its marking, and which are done. */
export const campaigns = pgTable("campaigns", {
  id: id(),
  siteId: uuid("site_id")
    .notNull()
    .references(() => sites.id),
  title: text("title").notNull(),
  /** Number and revision of the bulletin. */
  bulletin: text("bulletin").notNull(),
  why: text("why").notNull().default(""),
  /** How the old variant is told from the new one. */
  marking: text("marking").notNull(),
  dueOn: date("due_on", { mode: "string" }),
  madeBy: text("made_by").notNull(),
  madeAt: moment("made_at").notNull(),
  closedAt: moment("closed_at"),
  closedBy: text("closed_by"),
  submission: uuid("submission").notNull().unique(),
});

export const campaignParts = pgTable(
  "campaign_parts",
  {
    id: id(),
    campaignId: uuid("campaign_id")
      .notNull()
      .references(() => campaigns.id),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    result: text("result").$type<CampaignResult>().notNull().default("open"),
    marking: text("marking").notNull().default(""),
    at: moment("at"),
    by: text("by"),
    version: version(),
  },
  (t) => [
    unique("campaign_parts_once").on(t.campaignId, t.componentId),
    index("campaign_parts_component").on(t.componentId),
  ],
);

/** A valve that seldom moves was moved. */
export const componentMoves = pgTable(
  "component_moves",
  {
    id: id(),
    componentId: uuid("component_id")
      .notNull()
      .references(() => components.id),
    at: moment("at").notNull(),
    by: text("by").notNull(),
    note: text("note").notNull().default(""),
    ...sender(),
    submission: uuid("submission").notNull().unique(),
  },
  (t) => [index("component_moves_component").on(t.componentId, t.at.desc())],
);
