/** The ways in which one component's work can be done, side by side: when, what it costs, what risk it leaves. */
import { eq } from "drizzle-orm";
import { causes, noWishes, openingOf, optionName, optionsOf } from "@core";
import { db } from "~/db/client.server";
import { circuitDiagnoses, circuits, components, machines, sites } from "~/db/schema";
import { notFound } from "~/platform/missing";
import { writerOf } from "./kept.server";
import { sitePlan } from "./pieces.server";

export interface Alternative {
  id: string;
  /** The stop, or "Now", "Own stop", "Wait". */
  name: string;
  at: number;
  hours: number;
  /** Expected cost all told: failing before, life thrown away, the work, the machine standing. */
  cost: number;
  /** Chance of the limit, and of failing, before it. */
  crossed: number;
  fails: number;
  /** A stop-gap leaves the cause open. */
  interim: boolean;
}

export interface Alternatives {
  currency: string;
  timeZone: string;
  assumed: boolean;
  ways: Alternative[];
}

const MOST = 10;

/** Null: no forecast, fault or booking asks for work on this component, so nothing can be priced. */
export async function alternativesOf(componentId: string): Promise<Alternatives | null> {
  const [place] = await db()
    .select({ id: sites.id, timeZone: sites.timeZone })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(components.id, componentId));
  if (!place) throw notFound("component");
  const plan = await sitePlan(place);
  const piece = plan.problem.pieces.find((p) => plan.pieces[p.id]!.componentId === componentId);
  if (!piece) return null;
  const facts = plan.pieces[piece.id]!;
  const writer = writerOf(plan.problem, place.timeZone);
  const [options] = optionsOf({ ...plan.problem, pieces: [piece], wishes: noWishes });
  const ways = options!.map((o): Alternative => ({
    id: o.id,
    name: optionName(o, writer),
    at: o.at,
    hours: o.kind === "wait" ? 0 : facts.hours,
    cost: o.cost + (o.kind === "wait" ? 0 : openingOf(o.kind, plan.problem)),
    crossed: o.crossed,
    fails: o.fails,
    interim: false,
  }));
  const waiting = ways.find((w) => w.id === "wait");
  const stopGap = waiting && (await stopGapFor(facts.faultOf));
  if (waiting && stopGap) {
    const hours = stopGap.minutes / 60;
    const { costs, now } = plan.problem;
    // what a stop-gap does to the course of the fault is not known: the risk is told as if it did nothing
    ways.push({
      ...waiting,
      id: "interim",
      name: stopGap.text,
      at: now,
      hours,
      cost: waiting.cost + hours * costs.crewHour + costs.opening,
      interim: true,
    });
  }
  return {
    currency: plan.problem.costs.currency,
    timeZone: place.timeZone,
    assumed: facts.assumed,
    ways: ways.sort((a, b) => a.cost - b.cost || a.at - b.at).slice(0, MOST),
  };
}

/** The stop-gap that practice has for a named fault (its circuit and its place); undefined: none. */
async function stopGapFor(faultOf: string | null) {
  const [circuitId, number] = faultOf?.split("/") ?? [];
  if (!circuitId) return undefined;
  const [row] = await db()
    .select({ detail: circuitDiagnoses.detail })
    .from(circuitDiagnoses)
    .where(eq(circuitDiagnoses.circuitId, circuitId));
  const named = row?.detail?.named[Number(number) - 1];
  const act = named ? causes[named.cause].act : undefined;
  return act && "interim" in act && act.interim ? act : undefined;
}
