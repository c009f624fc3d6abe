/** Tests of a plant's own, tests that were made, what was altered for one. */
import { sql } from "drizzle-orm";
import { created, id, moment, retired } from "./columns";
import { index, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { Outcome, PlantTest } from "@core";
import { machines, components, lives } from "./assetTables";

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
