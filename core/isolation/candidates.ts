/** The faults that a circuit can have, with the causes of practice that they are, and how often each comes. */
import { elementKinds, type ElementKindId } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import { causeIds, causes, type CauseId } from "./knowledge/causes";
import { parts, type PartId } from "./knowledge/parts";
import type { Rank } from "./knowledge/types";

/** Barely visible, as a share of the greatest severity, where the kind does not say. */
const LEAST_SEVERITY = 1e-3;

export interface Candidate {
  element: string;
  fault: string;
  least: number;
  greatest: number;
  /** Odds that it is there, before any gauge is looked at. */
  odds: number;
}

type AtElement = { element: string | null; fault?: string | undefined };

/** One key for a fault at an element. */
export const faultKey = ({ element, fault }: AtElement): string => `${element}/${fault}`;

/** One key for faults at once, in whatever order they are named. */
export const faultsKey = (faults: readonly AtElement[]): string => faults.map(faultKey).sort().join("+");

/** Does a part of practice cover elements of this kind? A command or a drive belongs to what it moves. */
function covers(part: PartId, kind: ElementKindId): boolean {
  if (part === "command") return elementKinds[kind].commanded === true;
  if (part === "drive") return (parts.pump.kinds as readonly ElementKindId[]).includes(kind);
  return (parts[part].kinds as readonly ElementKindId[]).includes(kind);
}

/**
 * The causes that a fault of an element is called in practice: one, or several that the model cannot tell apart (no voltage,
 * a burned coil). Empty: practice has no name for it.
 */
export function causesOf(kind: ElementKindId, fault: string): CauseId[] {
  return causeIds.filter((id) => causes[id].fault === fault && covers(causes[id].part as PartId, kind));
}

/** A circuit picked at random has a fault of this rank so often (common practice, graded and not counted). */
const PRESENT: Record<Rank, number> = { often: 0.12, sometimes: 0.05, seldom: 0.015, rare: 0.004 };

/** Every fault of every element, with how often it is there: wear stays, so that several at once are nothing unusual. */
export function candidatesOf(netlist: Netlist): Candidate[] {
  return netlist.elements.flatMap((e) =>
    Object.entries(elementKinds[e.kind].faults).map(([fault, { greatest, least }]) => ({
      element: e.id,
      fault,
      greatest,
      least: least ?? greatest * LEAST_SEVERITY,
      odds: causesOf(e.kind, fault).reduce((sum, id) => sum + PRESENT[causes[id].rank], 0) || PRESENT.rare,
    })),
  );
}
