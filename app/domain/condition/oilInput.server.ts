/** What an assessment of a circuit's oil is made of: its samples, fills, filters, leaks, hours and temperatures, and its peers' rates. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import {
  DAY,
  lowerFirst,
  correctSeries,
  quantityOf,
  runningHours,
  type AnalyteId,
  type LeakSeries,
  type MeterChange,
  type OilAssessment,
  type OilComponentInput,
  type OilInput,
  type OilSample,
} from "@core";
import type { Queryable } from "~/db/client.server";
import { oilEvents, samples } from "~/db/oilTables";
import { circuits, components, fluids, hourMeterChanges, lives, machines, points } from "~/db/schema";
import { oilQuantities } from "./marking.server";
import { assessPointOf, contextOf, pointSetups, readingsOfLife } from "./setups.server";
import { OIL_SHAPE } from "./oilStored.server";
import { now } from "~/runtime/clock.server";

/** Newest samples of a circuit that are looked at. */
export const MOST_SAMPLES = 80;
const MOST_SISTERS = 100;
const TEMPERATURE_DAYS = 400;

type SampleRow = typeof samples.$inferSelect;

/** A stored sample as the core wants it. */
export function oilSampleOf(s: SampleRow): OilSample {
  return {
    id: s.id,
    number: s.number,
    at: s.takenAt.getTime(),
    hours: s.hours,
    place: s.place,
    state: s.state,
    results: s.results,
    code: s.code,
    remark: s.note,
  };
}

/** The newest samples of circuits that are not withdrawn, oldest first. */
export async function samplesOf(
  tx: Queryable,
  circuitIds: readonly string[],
  most = MOST_SAMPLES,
): Promise<Map<string, SampleRow[]>> {
  const found = new Map<string, SampleRow[]>();
  if (circuitIds.length === 0) return found;
  // one index walk a circuit: a window over all samples would read every one of them
  const newest = sql`(select s.id from unnest(${sql.param([...circuitIds])}::uuid[]) k(id) cross join lateral (
      select id from samples where circuit_id = k.id and withdrawn_at is null order by taken_at desc limit ${most}) s)`;
  const rows = await tx
    .select()
    .from(samples)
    .where(inArray(samples.id, newest))
    .orderBy(samples.circuitId, samples.takenAt);
  for (const row of rows) {
    const list = found.get(row.circuitId) ?? [];
    list.push(row);
    found.set(row.circuitId, list);
  }
  return found;
}

