/** Which part do the metals come from? Materials per component against which metals rose and which did not. */
import type { ComponentKind } from "../equipment/kinds";
import { analytes, type WearMetalId } from "./analytes";

export interface Material {
  metal: WearMetalId;
  /** What of the component is made of it. */
  part: string;
}

/** Usual materials where none are stated (common practice; the maker's list goes first). */
export const usualMaterials: Partial<Record<ComponentKind, readonly Material[]>> = {
  axialPistonPump: [{ metal: "iron", part: "shaft, pistons and swashplate" }, { metal: "copper", part: "bronze slippers and port plate" }, { metal: "tin", part: "bronze slippers and port plate" }],
  pistonMotor: [{ metal: "iron", part: "shaft, pistons and cam" }, { metal: "copper", part: "bronze slippers and port plate" }, { metal: "tin", part: "bronze slippers and port plate" }],
  gearPump: [{ metal: "aluminium", part: "housing and bushes" }, { metal: "iron", part: "gears and shaft" }, { metal: "lead", part: "bearing liners" }],
  proportionalValve: [{ metal: "iron", part: "spool and bore" }],
  directionalValve: [{ metal: "iron", part: "spool and bore" }],
  reliefValve: [{ metal: "iron", part: "cone and seat" }],
  unloaderValve: [{ metal: "iron", part: "cone and seat" }],
  loadHoldingValve: [{ metal: "iron", part: "cone and seat" }],
  cylinder: [{ metal: "chromium", part: "rod plating" }, { metal: "iron", part: "barrel" }, { metal: "copper", part: "gland bush" }],
};

export interface PartSuspect {
  componentId: string;
  name: string;
  /** Share of probability, given what is compared. */
  share: number;
  /** Parts of it made of what rose. */
  parts: string[];
  /** Does its own reading say so too? */
  agrees: boolean;
}

export interface PartComponent {
  componentId: string;
  name: string;
  kind: string;
  /** Stated for this component; empty: usual ones of its kind. */
  materials: readonly Material[];
  /** A case drain, leakage or load test of it got worse since about then; null: it has no such reading. */
  worse: boolean | null;
}

/** How often a metal shows when the part made of it wears; when it does not. A pump or motor moves most. */
const SHOWS = 0.85;
const SHOWS_ANYWAY = 0.07;
const moves: Partial<Record<ComponentKind, number>> = { axialPistonPump: 1, pistonMotor: 1, gearPump: 1, cylinder: 0.5, proportionalValve: 0.35, directionalValve: 0.25, loadHoldingValve: 0.15, reliefValve: 0.2, unloaderValve: 0.2 };
/** Odds that a component's own reading has got worse when it is the one that wears, and when it is not. */
const WORSE_IF_SO = 0.8;
const WORSE_IF_NOT = 0.12;
const NONE_OF_THESE = 0.08;

/**
 * Shares by Bayes over the circuit's components, with "none of these" left over. Metals not reported are left out.
 * Several components may wear at once; the shares then say who explains the metals best.
 */
export function partSuspects(rose: readonly WearMetalId[], stayed: readonly WearMetalId[], components: readonly PartComponent[]): { suspects: PartSuspect[]; none: number } {
  if (rose.length === 0) return { suspects: [], none: 1 };
  const scored = components.map((c) => {
    const materials = c.materials.length > 0 ? c.materials : (usualMaterials[c.kind as ComponentKind] ?? []);
    const has = (metal: WearMetalId) => materials.some((m) => m.metal === metal);
    let odds = moves[c.kind as ComponentKind] ?? 0;
    for (const metal of rose) odds *= has(metal) ? SHOWS : SHOWS_ANYWAY;
    for (const metal of stayed) odds *= has(metal) ? 1 - SHOWS : 1 - SHOWS_ANYWAY;
    if (c.worse !== null) odds *= c.worse ? WORSE_IF_SO : 1 - WORSE_IF_SO;
    else odds *= c.worse === null ? 0.5 : 1;
    return { c, odds, parts: [...new Set(materials.filter((m) => rose.includes(m.metal)).map((m) => m.part))] };
  });
  const noneOdds = NONE_OF_THESE * rose.reduce((p) => p * SHOWS, 1) * stayed.reduce((p) => p * (1 - SHOWS_ANYWAY), 1) * components.reduce((p, c) => p * (c.worse === true ? WORSE_IF_NOT : 1), 1);
  // several of one kind share their readings: the sum is what they are weighed against
  const total = scored.reduce((sum, s) => sum + s.odds, noneOdds);
  return {
    suspects: scored.filter((s) => s.odds / total >= 0.02).map((s) => ({ componentId: s.c.componentId, name: s.c.name, share: s.odds / total, parts: s.parts, agrees: s.c.worse === true })).sort((a, b) => b.share - a.share),
    none: noneOdds / total,
  };
}

/** "iron, copper and tin". */
export function metalList(metals: readonly WearMetalId[]): string {
  const names = metals.map((m) => analytes[m].short);
  return names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}
