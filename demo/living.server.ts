/**
 * What five years leave in the record of a plant: tests, a corrected figure, a file brought in, a recall by hand,
 * a new hour meter, something altered and put back.
 */
import { DAY, HOUR, checks, exampleOf, runCalculator } from "@core";
import { and, asc, eq, gte, isNull, lt, sql } from "drizzle-orm";
import type { Queryable } from "~/db/client.server";
import {
  changes,
  circuits,
  components,
  hourMeterChanges,
  imports,
  instrumentRecalls,
  instruments,
  lives,
  machines,
  points,
  readings,
  temporaryChanges,
  testRecords,
} from "~/db/schema";

/** The winch's meter stopped and was replaced so many days before the load. */
const newMeter = { tag: "SW-1", daysAgo: 402 };
/** Tests that were made: where, which, days before the load, by whom. */
const tests = [
  { tag: "LG-ON", component: "Pump A", test: "load-test", daysAgo: 610, by: "L. Aske" },
  { tag: "LG-ON", component: "Pump A", test: "inlet-case", daysAgo: 204, by: "L. Aske" },
  { tag: "WC-1", component: "Pump", test: "load-test", daysAgo: 430, by: "L. Aske" },
  { tag: "BR-D", component: "Pump 1", test: "shut-in", daysAgo: 96, by: "T. Wren" },
];
/** Figures that were typed wrong and put right: as typed, and why. */
const slips = [
  {
    tag: "SC-1",
    component: "Pump",
    point: "Case pressure",
    daysAgo: 388,
    factor: 10,
    why: "Decimal point missed: the sheet says a tenth",
  },
  { tag: "BR-D", component: "Pump 1", point: "Inlet vacuum", daysAgo: 221, factor: 2, why: "Read from the other pump" },
];

export async function addLiving(tx: Queryable, now: number): Promise<void> {
  await replaceMeter(tx, now);
  await addTests(tx, now);
  await addCorrections(tx, now);
  await addImport(tx, now);
  await addRecall(tx, now);
}

const partOf = async (tx: Queryable, tag: string, component: string) =>
  (
    await tx
      .select({ id: components.id, machineId: machines.id })
      .from(components)
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(and(eq(machines.tag, tag), eq(components.name, component)))
  )[0];

/** From that day on everything that is noted at the machine is what its new meter shows. */
async function replaceMeter(tx: Queryable, now: number): Promise<void> {
  const [machine] = await tx.select().from(machines).where(eq(machines.tag, newMeter.tag));
  if (!machine) return;
  const at = new Date(now - newMeter.daysAgo * DAY);
  const parts = sql`select c.id from components c join circuits k on k.id = c.circuit_id where k.machine_id = ${machine.id}`;
  const ofMachine = sql`select p.id from points p where p.component_id in (${parts})`;
  const [last] = await tx
    .select({ hours: readings.hours })
    .from(readings)
    .where(and(sql`${readings.pointId} in (${ofMachine})`, lt(readings.takenAt, at)))
    .orderBy(sql`${readings.takenAt} desc`)
    .limit(1);
  const before = last?.hours ?? 0;
  await tx.insert(hourMeterChanges).values({
    machineId: machine.id,
    at,
    kind: "replaced",
    before,
    after: 0,
    note: "Stood still; a new one was fitted",
    by: "L. Aske",
  });
  await tx
    .update(readings)
    .set({ hours: sql`greatest(0, ${readings.hours} - ${before})` })
    .where(and(sql`${readings.pointId} in (${ofMachine})`, gte(readings.takenAt, at)));
  await tx
    .update(lives)
    .set({ startHours: sql`greatest(0, ${lives.startHours} - ${before})` })
    .where(and(sql`${lives.componentId} in (${parts})`, gte(lives.startedAt, at)));
  await tx
    .update(lives)
    .set({ endHours: sql`greatest(0, ${lives.endHours} - ${before})` })
    .where(and(sql`${lives.componentId} in (${parts})`, gte(lives.endedAt, at)));
  for (const [table, when] of [
    ["samples", "taken_at"],
    ["oil_events", "at"],
  ] as const) {
    await tx.execute(
      sql`update ${sql.identifier(table)} set hours = greatest(0, hours - ${before}) where circuit_id in (select id
        from circuits where machine_id = ${machine.id}) and ${sql.identifier(when)} >= ${at.toISOString()}`,
    );
  }
}

