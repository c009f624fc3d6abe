/** Does a fluid suit a component? Viscosity at start, at reading and when hottest against its range, and the type of fluid. */
import { kinematicViscosity, type ViscosityGrade } from "./viscosity";

export const fluidTypes = {
  mineral: "mineral oil",
  hfa: "water emulsion (HFA)",
  hfc: "water glycol (HFC)",
  hfd: "water-free synthetic (HFD)",
  ester: "ester",
} as const;
export type FluidType = keyof typeof fluidTypes;
export const fluidTypeIds = Object.keys(fluidTypes) as FluidType[];

export interface ComponentFluidNeed {
  /** Kinematic viscosity in mm²/s: least at the hottest, best range at work, greatest at a cold start. The maker's figures. */
  least: number;
  bestLow: number;
  bestHigh: number;
  greatestAtStart: number;
  types: readonly FluidType[];
}

/** Usual range of an axial piston pump where the maker's is not at hand (common practice). */
export const usualPumpNeed: ComponentFluidNeed = {
  least: 10,
  bestLow: 16,
  bestHigh: 36,
  greatestAtStart: 1000,
  types: ["mineral"],
};

export interface FluidFinding {
  at: "start" | "working" | "hottest" | "type";
  temperature: number | null;
  viscosity: number | null;
  verdict: "good" | "outsideBest" | "bad";
  message: string;
}

/**
 * Findings in the order start, working, hottest, type; temperatures in °C. Bad ones must be put right before
 * the component runs.
 * @param fluid viscosities in mm²/s and its type
 * @param need the component's range of viscosities, mm²/s, and what it is made for
 * @param temperatures °C
 * @throws {RangeError} for a range whose ends do not follow one another
 */
export function fluidSuitability(
  fluid: ViscosityGrade & { type: FluidType },
  need: ComponentFluidNeed,
  temperatures: { start: number; working: number; hottest: number },
): FluidFinding[] {
  if (!(need.least < need.bestHigh && need.bestLow <= need.bestHigh && need.bestHigh <= need.greatestAtStart))
    throw new RangeError("The range runs least, best low, best high, greatest at start.");
  const { start, working, hottest } = temperatures;
  const nu = {
    start: kinematicViscosity(fluid, start),
    working: kinematicViscosity(fluid, working),
    hottest: kinematicViscosity(fluid, hottest),
  };
  const inBest = nu.working >= need.bestLow && nu.working <= need.bestHigh;
  const able = nu.working >= need.least && nu.working <= need.greatestAtStart;
  return [
    {
      at: "start",
      temperature: start,
      viscosity: nu.start,
      verdict: nu.start <= need.greatestAtStart ? "good" : "bad",
      message:
        nu.start <= need.greatestAtStart
          ? "thin enough to start"
          : "too thick to start: it would starve the inlet; warm it first",
    },
    {
      at: "working",
      temperature: working,
      viscosity: nu.working,
      verdict: inBest ? "good" : able ? "outsideBest" : "bad",
      message: inBest
        ? "in the best range at work"
        : nu.working < need.bestLow
          ? "thinner than best at work: it leaks and wears more"
          : "thicker than best at work: it wastes power",
    },
    {
      at: "hottest",
      temperature: hottest,
      viscosity: nu.hottest,
      verdict: nu.hottest >= need.least ? "good" : "bad",
      message: nu.hottest >= need.least ? "still carries when hottest" : "too thin when hottest: the film breaks",
    },
    {
      at: "type",
      temperature: null,
      viscosity: null,
      verdict: need.types.includes(fluid.type) ? "good" : "bad",
      message: need.types.includes(fluid.type)
        ? `${fluidTypes[fluid.type]} is a type it is made for`
        : `it is not made for ${fluidTypes[fluid.type]}; ask the manufacturer`,
    },
  ];
}
