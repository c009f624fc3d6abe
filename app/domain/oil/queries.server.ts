/** What the Oil place shows. Judgements were made when a sample landed; pages read them. */
import { and, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import {
  correctSeries,
  countFor,
  fluidAt,
  formatNumber,
  incomparable,
  mixing,
  sampleIso,
  type AnalyteId,
  type ConditionState,
  type MetalPoint,
  type NamedFluid,
  type OilAssessment,
  type OilSample,
  type Result,
} from "@core";
import { db } from "~/db/client.server";
import { debrisEvents, debrisTasks, oilAssessments, oilEvents, samplePhotos, samples } from "~/db/oilTables";
import { assessments, circuits, components, fluids, lives, machines, points, sites } from "~/db/schema";
import {
  assessPointOf,
  contextOf,
  fluidOf,
  pointSetups,
  readingsOfLife,
  currentOil,
  oilSampleOf,
  samplesOf,
} from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { isUuid, notFound } from "~/platform/guard.server";

const DAY = 86_400_000;
/** A circuit is sampled at least so often (common practice), days. */
const SAMPLE_EVERY = 120;
const SHOWN_SAMPLES = 30;
const SHOWN_EVENTS = 30;
const MOST_EVENTS = 2000;

export interface OilListed {
  circuitId: string;
  machine: string;
  tag: string;
  area: string;
  circuit: string;
  state: ConditionState;
  code: string | null;
  target: string | null;
}

const inUse = sql`k.retired_at is null and m.retired_at is null`;

/** Every circuit in use, the worst oil first. */
export async function oilList(): Promise<OilListed[]> {
  const result = await db().execute<OilListed & Record<string, unknown>>(sql`
    select k.id as "circuitId", m.name as machine, m.tag, m.area, k.name as circuit, coalesce(o.state, 'unproven') as state, o.code, o.target
    from circuits k join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id
      where ${inUse} order by o.urgency desc nulls last, m.name, k.name limit 2000`);
  return result.rows;
}

/** What needs somebody: oils that are not well, open debris events, samples that are due, elements that block. */
export async function oilOverview() {
  const late = new Date(now() - SAMPLE_EVERY * DAY).toISOString();
  const [needs, events, due, elements, counts] = await Promise.all([
    db().execute<{
      circuitId: string;
      machine: string;
      circuit: string;
      state: ConditionState;
      verdict: OilAssessment["verdict"];
      margin: OilAssessment["margin"];
    }>(sql`
      select k.id as "circuitId", m.name as machine, k.name as circuit, o.state, o.verdict, o.margin
        from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id
      where ${inUse} and o.state in ('alarm', 'alert', 'drifting') order by o.urgency desc limit 20`),
    db().execute<{ id: string; machine: string; what: string; openedAt: string; open: number; all: number }>(sql`
      select e.id, m.name as machine, e.what, e.opened_at as "openedAt", count(t.id) filter (where t.done_at is null)::int as open, count(t.id)::int as all
      from debris_events e join circuits k on k.id = e.circuit_id join machines m on m.id = k.machine_id left
        join debris_tasks t on t.event_id = e.id where e.closed_at is null group by e.id, m.name order by e.opened_at desc
        limit 10`),
    db().execute<{ circuitId: string; machine: string; lastAt: string | null }>(sql`
      select k.id as "circuitId", m.name as machine, o.last_at as "lastAt" from circuits k
        join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id
      where ${inUse} and (o.last_at is null or o.last_at < ${late}) order by o.last_at nulls first limit 12`),
    db().execute<{ circuitId: string; machine: string; name: string; early: number; late: number | null }>(sql`
      select k.id as "circuitId", m.name as machine, f ->> 'name' as name, (f -> 'daysLeft' ->> 'early')::float8 as
        early, (f -> 'daysLeft' ->> 'late')::float8 as late
      from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id cross
        join lateral jsonb_array_elements(o.detail -> 'filters') f
      where ${inUse} and (f -> 'daysLeft' ->> 'early')::float8 < 120 order by early limit 10`),
    db().execute<{ state: ConditionState; n: number }>(
      sql`select coalesce(o.state, 'unproven') as state, count(*)::int as n from circuits k
        join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id where ${inUse} group by 1`,
    ),
  ]);
  const ms = (text: string | null) => (text === null ? null : new Date(text).getTime());
  return {
    needs: needs.rows,
    events: events.rows.map((e) => ({ ...e, openedAt: ms(e.openedAt)! })),
    due: due.rows.map((d) => ({ ...d, lastAt: ms(d.lastAt) })),
    elements: elements.rows,
    counts: Object.fromEntries(counts.rows.map((c) => [c.state, c.n])) as Partial<Record<ConditionState, number>>,
  };
}

/** A circuit and where it is. 404 when there is none. */
export async function circuitPlace(id: string) {
  const [row] = await db()
    .select({
      circuit: circuits,
      machine: machines.name,
      machineId: machines.id,
      tag: machines.tag,
      area: machines.area,
      hoursPerDay: machines.hoursPerDay,
      timeZone: sites.timeZone,
      fluid: fluids,
    })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
    .where(eq(circuits.id, id));
  if (!row) throw notFound("circuit");
  return row;
}

/** Counts (per mL, over 4, 6 and 14 µm) and numbers of the code for the pictures: small, since it goes to the browser. */
export interface OilPicturePoint {
  at: number;
  comparable: boolean;
  counts: (number | null)[];
  numbers: (number | null)[];
}

/** A line of the list of samples. */
export interface ListedSample {
  id: string;
  number: string;
  at: number;
  code: string | null;
  water: string;
  kv40: number | null;
  iron: string;
  /** Why it counts less, or not. */
  remark: string;
}

const bounded = (result: Result | undefined, digits: number) =>
  result ? `${result.below ? "< " : result.above ? "> " : ""}${formatNumber(result.value, digits)}` : "";

function listed(row: typeof samples.$inferSelect): ListedSample {
  const sample = oilSampleOf(row);
  return {
    id: sample.id,
    number: sample.number,
    at: sample.at,
    code: sampleIso(sample)?.text ?? null,
    water: bounded(sample.results.water, 0),
    kv40: sample.results.kv40?.value ?? null,
    iron: bounded(sample.results.iron, 1),
    remark: row.withdrawnAt ? "withdrawn" : (incomparable(sample) ?? ""),
  };
}

function picturePoint(sample: OilSample): OilPicturePoint {
  return {
    at: sample.at,
    comparable: incomparable(sample) === null,
    counts: (["over4", "over6", "over14"] as const).map((id) => countFor(sample, id)),
    numbers: (sampleIso(sample)?.codes ?? [null, null, null]).map((c) => (typeof c === "number" ? c : null)),
  };
}

/** The metal that is shown first: the first that is beyond something. */
export function firstMetal(metals: OilAssessment["metals"]): AnalyteId | null {
  return (metals.find((m) => m.passed.length > 0) ?? metals[0])?.id ?? null;
}

/** The series of one metal of a circuit, for its picture. */
export async function metalOf(circuitId: string, metal: AnalyteId): Promise<MetalPoint[]> {
  const [row] = await db()
    .select({ points: sql<MetalPoint[] | null>`${oilAssessments.detail} -> 'metalPoints' -> ${metal}::text` })
    .from(oilAssessments)
    .where(eq(oilAssessments.circuitId, circuitId));
  return row?.points ?? [];
}

/** An assessment as its page shows it. */
export type ShownOil = Omit<OilAssessment, "metalPoints" | "rates" | "measured">;

/** One circuit's oil: what it says, and the samples that say so. */
export async function circuitPage(id: string) {
  const [place, [stored], found, withdrawn, events, elementPoints, strainers] = await Promise.all([
    circuitPlace(id),
    // without the series: they are as large as all the rest, and one of them is shown
    db()
      .select({
        detail: sql<ShownOil | null>`(${currentOil}) - 'metalPoints' - 'rates' - 'measured'`,
        stale: oilAssessments.stale,
      })
      .from(oilAssessments)
      .where(eq(oilAssessments.circuitId, id)),
    samplesOf(db(), [id]),
    db()
      .select()
      .from(samples)
      .where(and(eq(samples.circuitId, id), sql`${samples.withdrawnAt} is not null`))
      .orderBy(desc(samples.takenAt))
      .limit(5),
    db()
      .select({
        id: debrisEvents.id,
        what: debrisEvents.what,
        openedAt: debrisEvents.openedAt,
        closedAt: debrisEvents.closedAt,
      })
      .from(debrisEvents)
      .where(eq(debrisEvents.circuitId, id))
      .orderBy(desc(debrisEvents.openedAt))
      .limit(6),
    db()
      .select({ componentId: components.id, pointId: points.id })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .where(and(eq(components.circuitId, id), eq(points.quantity, "pressureDrop"), isNull(points.retiredAt))),
    db()
      .select({
        pointId: points.id,
        component: components.name,
        state: assessments.state,
        verdict: assessments.verdict,
        margin: assessments.margin,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(assessments, eq(assessments.pointId, points.id))
      .where(
        and(
          eq(components.circuitId, id),
          eq(points.quantity, "vacuum"),
          isNull(points.retiredAt),
          isNull(components.retiredAt),
        ),
      )
      .orderBy(components.position),
  ]);
  const all = found.get(id) ?? [];
  const detail = stored?.detail ?? null;
  const latest = all.find((s) => s.id === detail?.lastSampleId);
  const metal = detail ? firstMetal(detail.metals) : null;
  return {
    circuitId: id,
    name: place.circuit.name,
    machine: place.machine,
    machineId: place.machineId,
    area: place.area,
    volume: place.circuit.volume,
    fluid: place.fluid?.name ?? null,
    timeZone: place.timeZone,
    now: now(),
    detail,
    stale: stored?.stale ?? true,
    picture: all.map((s) => picturePoint(oilSampleOf(s))),
    latest: latest ? oilSampleOf(latest) : null,
    metal: metal ? { id: metal, points: await metalOf(id, metal) } : null,
    listed: [...all.slice(-SHOWN_SAMPLES), ...withdrawn]
      .sort((a, b) => b.takenAt.getTime() - a.takenAt.getTime())
      .map(listed),
    events: events.map((e) => ({
      id: e.id,
      what: e.what,
      openedAt: e.openedAt.getTime(),
      closedAt: e.closedAt?.getTime() ?? null,
    })),
    elementPoints,
    strainers,
  };
}

/** One sample, with its photographs. */
export async function samplePage(id: string) {
  const [row] = await db().select().from(samples).where(eq(samples.id, id));
  if (!row) throw notFound("sample");
  const [place, [stored], photos] = await Promise.all([
    circuitPlace(row.circuitId),
    db()
      .select({ target: sql<OilAssessment["target"]>`(${currentOil}) -> 'target'` })
      .from(oilAssessments)
      .where(eq(oilAssessments.circuitId, row.circuitId)),
    db().select({ id: samplePhotos.id }).from(samplePhotos).where(eq(samplePhotos.sampleId, id)),
  ]);
  return {
    sample: oilSampleOf(row),
    about: {
      colour: row.colour,
      sludge: row.sludge,
      laboratory: row.laboratory,
      note: row.note,
      takenBy: row.takenBy,
      withdrawnBy: row.withdrawnBy,
      withdrawnWhy: row.withdrawnWhy,
      withdrawnAt: row.withdrawnAt?.getTime() ?? null,
    },
    circuitId: row.circuitId,
    machine: place.machine,
    circuit: place.circuit.name,
    photos: photos.map((p) => p.id),
    target: stored?.target ?? null,
  };
}

export async function photoOf(id: string): Promise<{ mediaType: string; content: Buffer }> {
  const [row] = await db()
    .select({ mediaType: samplePhotos.mediaType, content: samplePhotos.content })
    .from(samplePhotos)
    .where(eq(samplePhotos.id, id));
  if (!row) throw notFound("photograph");
  return row;
}

/** What the fluid's page shows: the record of fills and levels, whether it suits, and what the measured viscosity changed. */
export async function fluidPage(id: string, { all = false } = {}) {
  const [place, events, fluidRows, [stored]] = await Promise.all([
    circuitPlace(id),
    db()
      .select({ event: oilEvents, fluid: fluids.name })
      .from(oilEvents)
      .leftJoin(fluids, eq(fluids.id, oilEvents.fluidId))
      .where(eq(oilEvents.circuitId, id))
      .orderBy(desc(oilEvents.at))
      .limit(MOST_EVENTS),
    db().select({ id: fluids.id, name: fluids.name }).from(fluids).where(isNull(fluids.retiredAt)).orderBy(fluids.name),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, id)),
  ]);
  const valid = events.map((e) => e.event).filter((e) => !e.withdrawnAt);
  const fill = valid.find((e) => e.kind === "fill" || e.kind === "change");
  return {
    fill: fill
      ? {
          at: fill.at.getTime(),
          toppedUp: valid
            .filter((e) => e.kind === "topUp" && e.at > fill.at)
            .reduce((sum, e) => sum + (e.litres ?? 0), 0),
        }
      : null,
    circuitId: id,
    name: place.circuit.name,
    machine: place.machine,
    timeZone: place.timeZone,
    now: now(),
    volume: place.circuit.volume,
    hoursPerDay: place.hoursPerDay,
    startTemperature: place.circuit.startTemperature,
    fluid: place.fluid
      ? {
          id: place.fluid.id,
          name: place.fluid.name,
          type: place.fluid.type,
          kv40: place.fluid.kv40,
          kv100: place.fluid.kv100,
        }
      : null,
    // stop-gaps whose day has passed
    overdue: events.flatMap(({ event: e, fluid }) =>
      !e.withdrawnAt && e.changeBackBy && Date.parse(`${e.changeBackBy}T00:00:00Z`) < now()
        ? [{ id: e.id, fluid, by: e.changeBackBy }]
        : [],
    ),
    more: !all && events.length > SHOWN_EVENTS,
    events: (all ? events : events.slice(0, SHOWN_EVENTS)).map(({ event, fluid }) => ({
      id: event.id,
      kind: event.kind,
      at: event.at.getTime(),
      hours: event.hours,
      litres: event.litres,
      fluid,
      other: event.fluidId !== null && event.fluidId !== place.circuit.fluidId,
      level: event.level,
      condition: event.condition,
      changeBackBy: event.changeBackBy,
      note: event.note,
      by: event.by,
      withdrawn: event.withdrawnAt ? { by: event.withdrawnBy, why: event.withdrawnWhy } : null,
    })),
    mixed: await mixedIn(id, place.fluid?.id ?? null, valid),
    fluids: fluidRows,
    detail: stored?.detail
      ? {
          measured: stored.detail.measured,
          viscosityOff: stored.detail.viscosityOff,
          suitability: stored.detail.suitability,
          age: stored.detail.age,
        }
      : null,
    changed: await measuredEffect(id),
  };
}

/** What stands against the fluids that were mixed since the last fill; null: nothing else was filled. */
async function mixedIn(
  circuitId: string,
  fluidId: string | null,
  events: readonly (typeof oilEvents.$inferSelect)[],
): Promise<string | null> {
  const fill = events.find((e) => e.kind === "fill" || e.kind === "change");
  const other = events.find(
    (e) => e.kind === "topUp" && e.fluidId !== null && e.fluidId !== fluidId && (!fill || e.at > fill.at),
  );
  return other ? ((await mixingOf(circuitId, other.fluidId!))?.message ?? null) : null;
}

/** The fluid that stands in a circuit against one that is added; null where nothing is known or they agree. */
export async function mixingOf(circuitId: string, fluidId: string): Promise<ReturnType<typeof mixing>> {
  if (!isUuid(fluidId)) return null;
  const [[there], [added]] = await Promise.all([
    db()
      .select({ fluid: fluids })
      .from(circuits)
      .innerJoin(fluids, eq(fluids.id, circuits.fluidId))
      .where(eq(circuits.id, circuitId)),
    db().select().from(fluids).where(eq(fluids.id, fluidId)),
  ]);
  const named = (f: typeof fluids.$inferSelect): NamedFluid => ({
    id: f.id,
    name: f.name,
    type: f.type,
    kv40: f.kv40,
    kv100: f.kv100,
    density15: f.density15,
  });
  return there && added ? mixing(named(there.fluid), named(added)) : null;
}

/** Newest corrected value of every leakage point with the viscosity as stated and as measured. */
async function measuredEffect(circuitId: string) {
  const setups = await pointSetups(db()).where(
    and(
      eq(components.circuitId, circuitId),
      inArray(points.quantity, ["caseDrainFlow", "leakageFlow"]),
      isNull(points.retiredAt),
    ),
  );
  const measuredSetups = setups.filter((s) => (s.measured ?? []).length > 0 && s.lifeId);
  if (measuredSetups.length === 0) return [];
  const names = await db()
    .select({ id: points.id, name: points.name, component: components.name, unit: points.unit })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .where(
      inArray(
        points.id,
        measuredSetups.map((s) => s.pointId),
      ),
    );
  const shown = await Promise.all(
    measuredSetups.map(async (s) => {
      const own = await readingsOfLife(db(), s.pointId, s.lifeId!);
      const point = assessPointOf(s);
      const context = contextOf(s, []);
      const last = (measured: typeof context.measured) =>
        correctSeries(own, point, { ...context, measured }).readings.at(-1);
      const [stated, real] = [last([]), last(context.measured)];
      const place = names.find((n) => n.id === s.pointId)!;
      const fluid = fluidOf(s);
      return stated && real && fluid
        ? [
            {
              pointId: s.pointId,
              point: place.name,
              component: place.component,
              quantity: s.quantity,
              unit: place.unit,
              at: real.at,
              read: real.raw,
              stated: stated.corrected,
              measured: real.corrected,
              kv40: fluidAt(fluid, context.measured, real.at).kv40,
            },
          ]
        : [];
    }),
  );
  return shown.flat();
}

/** Components of a circuit as the oil sees them. */
export async function settingsPage(id: string) {
  const [place, rows] = await Promise.all([
    circuitPlace(id),
    db()
      .select()
      .from(components)
      .where(and(eq(components.circuitId, id), isNull(components.retiredAt)))
      .orderBy(components.position),
  ]);
  const { circuit } = place;
  return {
    circuitId: id,
    name: circuit.name,
    machine: place.machine,
    circuit: {
      targetCode: circuit.targetCode,
      targetReason: circuit.targetReason,
      targetSetBy: circuit.targetSetBy,
      startTemperature: circuit.startTemperature,
      volume: circuit.volume,
      workingPressure: circuit.workingPressure,
      metalLimits: circuit.metalLimits,
      longestHours: circuit.longestHours,
      longestMonths: circuit.longestMonths,
      version: circuit.version,
    },
    components: rows.map((c) => ({
      id: c.id,
      name: c.name,
      kind: c.kind,
      makersCode: c.makersCode,
      materials: c.materials,
      symptomIfStuck: c.symptomIfStuck,
      fluidNeed: c.fluidNeed,
      filter: c.filter,
      version: c.version,
    })),
  };
}

/** What the clean-up page starts from. */
export async function cleanUpPage(id: string) {
  const [place, rows, [stored], found] = await Promise.all([
    circuitPlace(id),
    db()
      .select({ id: components.id, name: components.name, filter: components.filter })
      .from(components)
      .where(and(eq(components.circuitId, id), isNull(components.retiredAt), sql`${components.filter} is not null`)),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, id)),
    samplesOf(db(), [id]),
  ]);
  return {
    circuitId: id,
    name: place.circuit.name,
    machine: place.machine,
    volume: place.circuit.volume,
    hoursPerDay: place.hoursPerDay,
    filters: rows,
    target: stored?.detail?.target ?? null,
    step: stored?.detail?.step ?? null,
    samples: (found.get(id) ?? []).map(oilSampleOf),
  };
}

