/** The standing diagnosis of a circuit: the fault that its readings name, or that they name none. */
import type { Netlist } from "../circuit/netlist";
import { causesOf, faultKey } from "./candidates";
import type { Explanation, FaultAt } from "./explain";
import { causes, type CauseId } from "./knowledge/causes";
import { faultsText } from "./text";

/** A fault is named from this share on: likelier there than not. */
const NAMED = 0.5;
/** Below this share nothing is shown as possible. */
const WORTH_A_LINE = 0.05;
/** The same fault of another element is named beside it when it is so likely in comparison. */
const AS_LIKELY = 0.5;

/** Why no fault is looked for. */
export type NoDiagnosis = "nothing drawn" | "does not fit" | "few points" | "nothing off";

export interface NamedFault {
  /** As bad as explains most. */
  fault: FaultAt;
  /** In words, with how bad. */
  text: string;
  /** Names of the elements; several where it may as well be another one of its kind. */
  places: string[];
  /** What practice calls it; several that the model cannot part are named by the commonest. */
  cause: CauseId;
  /** Chance that it is there, alone or with others. */
  share: number;
  /** Points that it accounts for. */
  explains: string[];
  /** What would show alike, likeliest first, with their shares: they are part of its share. */
  alike: { text: string; cause: CauseId; share: number }[];
}

export interface StandingDiagnosis {
  /** Faults that are likelier than not, the likeliest first. */
  named: NamedFault[];
  /** What else is possible, likeliest first. */
  possible: NamedFault[];
  /** Chance of something that the model does not have, and of nothing at all. */
  unknown: number;
  healthy: number;
  /** Points off the healthy model, and those of them for which no named fault accounts. */
  off: string[];
  leaves: string[];
}

/** One fault with the chance that it is there. */
interface Single {
  fault: FaultAt;
  cause: CauseId;
  share: number;
  explains: string[];
}

/** Every fault that is part of an explanation, likeliest first, with what it explains by itself. */
function singlesOf(netlist: Netlist, explanations: readonly Explanation[]): Single[] {
  const alone = new Map(
    explanations.flatMap((e) => (e.faults.length === 1 ? [[faultKey(e.faults[0]!), e] as const] : [])),
  );
  const found = new Map<string, Single>();
  for (const e of explanations)
    for (const fault of e.faults) {
      const key = faultKey(fault);
      const before = found.get(key);
      if (before) {
        before.share += e.share;
        continue;
      }
      const kind = netlist.elements.find((x) => x.id === fault.element)?.kind;
      const [cause] = kind ? causesOf(kind, fault.fault) : [];
      const own = alone.get(key)?.explains ?? [];
      // one that shows only beside another: what both explain
      if (cause) found.set(key, { fault, cause, share: e.share, explains: own.length > 0 ? own : e.explains });
    }
  return [...found.values()].sort((a, b) => b.share - a.share);
}

/**
 * Faults that are one to whoever has to act: of the same element (gauges seldom tell a weak spring from a low setting), or
 * the same fault of another element that explains the same (two cylinders side by side).
 */
function groupsOf(singles: readonly Single[]): Single[][] {
  const found: Single[][] = [];
  const same = (a: Single, b: Single) =>
    a.fault.element === b.fault.element ||
    (a.cause === b.cause && a.explains.length > 0 && [...a.explains].sort().join() === [...b.explains].sort().join());
  for (const s of singles) {
    const own = found.find(([first]) => same(first!, s));
    if (own) own.push(s);
    else found.push([s]);
  }
  return found;
}

/**
 * From possibilities to a diagnosis: a fault is named where it is likelier than not that it is there, alone or with others.
 * @param netlist the diagram, for the names
 * @param explanations all of them, likeliest first
 * @param off points off the healthy model
 * @returns faults that are named and faults that are possible, with what they leave unexplained
 * @example
 * const circuit = circuitOf({ relief: ["relief", {}, "Relief valve"] }, []);
 * const faults = [{ element: "relief", fault: "setLow", severity: 23 }];
 * const found = { faults, unknown: false, share: 0.9, explains: ["p"], leaves: [] };
 * standingDiagnosis(circuit, [found], ["p", "q"]) // { leaves: ["q"], unknown: 0, healthy: 0 }
 */
export function standingDiagnosis(
  netlist: Netlist,
  explanations: readonly Explanation[],
  off: readonly string[],
): StandingDiagnosis {
  const nameOf = (id: string) => netlist.elements.find((e) => e.id === id)?.name ?? id;
  const sumOf = (which: (e: Explanation) => boolean) =>
    explanations.reduce((sum, e) => sum + (which(e) ? e.share : 0), 0);
  const all = groupsOf(singlesOf(netlist, explanations))
    .map((group): NamedFault => {
      const first = group[0]!;
      const keys = new Set(group.map((s) => faultKey(s.fault)));
      const elsewhere = group.filter(
        (s) => s.fault.element !== first.fault.element && s.share >= AS_LIKELY * first.share,
      );
      return {
        fault: first.fault,
        text: faultsText(netlist, [first.fault]),
        places: [...new Set([first, ...elsewhere].map((s) => nameOf(s.fault.element)))],
        cause: first.cause,
        share: Math.min(
          1,
          sumOf((e) => e.faults.some((f) => keys.has(faultKey(f)))),
        ),
        explains: first.explains,
        alike: group
          .slice(1)
          .filter((s) => s.share >= WORTH_A_LINE)
          .map((s) => ({ text: faultsText(netlist, [s.fault]), cause: s.cause, share: s.share })),
      };
    })
    .filter((f) => f.share >= WORTH_A_LINE)
    .sort((a, b) => b.share - a.share);
  const named = all.filter((f) => f.share > NAMED && f.explains.length > 0);
  const accounted = new Set(named.flatMap((f) => f.explains));
  return {
    named,
    possible: all.filter((f) => !named.includes(f)),
    unknown: sumOf((e) => e.unknown),
    healthy: sumOf((e) => !e.unknown && e.faults.length === 0),
    off: [...off],
    leaves: off.filter((id) => !accounted.has(id)),
  };
}

/**
 * Is the act of this cause a thing that is done now: set, restored, checked, without a stop?
 * @param cause of the knowledge
 * @returns true where it is
 * @example actsNow("relief.setLow") // true
 * @example actsNow("pump.worn") // false
 */
export const actsNow = (cause: CauseId): boolean => !causes[cause].act.stop;
