/** Every record of the fleet, as the fleet file needs it. */
import { asc, isNull, ne } from "drizzle-orm";
import { db } from "~/db/client.server";
import {
  circuitDiagrams,
  circuits,
  components,
  fluids,
  hourMeterChanges,
  instrumentChecks,
  instrumentRecalls,
  instruments,
  lives,
  machines,
  points,
  roundPoints,
  rounds,
  sites,
  stops,
} from "~/db/schema";

/** Rows by the record that they belong to. */
export function grouped<T, K>(rows: readonly T[], key: (row: T) => K): (k: K) => T[] {
  const map = new Map<K, T[]>();
  for (const row of rows) {
    const list = map.get(key(row));
    if (list) list.push(row);
    else map.set(key(row), [row]);
  }
  return (k) => map.get(k) ?? [];
}

/** Everything once, what is in use before what is retired. */
export async function allRows() {
  const [
    siteRows,
    stopRows,
    machineRows,
    circuitRows,
    componentRows,
    lifeRows,
    pointRows,
    fluidRows,
    instrumentRows,
    meterRows,
    checkRows,
    recallRows,
    roundRows,
    roundPointRows,
    diagramRows,
  ] = await Promise.all([
    db().select().from(sites).orderBy(sites.name),
    db().select().from(stops).orderBy(stops.startsOn),
    db().select().from(machines).orderBy(machines.tag),
    db().select().from(circuits).orderBy(circuits.name),
    db().select().from(components).orderBy(components.position, components.name),
    db().select().from(lives).orderBy(lives.startedAt),
    db().select().from(points).orderBy(points.name),
    db().select().from(fluids).orderBy(fluids.name),
    db().select().from(instruments).orderBy(instruments.tag),
    db().select().from(hourMeterChanges).where(isNull(hourMeterChanges.withdrawnAt)).orderBy(hourMeterChanges.at),
    db().select().from(instrumentChecks).orderBy(instrumentChecks.at),
    db()
      .select()
      .from(instrumentRecalls)
      .where(isNull(instrumentRecalls.withdrawnAt))
      .orderBy(instrumentRecalls.fromAt),
    db().select().from(rounds).where(isNull(rounds.retiredAt)).orderBy(rounds.name),
    db().select().from(roundPoints).orderBy(asc(roundPoints.position)),
    db()
      .select({
        circuitId: circuitDiagrams.circuitId,
        netlist: circuitDiagrams.netlist,
        drawnBy: circuitDiagrams.drawnBy,
      })
      .from(circuitDiagrams)
      .where(ne(circuitDiagrams.drawnBy, "")),
  ]);
  return {
    siteRows,
    stopRows,
    machineRows,
    circuitRows,
    componentRows,
    lifeRows,
    pointRows,
    fluidRows,
    instrumentRows,
    meterRows,
    checkRows,
    recallRows,
    roundRows,
    roundPointRows,
    diagramRows,
  };
}
