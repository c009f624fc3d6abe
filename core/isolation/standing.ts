/** The standing diagnosis of a circuit: the fault that its readings name, or that they name none. */
import type { Netlist } from "../circuit/netlist";
import { causesOf } from "./candidates";
import type { Explanation, FaultAt } from "./explain";
import { causes, type CauseId } from "./knowledge/causes";
import { faultsText } from "./text";

/** A fault is named from this share on: likelier than all others together. */
const NAMED = 0.5;
/** Below this share nothing is shown as possible. */
const WORTH_A_LINE = 0.05;
/** The same fault of another element is named beside it when it is so likely in comparison. */
const AS_LIKELY = 0.5;

/** Why no fault is looked for. */
export type NoDiagnosis = "nothing drawn" | "does not fit" | "few points" | "nothing off";

export interface NamedFault {
  /** As bad as explains most. */
  faults: FaultAt[];
  /** In words, with how bad. */
  text: string;
  /** Names of the elements; several where it may as well be another one of its kind. */
  places: string[][];
  /** What practice calls it: one for each fault; several the model cannot part are named by the likeliest. */
  causes: CauseId[];
  share: number;
  /** Points that it accounts for. */
  explains: string[];
  leaves: string[];
  /** What would show alike, likeliest first, with their shares of all: they are part of its share. */
  alike: { text: string; causes: CauseId[]; share: number }[];
}

export interface StandingDiagnosis {
  /** null: none is likelier than all others together. */
  named: NamedFault | null;
  /** What else is possible, likeliest first. */
  possible: NamedFault[];
  /** Share of "something that the model does not have, or several faults", and of "nothing is wrong". */
  unknown: number;
  healthy: number;
  /** Points off the healthy model. */
  off: string[];
}

/** The cause of practice that stands for each fault, the commonest of those the model cannot part. */
export function namesOf(netlist: Netlist, faults: readonly FaultAt[]): CauseId[] {
  return faults.flatMap(({ element, fault }) => {
    const kind = netlist.elements.find((e) => e.id === element)?.kind;
    return kind ? causesOf(kind, fault).slice(0, 1) : [];
  });
}

const elementsOf = (faults: readonly FaultAt[]) => faults.map((f) => f.element);
const sorted = (texts: readonly string[]) => [...texts].sort().join("+");

/**
 * Possibilities that are one to whoever has to act: the same elements (gauges seldom tell a weak spring from a low setting),
 * or the same fault of another element that explains the same (two cylinders side by side).
 */
function groups(netlist: Netlist, explanations: readonly Explanation[]): Explanation[][] {
  const found: Explanation[][] = [];
  for (const e of explanations) {
    if (e.faults.length === 0) continue;
    const own = found.find(([first]) => {
      const sameElements = sorted(elementsOf(first!.faults)) === sorted(elementsOf(e.faults));
      const sameCauses = sorted(namesOf(netlist, first!.faults)) === sorted(namesOf(netlist, e.faults));
      return sameElements || (sameCauses && sorted(first!.explains) === sorted(e.explains));
    });
    if (own) own.push(e);
    else found.push([e]);
  }
  return found;
}

const total = (list: readonly Explanation[]) => list.reduce((sum, e) => sum + e.share, 0);

function asOne(netlist: Netlist, list: readonly Explanation[]): NamedFault {
  const first = list[0]!;
  const nameOf = (faults: readonly FaultAt[]) =>
    elementsOf(faults).map((id) => netlist.elements.find((e) => e.id === id)?.name ?? id);
  const elsewhere = list.filter(
    (e) => sorted(elementsOf(e.faults)) !== sorted(elementsOf(first.faults)) && e.share >= AS_LIKELY * first.share,
  );
  return {
    faults: first.faults,
    text: faultsText(netlist, first.faults),
    places: [first, ...elsewhere].map((e) => nameOf(e.faults)),
    causes: namesOf(netlist, first.faults),
    share: total(list),
    explains: first.explains,
    leaves: first.leaves,
    alike: list
      .slice(1)
      .filter((e) => e.share >= WORTH_A_LINE)
      .map((e) => ({ text: faultsText(netlist, e.faults), causes: namesOf(netlist, e.faults), share: e.share })),
  };
}

/**
 * From possibilities to a diagnosis: those that are one to whoever has to act are put together, and the likeliest names it.
 * @param explanations all of them, likeliest first
 * @param off points off the healthy model
 */
export function standingDiagnosis(
  netlist: Netlist,
  explanations: readonly Explanation[],
  off: readonly string[],
): StandingDiagnosis {
  const possible = groups(netlist, explanations)
    .map((list) => asOne(netlist, list))
    .filter((f) => f.share >= WORTH_A_LINE)
    .sort((a, b) => b.share - a.share);
  const first = possible[0];
  const named = first && first.share > NAMED && first.explains.length > 0 && first.causes.length > 0 ? first : null;
  return {
    named,
    possible: named ? possible.slice(1) : possible,
    unknown: total(explanations.filter((e) => e.unknown)),
    healthy: total(explanations.filter((e) => !e.unknown && e.faults.length === 0)),
    off: [...off],
  };
}

/** Is the act of every cause a thing that is done now: set, restored, checked, without a stop? */
export const actsNow = (ids: readonly CauseId[]): boolean => ids.every((id) => !causes[id].act.stop);
