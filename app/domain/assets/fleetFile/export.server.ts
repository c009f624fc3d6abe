/** The description of the fleet as one JSON file: all that is needed to have it again in an empty database. */
import { filedCircuit } from "@core";
import { circuits, components, instruments, lives, machines, points, sites } from "~/db/schema";
import { pointCode } from "./check";
import type {
  FleetCircuit,
  FleetComponent,
  FleetFile,
  FleetInstrument,
  FleetLife,
  FleetMachine,
  FleetPoint,
  FleetSite,
} from "./types";
import { grouped, allRows } from "./allRows.server";

type Row<T extends { $inferSelect: unknown }> = T["$inferSelect"];

const text = (at: Date | null) => at?.toISOString();
/** A moment that may be missing, left out where it is. */
const when = <K extends string>(key: K, at: Date | null) => (at ? ({ [key]: text(at) } as Record<K, string>) : {});

/** The whole fleet, what is retired too: readings are recorded there. */
export async function exportFleet(): Promise<FleetFile> {
  const all = await allRows();
  const instrumentTag = new Map(all.instrumentRows.map((i) => [i.id, i.tag]));
  const fluidName = new Map(all.fluidRows.map((f) => [f.id, f.name]));
  const livesOf = grouped(all.lifeRows, (l) => l.componentId);
  const pointsOf = grouped(all.pointRows, (p) => p.componentId);
  const componentsOf = grouped(all.componentRows, (c) => c.circuitId);
  const circuitsOf = grouped(all.circuitRows, (c) => c.machineId);
  const machinesOf = grouped(all.machineRows, (m) => m.siteId);
  const meterOf = grouped(all.meterRows, (c) => c.machineId);
  const checksOf = grouped(all.checkRows, (c) => c.instrumentId);
  const recallsOf = grouped(all.recallRows, (r) => r.instrumentId);
  const stopsOf = grouped(all.stopRows, (s) => s.siteId);
  const roundsOf = grouped(all.roundRows, (r) => r.siteId);
  const wayOf = grouped(all.roundPointRows, (p) => p.roundId);
  /** Where each point stands, for the rounds. */
  const placeOf = new Map<string, { code: string; state: FleetPoint["state"]; site: string }>();

  const pointOf = (p: Row<typeof points>): FleetPoint => ({
    name: p.name,
    quantity: p.quantity,
    state: p.state,
    tag: p.tag,
    unit: p.unit,
    intervalDays: p.intervalDays,
    referencePressure: p.referencePressure,
    referenceTemperature: p.referenceTemperature,
    makersNew: p.makersNew,
    instrument: p.instrumentId ? (instrumentTag.get(p.instrumentId) ?? null) : null,
    limit: p.limitBasis
      ? {
          basis: p.limitBasis,
          upper: p.limitUpper,
          lower: p.limitLower,
          reason: p.limitReason,
          setBy: p.limitSetBy,
          ...when("setAt", p.limitSetAt),
        }
      : null,
    conditions: p.conditionsText,
    ...when("retiredAt", p.retiredAt),
  });
  const lifeOf = (l: Row<typeof lives>): FleetLife => ({
    fittedAt: text(l.startedAt)!,
    fittedHours: l.startHours,
    endedAt: text(l.endedAt)!,
    endHours: l.endHours,
    endReason: l.endReason,
    serial: l.serial,
    knownWhenNew: l.knownWhenNew,
  });
  const componentOf = (c: Row<typeof components>): FleetComponent => {
    const parts = livesOf(c.id);
    const fitted = parts.find((l) => !l.endedAt);
    return {
      name: c.name,
      kind: c.kind,
      tag: c.tag,
      model: c.model,
      note: c.note,
      position: c.position,
      displacement: c.displacement,
      speed: c.speed,
      maxPressure: c.maxPressure,
      leadTimeDays: c.leadTimeDays,
      partCost: c.partCost,
      failureCost: c.failureCost,
      sparesOnHand: c.sparesOnHand,
      exerciseDays: c.exerciseDays,
      runInHours: c.runInHours,
      makersCode: c.makersCode,
      materials: c.materials,
      symptomIfStuck: c.symptomIfStuck,
      fluidNeed: c.fluidNeed,
      filter: c.filter,
      ...(fitted && {
        fittedAt: text(fitted.startedAt)!,
        fittedHours: fitted.startHours,
        serial: fitted.serial,
        knownWhenNew: fitted.knownWhenNew,
      }),
      ...when("retiredAt", c.retiredAt),
      earlierLives: parts.filter((l) => l.endedAt).map(lifeOf),
      points: pointsOf(c.id).map(pointOf),
    };
  };
  const componentName = new Map(all.componentRows.map((c) => [c.id, c.name]));
  const drawnOf = new Map(all.diagramRows.map((d) => [d.circuitId, d]));
  const diagramOf = (circuitId: string): Pick<FleetCircuit, "diagram"> => {
    const drawn = drawnOf.get(circuitId);
    return drawn ? { diagram: filedCircuit(drawn.netlist, drawn.drawnBy, (id) => componentName.get(id)) } : {};
  };
  const circuitOf = (k: Row<typeof circuits>): FleetCircuit => ({
    name: k.name,
    fluid: k.fluidId ? (fluidName.get(k.fluidId) ?? null) : null,
    workingPressure: k.workingPressure,
    volume: k.volume,
    startTemperature: k.startTemperature,
    longestHours: k.longestHours,
    longestMonths: k.longestMonths,
    targetCode: k.targetCode,
    targetReason: k.targetReason,
    targetSetBy: k.targetSetBy,
    metalLimits: k.metalLimits,
    ...diagramOf(k.id),
    ...when("retiredAt", k.retiredAt),
    components: componentsOf(k.id).map(componentOf),
  });
  const machineOf = (m: Row<typeof machines>): FleetMachine => ({
    name: m.name,
    tag: m.tag,
    area: m.area,
    hoursPerDay: m.hoursPerDay,
    dutyDeviation: m.dutyDeviation,
    note: m.note,
    ...when("retiredAt", m.retiredAt),
    hourMeter: meterOf(m.id).map((c) => ({
      at: text(c.at)!,
      kind: c.kind,
      before: c.before,
      after: c.after,
      note: c.note,
      by: c.by,
    })),
    circuits: circuitsOf(m.id).map(circuitOf),
  });
  for (const site of all.siteRows)
    for (const m of machinesOf(site.id))
      for (const k of circuitsOf(m.id))
        for (const c of componentsOf(k.id))
          for (const p of pointsOf(c.id))
            placeOf.set(p.id, { code: pointCode(m.tag, c.name, p.name), state: p.state, site: site.name });
  const siteOf = (site: Row<typeof sites>): FleetSite => ({
    name: site.name,
    timeZone: site.timeZone,
    holdsReleased: site.holdsReleased,
    twoSignatures: site.twoSignatures,
    nextChanceDays: site.nextChanceDays,
    acceptedPercent: site.acceptedPercent,
    ...when("retiredAt", site.retiredAt),
    stops: stopsOf(site.id).map((s) => ({
      name: s.name,
      startsOn: s.startsOn,
      days: s.days,
      crewHours: s.crewHours,
      electricianHours: s.electricianHours,
      machineTags: s.machineTags,
      ...when("retiredAt", s.retiredAt),
    })),
    machines: machinesOf(site.id).map(machineOf),
    rounds: roundsOf(site.id).map((r) => ({
      name: r.name,
      intervalDays: r.intervalDays,
      intervalHours: r.intervalHours,
      closer: r.closer,
      walkedBy: r.walkedBy,
      points: wayOf(r.id).flatMap(({ pointId }) => {
        const place = placeOf.get(pointId);
        return place
          ? [{ code: place.code, state: place.state, ...(place.site !== site.name && { site: place.site }) }]
          : [];
      }),
    })),
  });
  const instrumentOf = (i: Row<typeof instruments>): FleetInstrument => ({
    tag: i.tag,
    name: i.name,
    quantity: i.quantity,
    fullScale: i.fullScale,
    accuracyClass: i.accuracyClass,
    principle: i.principle,
    leastReading: i.leastReading,
    viscosityLow: i.viscosityLow,
    viscosityHigh: i.viscosityHigh,
    note: i.note,
    ...when("calibratedAt", i.calibratedAt),
    ...when("calibrationDueAt", i.calibrationDueAt),
    ...when("retiredAt", i.retiredAt),
    checks: checksOf(i.id).map((c) => ({
      at: text(c.at)!,
      kind: c.kind,
      points: c.points,
      passed: c.passed,
      certificate: c.certificate,
      note: c.note,
      by: c.by,
    })),
    recalls: recallsOf(i.id).map((r) => ({
      fromAt: text(r.fromAt)!,
      untilAt: text(r.untilAt)!,
      reason: r.reason,
      by: r.by,
    })),
  });
  return {
    format: "juncteral-fleet",
    version: 1,
    fluids: all.fluidRows.map((f) => ({
      name: f.name,
      kv40: f.kv40,
      kv100: f.kv100,
      density15: f.density15,
      type: f.type,
      waterA: f.waterA,
      waterB: f.waterB,
      fresh: f.fresh,
      ...when("retiredAt", f.retiredAt),
    })),
    instruments: all.instrumentRows.map(instrumentOf),
    sites: all.siteRows.map(siteOf),
  };
}
