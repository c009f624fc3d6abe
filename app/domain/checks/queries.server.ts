/** Tests at the machine: what can be made, what was made, and what was altered for it. */
import { and, desc, eq, isNull, lt, sql } from "drizzle-orm";
import { plantCheck, checkOf, checks, type Check } from "@core";
import { db } from "~/db/client.server";
import { circuits, components, machines, temporaryChanges, testDefinitions, testRecords } from "~/db/schema";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";

/** The tests that ship and the plant's own. */
export async function allTests(): Promise<
  { id: string; title: string; asks: string; own: boolean; kinds: readonly string[] }[]
> {
  const own = await db()
    .select()
    .from(testDefinitions)
    .where(isNull(testDefinitions.retiredAt))
    .orderBy(testDefinitions.createdAt);
  return [
    ...checks.map((p) => ({ id: p.id, title: p.title, asks: p.calculation.asks, own: false, kinds: p.kinds })),
    ...own.map((d) => ({
      id: d.id,
      title: d.definition.title,
      asks: d.definition.asks,
      own: true,
      kinds: d.definition.kinds,
    })),
  ];
}

/** A test by its id, with the plant's definition where it is one of its own. `Missing` when there is none. */
export async function testOf(
  id: string,
): Promise<{ check: Check; plant: (typeof testDefinitions.$inferSelect)["definition"] | null }> {
  const shipped = checkOf(id);
  if (shipped) return { check: shipped, plant: null };
  const [row] = isUuid(id) ? await db().select().from(testDefinitions).where(eq(testDefinitions.id, id)) : [];
  if (!row) throw notFound("test");
  return { check: plantCheck(row.id, row.definition), plant: row.definition };
}

const placed = {
  record: testRecords,
  component: components.name,
  machine: machines.name,
  circuitId: circuits.id,
  machineId: machines.id,
};
const recordsPlaced = () =>
  db()
    .select(placed)
    .from(testRecords)
    .innerJoin(components, eq(components.id, testRecords.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId));

export async function recentRecords() {
  const rows = await recordsPlaced().orderBy(desc(testRecords.at)).limit(20);
  return rows.map(({ record, ...r }) => ({
    ...r,
    id: record.id,
    test: record.test,
    at: record.at.getTime(),
    answer: record.outcome.answer,
    tone: record.outcome.tone,
    by: record.by,
  }));
}

/** One record with the one before it, of the same test on the same component. */
export async function recordPage(id: string) {
  const [row] = await recordsPlaced().where(eq(testRecords.id, id));
  if (!row) throw notFound("record");
  const { record } = row;
  const [before] = await db()
    .select()
    .from(testRecords)
    .where(
      and(
        eq(testRecords.componentId, record.componentId),
        eq(testRecords.test, record.test),
        lt(testRecords.at, record.at),
      ),
    )
    .orderBy(desc(testRecords.at))
    .limit(1);
  const { check } = await testOf(record.test);
  return {
    title: check.title,
    compares: check.compares ?? null,
    fields: Object.fromEntries(Object.entries(check.calculation.fields).map(([k, f]) => [k, f.label])),
    componentId: record.componentId,
    component: row.component,
    circuitId: row.circuitId,
    machine: row.machine,
    machineId: row.machineId,
    test: record.test,
    at: record.at.getTime(),
    by: record.by,
    note: record.note,
    typed: record.typed,
    outcome: record.outcome,
    before: before ? { at: before.at.getTime(), by: before.by, outcome: before.outcome } : null,
  };
}

export async function lastRecord(componentId: string, test: string) {
  const [row] = await db()
    .select()
    .from(testRecords)
    .where(and(eq(testRecords.componentId, componentId), eq(testRecords.test, test)))
    .orderBy(desc(testRecords.at))
    .limit(1);
  return row ? { id: row.id, at: row.at.getTime(), by: row.by, typed: row.typed, answer: row.outcome.answer } : null;
}

export interface OpenChange {
  id: string;
  machine: string;
  machineId: string;
  component: string | null;
  what: string;
  before: string;
  at: number;
  by: string;
}

/** What is altered and not put back yet, everywhere or on one machine. */
export async function openChanges(machineId?: string): Promise<OpenChange[]> {
  const rows = await db()
    .select({ change: temporaryChanges, machine: machines.name, component: components.name })
    .from(temporaryChanges)
    .innerJoin(machines, eq(machines.id, temporaryChanges.machineId))
    .leftJoin(components, eq(components.id, temporaryChanges.componentId))
    .where(and(isNull(temporaryChanges.putBackAt), machineId ? eq(temporaryChanges.machineId, machineId) : sql`true`))
    .orderBy(temporaryChanges.at);
  return rows.map(({ change, machine, component }) => ({
    id: change.id,
    machine,
    machineId: change.machineId,
    component,
    what: change.what,
    before: change.before,
    at: change.at.getTime(),
    by: change.by,
  }));
}

export async function componentPlace(id: string) {
  const [row] = await db()
    .select({
      id: components.id,
      name: components.name,
      kind: components.kind,
      machine: machines.name,
      machineId: machines.id,
    })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(components.id, id));
  if (!row) throw notFound("component");
  return row;
}