/** Running hours of a machine at a moment, from what was noted and how its meter was changed, by the duty beyond it. */
export function hoursLine(
  noted: readonly { at: number; hours: number }[],
  hoursPerDay: number,
  changes: readonly MeterChange[] = [],
): (at: number) => number {
  const ordered = [...noted].sort((a, b) => a.at - b.at);
  const axis = runningHours(ordered, { changes, hoursPerDay });
  const line = ordered.flatMap(({ at }, i) => (axis.believed[i] ? [{ at, hours: axis.hours[i]! }] : []));
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

/** Element lives of a filter that are looked at, the newest. */
const MOST_ELEMENTS = 8;
/** Newest readings of each point that tell how warm the oil is. */
const WARM_READINGS = 60;
/** Years over which one noted figure of the hours is taken for each month. */
const HOURS_YEARS = 15;
const PUMPS = ["axialPistonPump", "gearPump", "closedLoopPump"];

/** What was noted of the hours, one figure a month and point: each is one look into the index, however many readings there are. */
async function notedHours(tx: Queryable, circuitId: string): Promise<{ at: number; hours: number }[]> {
  const { rows } = await tx.execute<{ at: number; hours: number }>(sql`
    select (extract(epoch from r.taken_at) * 1000)::float8 as at, r.hours
    from points p join components c on c.id = p.component_id cross join generate_series(0, ${HOURS_YEARS * 12}) m cross join lateral (
      select taken_at, hours from readings where point_id = p.id and hours is not null and superseded_at is null
        and taken_at >= date_trunc('month', ${new Date(now()).toISOString()}::timestamptz) - m * interval '1 month'
          and taken_at < date_trunc('month', ${new Date(now()).toISOString()}::timestamptz) - (m - 1) * interval '1 month'
      order by taken_at desc limit 1) r
    where c.circuit_id = ${circuitId} and p.last_reading_at is not null`);
  // one figure a month is enough: of several points, the greatest
  const byMonth = new Map<string, { at: number; hours: number }>();
  for (const { at, hours } of rows) {
    const month = new Date(Number(at)).toISOString().slice(0, 7);
    const there = byMonth.get(month);
    if (!there || hours > there.hours) byMonth.set(month, { at: Number(at), hours });
  }
  return [...byMonth.values()];
}

async function oilTemperatures(
  tx: Queryable,
  circuitId: string,
): Promise<{ working: number | null; hottest: number | null }> {
  const { rows } = await tx.execute<{ working: number | null; hottest: number | null }>(sql`
    select percentile_cont(0.5) within group (order by r.temperature) as working, max(r.temperature) as hottest
    from points p join components c on c.id = p.component_id cross join lateral (
      select temperature from readings where point_id = p.id and superseded_at is null
        and taken_at > ${new Date(now() - TEMPERATURE_DAYS * DAY).toISOString()} order by taken_at desc limit ${WARM_READINGS}) r
    where c.circuit_id = ${circuitId} and r.temperature is not null`);
  return rows[0]!;
}

/** How fast metals come in circuits with pumps of the same kinds: always of the same circuits, whichever was assessed last. */
async function peerRates(tx: Queryable, circuitId: string): Promise<Partial<Record<AnalyteId, number[]>>> {
  const { rows } = await tx.execute<{ rates: OilAssessment["rates"] }>(sql`
    with kinds as (select c.circuit_id, string_agg(distinct c.kind, ',' order by c.kind) as kinds from components c
      where c.kind in ${PUMPS} and c.retired_at is null group by c.circuit_id)
    select o.detail -> 'rates' as rates from oil_assessments o join circuits k on k.id = o.circuit_id left join kinds on kinds.circuit_id = o.circuit_id
    where o.detail is not null and o.shape = ${OIL_SHAPE} and o.circuit_id <> ${circuitId} and k.retired_at is null
      and coalesce(kinds.kinds, '') = coalesce((select kinds from kinds where circuit_id = ${circuitId}), '')
    order by o.circuit_id limit ${MOST_SISTERS}`);
  const found: Partial<Record<AnalyteId, number[]>> = {};
  for (const { rates } of rows)
    for (const [metal, own] of Object.entries(rates)) (found[metal as AnalyteId] ??= []).push(...own);
  return found;
}

/** Everything about a circuit that its oil is judged by; undefined when there is no such circuit. */
export async function oilInput(tx: Queryable, circuitId: string): Promise<OilInput | undefined> {
  const [row] = await tx
    .select({ circuit: circuits, fluid: fluids, hoursPerDay: machines.hoursPerDay })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
    .where(eq(circuits.id, circuitId));
  if (!row) return undefined;
  const { circuit, fluid, hoursPerDay } = row;
  const componentRows = await tx
    .select()
    .from(components)
    .where(and(eq(components.circuitId, circuitId), isNull(components.retiredAt)))
    .orderBy(components.position);
  const lifeRows = await tx
    .select({ id: lives.id, componentId: lives.componentId, startedAt: lives.startedAt, endedAt: lives.endedAt })
    .from(lives)
    .innerJoin(components, eq(components.id, lives.componentId))
    .where(eq(components.circuitId, circuitId))
    .orderBy(lives.startedAt);
  const own = (await samplesOf(tx, [circuitId])).get(circuitId) ?? [];
  const eventRows = await tx
    .select({ event: oilEvents, fluid: fluids })
    .from(oilEvents)
    .leftJoin(fluids, eq(fluids.id, oilEvents.fluidId))
    .where(and(eq(oilEvents.circuitId, circuitId), isNull(oilEvents.withdrawnAt)))
    .orderBy(oilEvents.at);
  const setups = await pointSetups(tx)
    .where(
      and(eq(components.circuitId, circuitId), inArray(points.quantity, [...oilQuantities]), isNull(points.retiredAt)),
    )
    .orderBy(components.position, points.name);
  const nameRows = await tx
    .select({ id: points.id, componentId: points.componentId, component: components.name })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .where(and(eq(components.circuitId, circuitId), inArray(points.quantity, [...oilQuantities])));
  const placeOf = new Map(nameRows.map((p) => [p.id, p]));
  const changes = await tx
    .select()
    .from(hourMeterChanges)
    .where(and(eq(hourMeterChanges.machineId, circuit.machineId), isNull(hourMeterChanges.withdrawnAt)))
    .orderBy(hourMeterChanges.at);
  const noted = [
    ...(await notedHours(tx, circuitId)),
    ...own.flatMap((s) => (s.hours === null ? [] : [{ at: s.takenAt.getTime(), hours: s.hours }])),
    ...eventRows.flatMap(({ event }) => (event.hours === null ? [] : [{ at: event.at.getTime(), hours: event.hours }])),
  ];
  const hoursAt = hoursLine(
    noted,
    hoursPerDay,
    changes.map((c) => ({ at: c.at.getTime(), before: c.before, after: c.after })),
  );

  const leaks: LeakSeries[] = [];
  for (const s of setups) {
    if (s.quantity === "pressureDrop") continue;
    const place = placeOf.get(s.pointId)!;
    const current = s.lifeId ? await readingsOfLife(tx, s.pointId, s.lifeId) : [];
    const corrected = correctSeries(current, assessPointOf(s), contextOf(s, [])).readings.filter(
      (r) => !r.doubtful && !r.recalled,
    );
    leaks.push({
      pointId: s.pointId,
      componentId: place.componentId,
      component: lowerFirst(place.component),
      what: quantityOf(s.quantity).short,
      readings: corrected.map((r) => ({ at: r.at, value: r.corrected })),
    });
  }
  const drops = new Map<string, OilComponentInput["drops"]>();
  for (const s of setups) {
    const component = componentRows.find((c) => c.id === placeOf.get(s.pointId)!.componentId);
    if (s.quantity !== "pressureDrop" || !component?.filter) continue;
    const found: OilComponentInput["drops"][number][] = [];
    for (const life of lifeRows.filter((l) => l.componentId === component.id).slice(-MOST_ELEMENTS)) {
      const list = await readingsOfLife(tx, s.pointId, life.id);
      found.push(
        ...list
          .filter((r) => !r.doubtful && !r.recalled)
          .map((r) => ({
            at: r.at,
            hours: hoursAt(r.at),
            drop: r.value,
            temperature: r.temperature,
            lifeId: life.id,
            flow: r.speed && component.speed ? (component.filter!.flow * r.speed) / component.speed : null,
          })),
      );
    }
    drops.set(component.id, [...(drops.get(component.id) ?? []), ...found]);
  }
  const heat = await oilTemperatures(tx, circuitId);
  return {
    now: now(),
    volume: circuit.volume,
    workingPressure: circuit.workingPressure,
    hoursPerDay,
    hoursAt,
    targetSet: circuit.targetCode ? { code: circuit.targetCode, reason: circuit.targetReason } : null,
    fluid: fluid
      ? {
          id: fluid.id,
          name: fluid.name,
          type: fluid.type,
          kv40: fluid.kv40,
          kv100: fluid.kv100,
          density15: fluid.density15,
          solubility: fluid.waterA !== null && fluid.waterB !== null ? { a: fluid.waterA, b: fluid.waterB } : null,
          acidNew: fluid.fresh.acidNumber ?? null,
        }
      : null,
    temperatures: { start: circuit.startTemperature, working: heat.working, hottest: heat.hottest },
    metalLimits: circuit.metalLimits,
    longest: { hours: circuit.longestHours, months: circuit.longestMonths },
    // on the one axis of the machine, whichever meter showed it
    samples: own.map(oilSampleOf).map((s) => ({ ...s, hours: s.hours === null ? null : hoursAt(s.at) })),
    moves: eventRows.flatMap(({ event, fluid: filled }) =>
      event.kind === "level"
        ? []
        : [
            {
              at: event.at.getTime(),
              hours: hoursAt(event.at.getTime()),
              kind: event.kind,
              litres: event.litres ?? 0,
              fresh: (filled ?? fluid)?.fresh ?? {},
              fluidName: filled?.name ?? fluid?.name ?? "oil",
              otherFluid: filled !== null && fluid !== null && filled.id !== fluid.id,
              changeBackBy: event.changeBackBy ? Date.parse(`${event.changeBackBy}T00:00:00Z`) : null,
            },
          ],
    ),
    components: componentRows.map((c): OilComponentInput => ({
      id: c.id,
      name: c.name,
      kind: c.kind,
      makersCode: c.makersCode || null,
      materials: c.materials,
      fluidNeed: c.fluidNeed,
      filter: c.filter,
      lives: lifeRows
        .filter((l) => l.componentId === c.id)
        .map((l) => ({ id: l.id, startedAt: l.startedAt.getTime(), endedAt: l.endedAt?.getTime() ?? null })),
      drops: drops.get(c.id) ?? [],
    })),
    leaks,
    peerRates: await peerRates(tx, circuitId),
  };
}
