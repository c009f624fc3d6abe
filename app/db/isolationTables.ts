/** What is wrong with a circuit: its standing diagnosis, derived from assessments, and isolations that people walk. */
import { sql } from "drizzle-orm";
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { NoDiagnosis, StandingDiagnosis } from "@core";
import { circuits } from "./assetTables";
import { moment } from "./columns";

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
    /** Points that the named fault accounts for, so that they are one entry; empty: no fault is named. */
    explained: uuid("explained")
      .array()
      .notNull()
      .default(sql`'{}'::uuid[]`),
    /** Odds of the named fault, 0 to 1; null: none is named. */
    share: doublePrecision("share"),
    /** Hash of what it was made of. */
    basis: text("basis").notNull().default(""),
    shape: integer("shape").notNull().default(0),
    stale: boolean("stale").notNull().default(true),
    /** Counts what has changed about it, as at assessments. */
    asked: integer("asked").notNull().default(0),
    failure: text("failure"),
    failures: integer("failures").notNull().default(0),
    triedAt: moment("tried_at"),
    assessedAt: moment("assessed_at").notNull().defaultNow(),
  },
  (t) => [
    index("circuit_diagnoses_stale")
      .on(t.triedAt, t.assessedAt)
      .where(sql`${t.stale}`),
  ],
);
