/**
 * Rows are taken in one order everywhere: a circuit, its oil's assessment, then the assessments of its points. A circuit
 * is locked "no key", since a row that refers to it and is written twice in one transaction wants its key.
 *
 * What a circuit's oil says is made here, when a sample lands and in jobs; pages only read it. Like points, a
 * circuit is stale from the moment something about its oil changes until it has been assessed again.
 */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { assessOil, correctSeries, defaultPrior, quantityOf, type AnalyteId, type AssessReading, type LeakSeries, type OilAssessment, type OilComponentInput, type OilInput, type OilSample } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { oilAssessments, oilEvents, samples } from "~/db/oilTables";
import { circuits, components, fluids, instruments, lives, machines, points, readings } from "~/db/schema";
import { markStale, oilQuantities } from "./assessment.server";
import { assessedColumns, assessPointOf, assessReadingOf, contextOf, pointSetups } from "./setups.server";
import { now } from "./clock.server";
import { log } from "./log.server";

const BATCH = 12;
const DAY = 86_400_000;
/** Newest samples of a circuit that are looked at. */
export const MOST_SAMPLES = 80;
const MOST_SISTERS = 100;
const TEMPERATURE_DAYS = 400;

type SampleRow = typeof samples.$inferSelect;

/** A stored sample as the core wants it. */
export function oilSampleOf(s: SampleRow): OilSample {
  return { id: s.id, number: s.number, at: s.takenAt.getTime(), hours: s.hours, place: s.place, state: s.state, results: s.results, code: s.code };
}

/** The newest samples of circuits that are not withdrawn, oldest first. */
export async function samplesOf(tx: Queryable, circuitIds: readonly string[], most = MOST_SAMPLES): Promise<Map<string, SampleRow[]>> {
  const found = new Map<string, SampleRow[]>();
  if (circuitIds.length === 0) return found;
  // one index walk a circuit: a window over all samples would read every one of them
  const newest = sql`(select s.id from unnest(${sql.param([...circuitIds])}::uuid[]) k(id) cross join lateral (
      select id from samples where circuit_id = k.id and withdrawn_at is null order by taken_at desc limit ${most}) s)`;
  const rows = await tx.select().from(samples).where(inArray(samples.id, newest)).orderBy(samples.circuitId, samples.takenAt);
  for (const row of rows) {
    const list = found.get(row.circuitId) ?? [];
    list.push(row);
    found.set(row.circuitId, list);
  }
  return found;
}

/** Running hours of a machine at a moment, from what was noted, by the duty beyond it. */
export function hoursLine(noted: readonly { at: number; hours: number }[], hoursPerDay: number): (at: number) => number {
  const line = [...noted].sort((a, b) => a.at - b.at);
  return (at) => {
    const first = line[0];
    const last = line.at(-1);
    if (!first || !last) return (at / DAY) * hoursPerDay;
    if (at <= first.at) return first.hours - ((first.at - at) / DAY) * hoursPerDay;
    if (at >= last.at) return last.hours + ((at - last.at) / DAY) * hoursPerDay;
    const next = line.findIndex((p) => p.at > at);
    const [from, to] = [line[next - 1]!, line[next]!];
    return from.hours + ((at - from.at) / (to.at - from.at)) * (to.hours - from.hours);
  };
}

const groupBy = <T>(rows: readonly T[], key: (row: T) => string) => {
  const map = new Map<string, T[]>();
  for (const row of rows) {
    const list = map.get(key(row)) ?? [];
    list.push(row);
    map.set(key(row), list);
  }
  return (k: string) => map.get(k) ?? [];
};

