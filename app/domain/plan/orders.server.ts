/** Parts that the plan needs: by when, to be ordered by when, what is on hand and what is ordered. */
import { inArray } from "drizzle-orm";
import { addDays, dayOf, partAgainstStop } from "@core";
import { db } from "~/db/client.server";
import { components } from "~/db/schema";
import { csvText } from "~/platform/csvRows";
import { now } from "~/runtime/clock.server";
import { keptPlans } from "./kept.server";
import { sitePlan } from "./pieces.server";

export interface OrderLine {
  id: string;
  machine: string;
  component: string;
  model: string;
  tag: string;
  workId: string | null;
  pointId: string | null;
  /** Day, and what it comes from; null: nothing tells when. */
  neededBy: string | null;
  from: "booked" | "plan" | "forecast" | null;
  fromName: string;
  leadTimeDays: number | null;
  /** Last day to order; null: no lead time is stated, it is there or it is ordered. */
  orderBy: string | null;
  spares: number;
  orderedOn: string | null;
  /** In words, by the rule that every page uses. */
  text: string;
  late: boolean;
}

/** Parts of a site's plan, what must be ordered first first. */
export async function ordersOf(site: { id: string; timeZone: string }): Promise<OrderLine[]> {
  const [plan, all] = await Promise.all([sitePlan(site), keptPlans(site.id)]);
  // the plan that was booked last, else the one that was kept last
  const kept = all.find((p) => p.bookedAt !== null) ?? all[0];
  const today = dayOf(now(), site.timeZone);
  const needing = Object.values(plan.pieces).filter((p) => p.needsPart);
  if (needing.length === 0) return [];
  const rows = await db()
    .select({ id: components.id, model: components.model, tag: components.tag })
    .from(components)
    .where(
      inArray(
        components.id,
        needing.map((p) => p.componentId),
      ),
    );
  const nameOf = new Map(rows.map((r) => [r.id, r]));
  const lines = needing.map((p): OrderLine => {
    const booked = plan.stops.find((s) => s.id === plan.problem.wishes.pinned[p.id]);
    const planned = kept?.lines.find((l) => l.piece === p.id && l.kind !== "wait");
    const { day, from, name } = booked
      ? { day: booked.startsOn, from: "booked" as const, name: booked.name }
      : planned
        ? { day: dayOf(planned.at, site.timeZone), from: "plan" as const, name: `${kept!.name}: ${planned.name}` }
        : p.p10 !== null
          ? { day: dayOf(Math.max(now(), p.p10), site.timeZone), from: "forecast" as const, name: "" }
          : { day: null, from: null, name: "" };
    const facts = { leadTimeDays: p.leadTimeDays, orderedOn: p.orderedOn, today };
    const answer = partAgainstStop(facts, day);
    const open = p.orderedOn === null && p.leadTimeDays !== null && p.leadTimeDays > 0;
    return {
      id: p.id,
      machine: p.machine,
      component: p.component,
      model: nameOf.get(p.componentId)?.model ?? "",
      tag: nameOf.get(p.componentId)?.tag ?? "",
      workId: p.workId,
      pointId: p.pointId,
      neededBy: day,
      from,
      fromName: name,
      leadTimeDays: p.leadTimeDays,
      orderBy: day !== null && open ? addDays(day, -p.leadTimeDays!) : null,
      spares: p.spares,
      orderedOn: p.orderedOn,
      ...answer,
    };
  });
  const key = (l: OrderLine) => l.orderBy ?? l.neededBy ?? "9999";
  return lines.sort((a, b) => key(a).localeCompare(key(b)) || a.machine.localeCompare(b.machine));
}

/** The order list as a CSV file. */
export function ordersCsv(lines: readonly OrderLine[]): string {
  const head = [
    "order by",
    "needed by",
    "for",
    "machine",
    "component",
    "tag",
    "model",
    "lead time [d]",
    "on hand",
    "ordered on",
    "standing",
  ];
  const rows = lines.map((l) => [
    l.orderBy,
    l.neededBy,
    l.fromName || l.from,
    l.machine,
    l.component,
    l.tag,
    l.model,
    l.leadTimeDays,
    l.spares,
    l.orderedOn,
    l.text,
  ]);
  return csvText([head, ...rows]);
}
