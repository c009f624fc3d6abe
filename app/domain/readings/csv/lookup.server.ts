/** What rows of a file may name: points by their codes and names, with their lives and meters, and instruments by their tags. */
import { eq, isNull, sql } from "drizzle-orm";
import { quantityOf } from "@core";
import { db } from "~/db/client.server";
import { circuits, components, hourMeterChanges, instruments, lives, machines, points, sites } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { pumpedFlow } from "../knownOfCircuit.server";
import { tiedNames } from "./names.server";
import { codeInState, foldCode, ofMachine, type ImportLookup, type ImportPoint } from "./rows";

/** All of the fleet, since a file may name any of it. */
export async function lookupFor(): Promise<ImportLookup> {
  const [pointRows, lifeRows, instrumentRows, meterRows, notedRows, pumpedRows] = await Promise.all([
    db()
      .select({
        id: points.id,
        machineId: machines.id,
        hoursPerDay: machines.hoursPerDay,
        componentId: points.componentId,
        name: points.name,
        quantity: points.quantity,
        unit: points.unit,
        state: points.state,
        retired: sql<boolean>`(${points.retiredAt} is not null or ${components.retiredAt} is not null or ${machines.retiredAt} is not null)`,
        component: components.name,
        tag: machines.tag,
        machine: machines.name,
        timeZone: sites.timeZone,
        circuitId: circuits.id,
        workingPressure: circuits.workingPressure,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .innerJoin(sites, eq(sites.id, machines.siteId))
      .orderBy(
        sql`(${points.retiredAt} is not null or ${components.retiredAt} is not null or ${machines.retiredAt} is not null)`,
      ),
    db().select().from(lives),
    db().select({ id: instruments.id, tag: instruments.tag }).from(instruments),
    db().select().from(hourMeterChanges).where(isNull(hourMeterChanges.withdrawnAt)).orderBy(hourMeterChanges.at),
    db().execute<{
      id: string;
      at: number;
      hours: number;
    }>(sql`select p.id, (extract(epoch from r.taken_at) * 1000)::float8 as at, r.hours from points p cross join lateral (
      select taken_at, hours from readings where point_id = p.id and hours is not null and superseded_at is null
        order by taken_at desc limit 1) r where p.last_reading_at is not null`),
    db()
      .select({ circuitId: circuits.id, flow: pumpedFlow(sql`${circuits.id}`) })
      .from(circuits),
  ]);
  const meterOf = new Map<string, ImportPoint["meter"]>();
  for (const c of meterRows)
    meterOf.set(c.machineId, [
      ...(meterOf.get(c.machineId) ?? []),
      { at: c.at.getTime(), before: c.before, after: c.after },
    ]);
  const notedOf = new Map(notedRows.rows.map((r) => [r.id, { at: Number(r.at), hours: r.hours }]));
  const pumpedOf = new Map(pumpedRows.map((c) => [c.circuitId, c.flow]));
  const livesOf = new Map<string, ImportPoint["lives"]>();
  for (const l of lifeRows) {
    const list = livesOf.get(l.componentId) ?? [];
    list.push({ id: l.id, startedAt: l.startedAt.getTime(), endedAt: l.endedAt?.getTime() ?? null });
    livesOf.set(l.componentId, list);
  }
  const byCode = new Map<string, ImportPoint | null>();
  const onMachine = new Map<string, ImportPoint | null>();
  const inUse = new Set<string>();
  for (const p of pointRows) {
    const point: ImportPoint = {
      id: p.id,
      code: `${p.tag}/${p.component}/${p.name}`,
      quantity: p.quantity,
      unit: p.unit,
      state: p.state,
      timeZone: p.timeZone,
      lives: livesOf.get(p.componentId) ?? [],
      meter: meterOf.get(p.machineId) ?? [],
      hoursPerDay: p.hoursPerDay,
      noted: notedOf.get(p.id) ?? null,
      known: { pumpedFlow: pumpedOf.get(p.circuitId) ?? null, workingPressure: p.workingPressure },
    };
    byCode.set(p.id, point);
    if (!p.retired)
      for (const key of new Set(
        [p.tag, p.machine].flatMap((m) => [p.name, quantityOf(p.quantity).label].map((n) => ofMachine(m, n))),
      ))
        onMachine.set(key, onMachine.has(key) && onMachine.get(key) !== point ? null : point);
    const codes = [point.code, `${p.machine}/${p.component}/${p.name}`];
    for (const code of new Set([...codes.map(foldCode), ...codes.map((c) => codeInState(c, p.state))])) {
      // what is out of use keeps its old readings, and gives way to what bears its name now
      if (p.retired && inUse.has(code)) continue;
      if (!p.retired) inUse.add(code);
      byCode.set(code, byCode.has(code) ? null : point);
    }
  }
  for (const [key, point] of onMachine) if (!byCode.has(key)) byCode.set(key, point);
  return {
    points: byCode,
    names: await tiedNames(byCode),
    instruments: new Map(instrumentRows.map((i) => [i.tag.toLowerCase(), i.id])),
    now: now(),
  };
}