/** Everything about some circuits that their oil is judged by. */
export async function oilInputs(tx: Queryable, circuitIds: readonly string[]): Promise<Map<string, OilInput>> {
  const inCircuits = inArray(components.circuitId, [...circuitIds]);
  // one after another: they share the connection of the transaction
  const circuitRows = await tx.select({ circuit: circuits, fluid: fluids, hoursPerDay: machines.hoursPerDay }).from(circuits).innerJoin(machines, eq(machines.id, circuits.machineId)).leftJoin(fluids, eq(fluids.id, circuits.fluidId)).where(inArray(circuits.id, [...circuitIds]));
  const componentRows = await tx.select().from(components).where(and(inCircuits, isNull(components.retiredAt))).orderBy(components.position);
  const lifeRows = await tx.select({ id: lives.id, componentId: lives.componentId, startedAt: lives.startedAt, endedAt: lives.endedAt }).from(lives).innerJoin(components, eq(components.id, lives.componentId)).where(inCircuits).orderBy(lives.startedAt);
  const sampleRows = await samplesOf(tx, circuitIds);
  const eventRows = await tx.select({ event: oilEvents, fluid: fluids }).from(oilEvents).leftJoin(fluids, eq(fluids.id, oilEvents.fluidId)).where(and(inArray(oilEvents.circuitId, [...circuitIds]), isNull(oilEvents.withdrawnAt))).orderBy(oilEvents.at);
  const setups = await pointSetups(tx).where(and(inCircuits, inArray(points.quantity, [...oilQuantities]), isNull(points.retiredAt))).orderBy(components.position, points.name);
  // one figure a month is enough to tell the hours at any day
  const noted = await tx.execute<{ circuitId: string; at: string; hours: number }>(sql`
      select c.circuit_id as "circuitId", max(extract(epoch from r.taken_at) * 1000)::float8 as at, max(r.hours) as hours
      from readings r join points p on p.id = r.point_id join components c on c.id = p.component_id
      where c.circuit_id = any(${sql.param([...circuitIds])}::uuid[]) and r.hours is not null and r.superseded_at is null group by c.circuit_id, date_trunc('month', r.taken_at)`);
  const temperatures = await tx.execute<{ circuitId: string; working: number; hottest: number }>(sql`
      select c.circuit_id as "circuitId", percentile_cont(0.5) within group (order by r.temperature) as working, max(r.temperature) as hottest
      from readings r join points p on p.id = r.point_id join components c on c.id = p.component_id
      where c.circuit_id = any(${sql.param([...circuitIds])}::uuid[]) and r.temperature is not null and r.superseded_at is null and r.taken_at > ${new Date(now() - TEMPERATURE_DAYS * DAY).toISOString()} group by c.circuit_id`);
  const sisters = await tx.execute<{ circuitId: string; kinds: string; rates: OilAssessment["rates"] }>(sql`
      select o.circuit_id as "circuitId", o.detail -> 'rates' as rates, (select string_agg(distinct c.kind, ',' order by c.kind) from components c where c.circuit_id = o.circuit_id and c.kind in ('axialPistonPump', 'gearPump')) as kinds
      from oil_assessments o where o.detail is not null order by o.assessed_at desc limit ${MOST_SISTERS}`);
  const pointIds = setups.map((s) => s.pointId);
  const pointRows = pointIds.length === 0 ? [] : await tx.select({ id: points.id, name: points.name, componentId: points.componentId, circuitId: components.circuitId, component: components.name }).from(points).innerJoin(components, eq(components.id, points.componentId)).where(inArray(points.id, pointIds));
  const placeOf = new Map(pointRows.map((p) => [p.id, p]));
  const readingRows = pointIds.length === 0 ? [] : await tx.select(assessedColumns).from(readings).leftJoin(instruments, eq(instruments.id, readings.instrumentId)).where(and(inArray(readings.pointId, pointIds), isNull(readings.supersededAt))).orderBy(readings.pointId, readings.takenAt);
  const readingsOf = groupBy(readingRows, (r) => r.pointId);
  const componentsOf = groupBy(componentRows, (c) => c.circuitId);
  const livesOf = groupBy(lifeRows, (l) => l.componentId);
  const eventsOf = groupBy(eventRows, (e) => e.event.circuitId);
  const setupsOf = groupBy(setups, (s) => placeOf.get(s.pointId)!.circuitId);
  const notedOf = groupBy(noted.rows, (n) => n.circuitId);
  const kindsOf = (id: string) => [...new Set(componentsOf(id).map((c) => c.kind).filter((k) => k === "axialPistonPump" || k === "gearPump"))].sort().join(",");

  return new Map(circuitRows.map(({ circuit, fluid, hoursPerDay }): [string, OilInput] => {
    const own = setupsOf(circuit.id);
    const hoursAt = hoursLine(notedOf(circuit.id).map((n) => ({ at: Number(n.at), hours: n.hours })), hoursPerDay);
    const heat = temperatures.rows.find((t) => t.circuitId === circuit.id);
    const kinds = kindsOf(circuit.id);
    const sisterRates: Partial<Record<AnalyteId, number[]>> = {};
    for (const s of sisters.rows) {
      if (s.circuitId === circuit.id || s.kinds !== kinds) continue;
      for (const [metal, rates] of Object.entries(s.rates)) (sisterRates[metal as AnalyteId] ??= []).push(...rates);
    }
    const leaks = own.filter((s) => s.quantity !== "pressureDrop").flatMap((s): LeakSeries[] => {
      const place = placeOf.get(s.pointId)!;
      const current: AssessReading[] = readingsOf(s.pointId).filter((r) => r.lifeId === s.lifeId).map(assessReadingOf);
      const corrected = correctSeries(current, assessPointOf(s), contextOf(s, [], defaultPrior)).readings.filter((r) => !r.doubtful && !r.recalled);
      return [{ pointId: s.pointId, componentId: place.componentId, component: place.component.charAt(0).toLowerCase() + place.component.slice(1), what: quantityOf(s.quantity).short, readings: corrected.map((r) => ({ at: r.at, value: r.corrected })) }];
    });
    const drops = groupBy(own.filter((s) => s.quantity === "pressureDrop"), (s) => placeOf.get(s.pointId)!.componentId);
    return [circuit.id, {
      now: now(), volume: circuit.volume, workingPressure: circuit.workingPressure, hoursPerDay, hoursAt,
      targetSet: circuit.targetCode ? { code: circuit.targetCode, reason: circuit.targetReason } : null,
      fluid: fluid ? { id: fluid.id, name: fluid.name, type: fluid.type, kv40: fluid.kv40, kv100: fluid.kv100, density15: fluid.density15, solubility: fluid.waterA !== null && fluid.waterB !== null ? { a: fluid.waterA, b: fluid.waterB } : null, acidNew: fluid.fresh.acidNumber ?? null } : null,
      temperatures: { start: circuit.startTemperature, working: heat?.working ?? null, hottest: heat?.hottest ?? null },
      metalLimits: circuit.metalLimits, longest: { hours: circuit.longestHours, months: circuit.longestMonths },
      samples: (sampleRows.get(circuit.id) ?? []).map(oilSampleOf),
      moves: eventsOf(circuit.id).flatMap(({ event, fluid: filled }) => (event.kind === "level" ? [] : [{
        at: event.at.getTime(), hours: event.hours ?? hoursAt(event.at.getTime()), kind: event.kind, litres: event.litres ?? 0, fresh: (filled ?? fluid)?.fresh ?? {},
        fluidName: filled?.name ?? fluid?.name ?? "oil", otherFluid: filled !== null && fluid !== null && filled.id !== fluid.id, changeBackBy: event.changeBackBy ? Date.parse(`${event.changeBackBy}T00:00:00Z`) : null,
      }])),
      components: componentsOf(circuit.id).map((c): OilComponentInput => ({
        id: c.id, name: c.name, kind: c.kind, makersCode: c.makersCode || null, materials: c.materials, fluidNeed: c.fluidNeed, filter: c.filter,
        lives: livesOf(c.id).map((l) => ({ id: l.id, startedAt: l.startedAt.getTime(), endedAt: l.endedAt?.getTime() ?? null })),
        drops: c.filter ? drops(c.id).flatMap((s) => readingsOf(s.pointId).filter((r) => !r.doubtful && r.recallId === null).map((r) => ({
          at: r.takenAt.getTime(), hours: r.hours ?? hoursAt(r.takenAt.getTime()), drop: r.value, temperature: r.temperature, lifeId: r.lifeId, flow: r.speed && c.speed ? (c.filter!.flow * r.speed) / c.speed : null,
        }))) : [],
      })),
      leaks, sisterRates,
    }];
  }));
}

