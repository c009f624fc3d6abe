/** Jobs: the thread from a complaint to a signed record. */
import { index, integer, pgTable, text, uuid } from "drizzle-orm/pg-core";
import { circuits, components } from "./assetTables";
import { id, moment } from "./columns";

/** What begins with a complaint, a fault, a piece of the plan or by hand; isolations and work belong to it. */
export const jobs = pgTable(
  "jobs",
  {
    id: id(),
    /** As people call it: "job 318". */
    number: integer("number").notNull().generatedAlwaysAsIdentity().unique(),
    circuitId: uuid("circuit_id")
      .notNull()
      .references(() => circuits.id),
    /** The part that it is about, where that is known. */
    componentId: uuid("component_id").references(() => components.id),
    /** In the words of whoever came with it; empty: it began with its isolation or its work, and that says it. */
    noticed: text("noticed").notNull().default(""),
    openedAt: moment("opened_at").notNull(),
    openedBy: text("opened_by").notNull(),
    /** Ended by hand: nothing was to be done, or it went elsewhere. Work that is signed ends a job by itself. */
    closedAt: moment("closed_at"),
    closedBy: text("closed_by"),
    closedBecause: text("closed_because").notNull().default(""),
    submission: uuid("submission").unique(),
  },
  (t) => [index("jobs_newest").on(t.openedAt.desc()), index("jobs_circuit").on(t.circuitId, t.openedAt.desc())],
);
