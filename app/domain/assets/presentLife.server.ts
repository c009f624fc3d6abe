/** The life of a part as the register has it: when it was fitted may be known better later. */
import { and, asc, desc, eq, isNotNull, isNull } from "drizzle-orm";
import { dayOf } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { circuits, components, lives, machines, readings, sites } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { check, localMoment } from "~/platform/validate";
import { newLifeSchema } from "./form";

export interface PresentLife {
  startedAt: string;
  startHours: number;
  knownWhenNew: boolean;
  serial: string;
}

/** The present life of a component as its form shows it; null: it has none. */
export async function presentLifeOf(componentId: string): Promise<PresentLife | null> {
  const [row] = await db()
    .select({ life: lives, zone: sites.timeZone })
    .from(lives)
    .innerJoin(components, eq(components.id, lives.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(and(eq(lives.componentId, componentId), isNull(lives.endedAt)));
  const { life, zone } = row ?? {};
  return life && zone
    ? {
        startedAt: dayOf(life.startedAt.getTime(), zone),
        startHours: life.startHours,
        knownWhenNew: life.knownWhenNew,
        serial: life.serial,
      }
    : null;
}

/**
 * Put right when the present part was fitted, in the transaction that edits its component.
 * @returns what is wrong, by field; undefined: it is done, or nothing was changed
 */
export async function movePresentLife(
  tx: Queryable,
  componentId: string,
  zone: string,
  fields: Record<string, string>,
): Promise<Record<string, string> | undefined> {
  if (fields.startedAt === undefined) return undefined;
  const checked = await check(newLifeSchema, { ...fields, knownWhenNew: fields.knownWhenNew === "on" });
  if (!checked.ok) return checked.problems;
  const [life] = await tx
    .select()
    .from(lives)
    .where(and(eq(lives.componentId, componentId), isNull(lives.endedAt)))
    .for("update");
  if (!life) return undefined;
  const v = checked.values;
  // the day as it stood keeps its time of day: of work that was recorded, it is the fitted minute
  const same = v.startedAt === "" || v.startedAt === dayOf(life.startedAt.getTime(), zone);
  const at = same ? life.startedAt.getTime() : localMoment(`${v.startedAt}T00:00`, zone);
  if (Number.isNaN(at)) return { startedAt: "Write the date as 2026-11-20." };
  if (at > now()) return { startedAt: "That is in the future." };
  const [before] = await tx
    .select({ endedAt: lives.endedAt })
    .from(lives)
    .where(and(eq(lives.componentId, componentId), isNotNull(lives.endedAt)))
    .orderBy(desc(lives.endedAt))
    .limit(1);
  if (before && at < before.endedAt!.getTime()) return { startedAt: "The part before it was still in then." };
  const [first] = await tx
    .select({ takenAt: readings.takenAt })
    .from(readings)
    .where(eq(readings.lifeId, life.id))
    .orderBy(asc(readings.takenAt))
    .limit(1);
  if (first && at > first.takenAt.getTime())
    return { startedAt: `It was read on ${dayOf(first.takenAt.getTime(), zone)} already.` };
  await tx
    .update(lives)
    .set({
      startedAt: new Date(at),
      startHours: v.startHours?.value ?? life.startHours,
      serial: v.serial,
      knownWhenNew: v.knownWhenNew,
    })
    .where(eq(lives.id, life.id));
  return undefined;
}
