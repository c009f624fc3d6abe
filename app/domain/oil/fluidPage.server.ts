/** The fluid of a circuit: fills and levels, whether it suits, what may be mixed, what the measured viscosity changed. */
import { and, desc, eq, inArray, isNull } from "drizzle-orm";
import { correctSeries, fluidAt } from "@core";
import { db } from "~/db/client.server";
import { oilAssessments, oilEvents } from "~/db/oilTables";
import { components, fluids, points } from "~/db/schema";
import {
  assessPointOf,
  contextOf,
  fluidOf,
  pointSetups,
  readingsOfLife,
  currentOil,
} from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { circuitPlace } from "./place.server";
import { mixingOf } from "./pouring.server";

const SHOWN_EVENTS = 30;

const MOST_EVENTS = 2000;

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
