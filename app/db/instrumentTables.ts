/** Instruments, their checks and calibrations, recalls. */
import { created, id, moment, retired, version } from "./columns";
import { boolean, doublePrecision, index, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { PointQuantityId, Principle } from "@core";

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