/** Assess the oil of these circuits now and store the result. Points that reckon with it become stale. */
export async function assessCircuits(circuitIds: readonly string[]): Promise<void> {
  for (let i = 0; i < circuitIds.length; i += BATCH) await assessBatch(circuitIds.slice(i, i + BATCH));
}

/** One circuit that cannot be judged must not keep the others from it: it says so. */
function judged(circuitId: string, input: OilInput): OilAssessment {
  try {
    return assessOil(input);
  } catch (error) {
    log.error({ err: (error as Error).message, circuitId }, "the oil of a circuit could not be judged");
    return { ...assessOil({ ...input, samples: [], moves: [], components: [], leaks: [] }), verdict: [{ text: "This oil could not be judged: something in its record does not fit together. The log says what." }] };
  }
}

async function assessBatch(circuitIds: readonly string[]): Promise<void> {
  await db().transaction(async (tx) => {
    const before = await tx.select({ circuitId: oilAssessments.circuitId, dirtAt: oilAssessments.dirtAt, measured: sql<unknown>`${oilAssessments.detail} -> 'measured'` }).from(oilAssessments).where(inArray(oilAssessments.circuitId, [...circuitIds])).orderBy(oilAssessments.circuitId).for("update");
    const inputs = await oilInputs(tx, circuitIds);
    const made = [...inputs].map(([circuitId, input]) => ({ circuitId, found: judged(circuitId, input) }));
    if (made.length === 0) return;
    const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
    await tx.insert(oilAssessments)
      .values(made.map(({ circuitId, found }) => ({ circuitId, state: found.state, urgency: found.urgency, lastAt: asDate(found.lastAt), code: found.code, target: found.target?.text ?? null, margin: found.margin, verdict: found.verdict, dirtAt: asDate(found.dirt?.at), dirtFactor: found.dirt?.factor ?? null, detail: found, stale: false, assessedAt: new Date(now()) })))
      .onConflictDoUpdate({ target: oilAssessments.circuitId, set: Object.fromEntries(
        (["state", "urgency", "lastAt", "code", "target", "margin", "verdict", "dirtAt", "dirtFactor", "detail", "stale", "assessedAt"] as const).map((column) => [column, sql.raw(`excluded."${oilAssessments[column].name}"`)]),
      ) });
    const changed = made.filter(({ circuitId, found }) => {
      const old = before.find((b) => b.circuitId === circuitId);
      return (old?.dirtAt?.getTime() ?? null) !== (asDate(found.dirt?.at)?.getTime() ?? null) || JSON.stringify(old?.measured ?? []) !== JSON.stringify(found.measured);
    }).map((m) => m.circuitId);
    if (changed.length) {
      const affected = await tx.select({ id: points.id }).from(points).innerJoin(components, eq(components.id, points.componentId)).where(and(inArray(components.circuitId, changed), isNull(points.retiredAt)));
      await markStale(tx, affected.map((a) => a.id));
      // what was assessed a moment ago is not stale because of its own points
      await tx.update(oilAssessments).set({ stale: false }).where(inArray(oilAssessments.circuitId, changed));
    }
  });
}

/** Assess every stale circuit, batch by batch. */
export async function assessStaleCircuits(): Promise<void> {
  for (;;) {
    const rows = await db().select({ id: oilAssessments.circuitId }).from(oilAssessments).where(eq(oilAssessments.stale, true)).limit(BATCH);
    if (rows.length === 0) return;
    await assessCircuits(rows.map((r) => r.id));
  }
}

/** Mark circuits stale, within the transaction that changes something about their oil. A circuit without an assessment gets one. */
export async function markOilStale(tx: Queryable, circuitIds: readonly string[]): Promise<void> {
  if (circuitIds.length === 0) return;
  await tx.insert(oilAssessments).values([...new Set(circuitIds)].map((circuitId) => ({ circuitId, state: "unproven" as const, urgency: 10, verdict: [{ text: "No sample yet." }], stale: true }))).onConflictDoUpdate({ target: oilAssessments.circuitId, set: { stale: true } });
}

/** Assess at once; a failure leaves the circuit stale for the worker, and what was saved is safe either way. */
export async function assessOilNow(circuitId: string): Promise<void> {
  await assessCircuits([circuitId]).catch((error: Error) => log.error({ err: error.message, circuitId }, "the oil's assessment is left to the worker"));
}