/** A debris event with its list. */
export async function debrisPage(id: string) {
  const [event] = await db().select().from(debrisEvents).where(eq(debrisEvents.id, id));
  if (!event) throw notFound("debris event");
  const [place, tasks, parts, newest, [stored]] = await Promise.all([
    circuitPlace(event.circuitId),
    db().select().from(debrisTasks).where(eq(debrisTasks.eventId, id)).orderBy(debrisTasks.position),
    db()
      .select({ id: components.id, name: components.name, kind: components.kind })
      .from(components)
      .where(and(eq(components.circuitId, event.circuitId), isNull(components.retiredAt)))
      .orderBy(components.position),
    db()
      .select()
      .from(samples)
      .where(
        and(
          eq(samples.circuitId, event.circuitId),
          isNull(samples.withdrawnAt),
          sql`${samples.takenAt} > ${event.openedAt.toISOString()}`,
        ),
      )
      .orderBy(desc(samples.takenAt))
      .limit(12),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, event.circuitId)),
  ]);
  return {
    event: {
      ...event,
      openedAt: event.openedAt.getTime(),
      reopenedAt: event.reopenedAt?.getTime() ?? null,
      closedAt: event.closedAt?.getTime() ?? null,
    },
    machine: place.machine,
    circuit: place.circuit.name,
    timeZone: place.timeZone,
    now: now(),
    parts,
    tasks: tasks.map((t) => ({ ...t, doneAt: t.doneAt?.getTime() ?? null })),
    since: newest.map(oilSampleOf),
    target: stored?.detail?.target ?? null,
    causes: stored?.detail?.causes ?? [],
    suspects: stored?.detail?.suspects ?? [],
  };
}

/** Filters with the element that is in, for the form that renews it. */
export async function elementsIn(circuitId: string) {
  return db()
    .select({
      componentId: components.id,
      lifeId: lives.id,
      name: components.name,
      since: lives.startedAt,
      element: lives.serial,
    })
    .from(components)
    .leftJoin(lives, and(eq(lives.componentId, components.id), isNull(lives.endedAt)))
    .where(
      and(eq(components.circuitId, circuitId), isNull(components.retiredAt), sql`${components.filter} is not null`),
    );
}
