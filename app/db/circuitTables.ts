/** The diagram of a circuit: its netlist, how it is drawn, and how it was fitted to its gauges. */
import { sql } from "drizzle-orm";
import { index, integer, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { Drawing, FitResult, Netlist } from "@core";
import { circuits } from "./assetTables";
import { moment } from "./columns";

export const circuitDiagrams = pgTable(
  "circuit_diagrams",
  {
    circuitId: uuid("circuit_id")
      .primaryKey()
      .references(() => circuits.id, { onDelete: "cascade" }),
    netlist: jsonb("netlist").$type<Netlist>().notNull(),
    /** Derived from the netlist. */
    drawing: jsonb("drawing").$type<Drawing>().notNull(),
    /** What was assumed where it was drawn from the list of components. */
    assumed: jsonb("assumed").$type<string[]>().notNull().default([]),
    /** Derived from the netlist and the baselines; null: nothing to fit it to. */
    fit: jsonb("fit").$type<FitResult>(),
    /** Of what it was derived: another one is out of date. */
    basis: text("basis").notNull(),
    /** Who drew it, where that was a person; empty: it is a proposal. */
    drawnBy: text("drawn_by").notNull().default(""),
    version: integer("version").notNull().default(1),
    updatedAt: moment("updated_at").notNull().defaultNow(),
    /** ISO date on which its oldest hose was fitted; null: none is known. Kept by the database from the netlist. */
    oldestHose: text("oldest_hose").generatedAlwaysAs(sql`oldest_hose(netlist)`),
  },
  (t) => [index("circuit_diagrams_oldest_hose").on(t.oldestHose)],
);
