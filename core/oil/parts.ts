/** Which part do the metals come from? Materials per component against which metals rose and which did not. */
import type { ComponentKind } from "../equipment/kinds";
import { posterior } from "../numeric/bayes";
import { analytes, type WearMetalId } from "./analytes";

export interface Material {
  metal: WearMetalId;
  /** What of the component is made of it. */
  part: string;
}

/** Usual materials where none are stated (common practice; the maker's list goes first). */
export const usualMaterials: Partial<Record<ComponentKind, readonly Material[]>> = {
  axialPistonPump: [
    { metal: "iron", part: "shaft, pistons and swashplate" },
    { metal: "copper", part: "bronze slippers and port plate" },
    { metal: "tin", part: "bronze slippers and port plate" },
  ],
  closedLoopPump: [
    { metal: "iron", part: "shaft, pistons and swashplate" },
    { metal: "copper", part: "bronze slippers and port plate" },
    { metal: "tin", part: "bronze slippers and port plate" },
  ],
  pistonMotor: [
    { metal: "iron", part: "shaft, pistons and cam" },
    { metal: "copper", part: "bronze slippers and port plate" },
    { metal: "tin", part: "bronze slippers and port plate" },
  ],
  gearPump: [
    { metal: "aluminium", part: "housing and bushes" },
    { metal: "iron", part: "gears and shaft" },
    { metal: "lead", part: "bearing liners" },
  ],
  proportionalValve: [{ metal: "iron", part: "spool and bore" }],
  directionalValve: [{ metal: "iron", part: "spool and bore" }],
  reliefValve: [{ metal: "iron", part: "cone and seat" }],
  unloaderValve: [{ metal: "iron", part: "cone and seat" }],
  reducingValve: [{ metal: "iron", part: "spool and bore" }],
  flushingValve: [{ metal: "iron", part: "spool and bore" }],
  loadHoldingValve: [{ metal: "iron", part: "cone and seat" }],
  cylinder: [
    { metal: "chromium", part: "rod plating" },
    { metal: "iron", part: "barrel" },
    { metal: "copper", part: "gland bush" },
  ],
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
const moves: Partial<Record<ComponentKind, number>> = {
  axialPistonPump: 1,
  closedLoopPump: 1,
  pistonMotor: 1,
  gearPump: 1,
  cylinder: 0.5,
  proportionalValve: 0.35,
  directionalValve: 0.25,
  loadHoldingValve: 0.15,
  reliefValve: 0.2,
  unloaderValve: 0.2,
  reducingValve: 0.2,
  flushingValve: 0.2,
};
/** How often a component's own reading has got worse when it is the one that wears, and when it is not. */
const WORSE_IF_SO = 0.8;
const WORSE_IF_NOT = 0.12;
const NONE_OF_THESE = 0.08;
/** Below this share a component is not named. */
const WORTH_A_LINE = 0.02;

/**
 * Shares by Bayes: which one component wears, or none of these. Each possibility is weighed by how well it explains
 * all of the evidence: the metals that rose and those that stayed, and the readings of every component that has one,
 * whether it is the suspect or not. Metals not reported are left out. Several may wear at once; the shares then say
 * who explains the metals best.
 */
export function partSuspects(
  rose: readonly WearMetalId[],
  stayed: readonly WearMetalId[],
  components: readonly PartComponent[],
): { suspects: PartSuspect[]; none: number } {
  if (rose.length === 0) return { suspects: [], none: 1 };
  const made = components.map((c) => {
    const materials = c.materials.length > 0 ? c.materials : (usualMaterials[c.kind as ComponentKind] ?? []);
    return { c, materials, has: (metal: WearMetalId) => materials.some((m) => m.metal === metal) };
  });
  // which component wears, in their order; last, none of these
  const priors = [...components.map((c) => moves[c.kind as ComponentKind] ?? 0), NONE_OF_THESE];
  const each = (of: (wearing: (typeof made)[number] | null) => number) =>
    [...made, null].map((wearing) => Math.log(of(wearing)));
  const readings = components
    .filter((c) => c.worse !== null)
    .map((c) =>
      each((wearing) => {
        const chance = wearing?.c === c ? WORSE_IF_SO : WORSE_IF_NOT;
        return c.worse ? chance : 1 - chance;
      }),
    );
  // something that is not among them is made of whatever rose
  const metals = [
    ...rose.map((m) => each((wearing) => (wearing === null || wearing.has(m) ? SHOWS : SHOWS_ANYWAY))),
    ...stayed.map((m) => each((wearing) => 1 - (wearing?.has(m) ? SHOWS : SHOWS_ANYWAY))),
  ];
  const shares = posterior(priors, [...readings, ...metals]);
  return {
    suspects: made
      .map(({ c, materials }, i) => ({
        componentId: c.componentId,
        name: c.name,
        share: shares[i]!,
        parts: [...new Set(materials.filter((m) => rose.includes(m.metal)).map((m) => m.part))],
        agrees: c.worse === true,
      }))
      .filter((s) => s.share >= WORTH_A_LINE)
      .sort((x, y) => y.share - x.share),
    none: shares.at(-1)!,
  };
}

/** "iron, copper and tin". */
export function metalList(metals: readonly WearMetalId[]): string {
  const names = metals.map((m) => analytes[m].short);
  return names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}
