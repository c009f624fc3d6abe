/** Does a fluid suit the parts of a circuit: of the fill that is in, and of one that is about to be poured. */
import {
  fluidSuitability,
  fluidTypes,
  usualPumpNeed,
  type ComponentFluidNeed,
  type FluidFinding,
  type FluidType,
} from "../fluid/suitability";
import { kinematicViscosity } from "../fluid/viscosity";
import { formatNumber } from "../units/format";
import type { NamedFluid } from "./fill";

/** Kinds that have a usual range of viscosity where the maker's is not at hand. */
const ROTATING = ["axialPistonPump", "pistonMotor", "gearPump", "closedLoopPump"];
/** Oil at work and at its hottest where nobody noted a temperature, °C (common practice). */
const USUAL = { working: 50, hottest: 65 };
/** From this factor on a thinner or thicker fluid changes what leaks and slips enough to be told. */
const TOLD_FACTOR = 1.3;

export interface SuitingPart {
  id: string;
  name: string;
  kind: string;
  fluidNeed: ComponentFluidNeed | null;
}

/** °C; null: not known. */
export interface OilTemperatures {
  start: number | null;
  working: number | null;
  hottest: number | null;
}

export interface PartSuits {
  componentId: string;
  name: string;
  /** By the usual range of such parts, not the maker's. */
  usual: boolean;
  /** Temperatures that nobody noted: the usual ones are taken. */
  assumed: boolean;
  findings: FluidFinding[];
}

/**
 * Findings of a fluid at each part that has a need, or a usual one.
 * @param fluid viscosities in mm²/s and its type
 * @param parts of the circuit
 * @param temperatures of its oil; where none is known 50 °C at work and 65 °C at its hottest are taken
 * @returns a list in the order of the parts; a cold start is judged where its temperature is stated
 * @throws {RangeError} for a need whose ends do not follow one another
 */
export function suitsParts(
  fluid: { kv40: number; kv100: number; type: FluidType },
  parts: readonly SuitingPart[],
  { start, working, hottest }: OilTemperatures,
): PartSuits[] {
  const at = { working: working ?? USUAL.working, hottest: hottest ?? Math.max(USUAL.hottest, working ?? 0) };
  return parts
    .filter((c) => c.fluidNeed || ROTATING.includes(c.kind))
    .map((c) => ({
      componentId: c.id,
      name: c.name,
      usual: c.fluidNeed === null,
      assumed: working === null || hottest === null,
      findings: fluidSuitability(fluid, c.fluidNeed ?? { ...usualPumpNeed, types: ["mineral", "ester"] }, {
        start: start ?? at.working,
        ...at,
      }).filter((f) => f.at !== "start" || start !== null),
    }));
}

/**
 * What speaks against pouring a fluid into a circuit: asked before it is on record. The manufacturers decide.
 * @param added what is to be poured
 * @param there what is in; null: nothing is stated
 * @param parts of the circuit
 * @param temperatures of its oil, °C
 * @returns sentences; null: nothing speaks against it
 * @throws {RangeError} for a need whose ends do not follow one another
 * @example
 * const [oil, emulsion] = [{ id: "a", name: "VG 46", type: "mineral", kv40: 46, kv100: 6.8 }, { id: "b", name: "HFA", type: "hfa", kv40: 1.2, kv100: 0.6 }];
 * const parts = [{ id: "p", name: "Pump", kind: "gearPump", fluidNeed: null }];
 * const warm = { start: null, working: 50, hottest: 60 };
 * [pouring(oil, oil, parts, warm), pouring(emulsion, oil, parts, warm).slice(0, 33)] // [null, "HFA is not made for this circuit."]
 */
export function pouring(
  added: NamedFluid,
  there: NamedFluid | null,
  parts: readonly SuitingPart[],
  temperatures: OilTemperatures,
): string | null {
  const against = suitsParts(added, parts, temperatures).flatMap(({ name, usual, assumed, findings }) => {
    const bad = findings.filter((f) => f.verdict === "bad");
    if (bad.length === 0) return [];
    const what = bad.map((f) =>
      f.temperature === null || f.viscosity === null
        ? f.message
        : `${f.message} (${formatNumber(f.viscosity, 1)} mm²/s at ${formatNumber(f.temperature, 0)} °C` +
          `${assumed ? ", no temperature is noted" : ""})`,
    );
    return [`${name}: ${what.join("; ")}${usual ? ", by the usual range of such parts" : ""}.`];
  });
  if (against.length === 0) return null;
  return [`${added.name} is not made for this circuit. ${against.join(" ")}`, thinned(added, there, temperatures)]
    .filter(Boolean)
    .join(" ");
}

/** How what leaks and slips goes with the other viscosity, and what is left of the fluid before. */
function thinned(added: NamedFluid, there: NamedFluid | null, { working }: OilTemperatures): string {
  if (!there || there.id === added.id) return "";
  const at = working ?? USUAL.working;
  const factor = kinematicViscosity(there, at) / kinematicViscosity(added, at);
  const told =
    factor > TOLD_FACTOR
      ? `At ${formatNumber(at, 0)} °C it is ${formatNumber(factor, 1)} times thinner than ${there.name}: ` +
        "slip and leakage grow about as much, and flow is lost. "
      : factor < 1 / TOLD_FACTOR
        ? `At ${formatNumber(at, 0)} °C it is ${formatNumber(1 / factor, 1)} times thicker than ${there.name}: ` +
          "suction and cold starts suffer. "
        : "";
  const rest =
    there.type === added.type
      ? ""
      : `What stays of the ${fluidTypes[there.type]} in lines and actuators mixes with it: drain, flush, and ask both manufacturers.`;
  return `${told}${rest}`.trim();
}