async function addTests(tx: Queryable, now: number): Promise<void> {
  for (const made of tests) {
    const part = await partOf(tx, made.tag, made.component);
    const procedure = checks.find((p) => p.id === made.test);
    if (!part || !procedure) continue;
    const at = new Date(now - made.daysAgo * DAY);
    const typed = exampleOf(procedure.calculation);
    const result = runCalculator(procedure.calculation, typed, {});
    if (!result.ok) throw new Error(`${made.test}: ${JSON.stringify(result.problems)}`);
    const [life] = await tx
      .select({ id: lives.id })
      .from(lives)
      .where(
        and(
          eq(lives.componentId, part.id),
          sql`${lives.startedAt} <= ${at.toISOString()}`,
          sql`(${lives.endedAt} is null or ${lives.endedAt} > ${at.toISOString()})`,
        ),
      );
    await tx.insert(testRecords).values({
      componentId: part.id,
      lifeId: life?.id ?? null,
      test: made.test,
      at,
      typed,
      outcome: result.outcome,
      by: made.by,
      submission: crypto.randomUUID(),
    });
    if (procedure.alters[0])
      await tx.insert(temporaryChanges).values({
        machineId: part.machineId,
        componentId: part.id,
        what: procedure.alters[0],
        before: "As found",
        at,
        by: made.by,
        putBackAt: new Date(at.getTime() + 2 * HOUR),
        putBackBy: made.by,
        submission: crypto.randomUUID(),
      });
  }
}

/** The wrong figure stays beside the right one, superseded. */
async function addCorrections(tx: Queryable, now: number): Promise<void> {
  for (const slip of slips) {
    const part = await partOf(tx, slip.tag, slip.component);
    if (!part) continue;
    const [right] = await tx
      .select({ reading: readings })
      .from(readings)
      .innerJoin(points, eq(points.id, readings.pointId))
      .where(
        and(
          eq(points.componentId, part.id),
          eq(points.name, slip.point),
          gte(readings.takenAt, new Date(now - slip.daysAgo * DAY)),
        ),
      )
      .orderBy(asc(readings.takenAt))
      .limit(1);
    if (!right) continue;
    const { reading } = right;
    const [number = "0", ...unit] = reading.entered.split(/[\s\u00a0]/);
    const id = crypto.randomUUID();
    await tx.insert(readings).values({
      ...reading,
      id,
      value: reading.value * slip.factor,
      entered: `${Number((Number(number) * slip.factor).toPrecision(4))} ${unit.join(" ")}`,
      submission: null,
      supersededAt: new Date(reading.takenAt.getTime() + DAY),
      supersededBy: "R. Oduya",
      supersededWhy: slip.why,
    });
    await tx.update(readings).set({ supersedesId: id }).where(eq(readings.id, reading.id));
  }
}

/** A quarter of one machine's readings came as a spreadsheet, while the office was being rebuilt. */
async function addImport(tx: Queryable, now: number): Promise<void> {
  const [machine] = await tx.select().from(machines).where(eq(machines.tag, "WP-1"));
  if (!machine) return;
  const [from, until] = [new Date(now - 830 * DAY), new Date(now - 740 * DAY)];
  const id = crypto.randomUUID();
  const brought = await tx
    .update(readings)
    .set({ importId: id, sentBy: "L. Aske" })
    .where(
      and(
        sql`${readings.pointId} in (select p.id from points p join components c on c.id = p.component_id
          join circuits k on k.id = c.circuit_id where k.machine_id = ${machine.id})`,
        gte(readings.takenAt, from),
        lt(readings.takenAt, until),
      ),
    )
    .returning({ id: readings.id });
  await tx.insert(imports).values({
    id,
    fileName: "workshop-press-summer.csv",
    content: Buffer.alloc(0),
    bytes: 3480,
    createdBy: "L. Aske",
    createdAt: until,
    doneAt: until,
    added: brought.length,
    alreadyThere: 0,
  });
  await tx
    .insert(changes)
    .values({ at: until, by: "R. Oduya", what: "edited machine Workshop press", recordId: machine.id });
}

/** The gauge fell, and read wrong until it was looked at: what it read in between is not believed. */
async function addRecall(tx: Queryable, now: number): Promise<void> {
  const [gauge] = await tx
    .select()
    .from(instruments)
    .where(and(eq(instruments.tag, "P-02"), isNull(instruments.retiredAt)));
  if (!gauge) return;
  await tx.insert(instrumentRecalls).values({
    instrumentId: gauge.id,
    fromAt: new Date(now - 702 * DAY),
    untilAt: new Date(now - 690 * DAY),
    reason: "Fell from the ladder: its zero had moved by 6 bar",
    by: "R. Oduya",
    submission: crypto.randomUUID(),
  });
}
