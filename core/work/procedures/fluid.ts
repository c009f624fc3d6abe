/** Oil, elements, coolers. Common practice; what parts and seals permit comes from their manufacturers. */
import { backToWork, cautions, closing, lookFirst, makeSafe, prove, step, tighten, unlock } from "../blocks";
import type { WorkPhase, WorkProcedure, WorkStep } from "../types";
import type { ComponentKind } from "../../equipment/kinds";

const anywhere: readonly ComponentKind[] = ["other", "filter", "axialPistonPump", "gearPump", "closedLoopPump"];

const draining: readonly WorkStep[] = [
  step("hot", "Drained hot, coolers and cylinders too.", { caution: cautions.hot }),
  ...lookFirst,
  step("wiped", "Tank wiped with lint-free cloth; strainer cleaned."),
  step("element", "New element in the return and in the case line."),
];

const filling: WorkPhase = {
  title: "Fill and flush",
  steps: [
    step("bottle", "Name and grade on the drum read aloud against the sheet.", {
      hold: "the wrong fluid is found by the seals",
      ask: { kind: "text", label: "Fluid and batch" },
      photo: true,
    }),
    step("filter-fill", "Filled through a filter, filler wiped first.", {
      ask: { kind: "value", label: "Filled", quantity: "litresFilled" },
    }),
    step("turbulent", "Flushed warm at turbulent flow; every actuator stroked."),
    step("two-samples", "Two samples in a row meet the target.", {
      hold: "one clean sample is chance",
      ask: { kind: "text", label: "Codes of both" },
    }),
    step("label", "Label on the tank."),
  ],
};

export const fluidProcedures: readonly WorkProcedure[] = [
  {
    id: "change-fluid-type",
    title: "Change the fluid type",
    purpose: "Another kind of fluid; also the way back from a stop-gap or cold-season fill.",
    kinds: anywhere,
    fits: ["repair"],
    cautions: [cautions.hot, "Wrong fluid is not a compromise: seals swell, pumps slip."],
    renew: ["filter elements", "seals that the new fluid does not suit"],
    phases: [
      {
        title: "May it be",
        steps: [
          step("permits", "What every part and seal of the circuit permits, by their manufacturers.", {
            hold: "one seal that it does not suit stops the machine",
            ask: { kind: "text", label: "Documents" },
          }),
          step("left", "What is left behind mixes: share computed (Calculators), within what both fluids allow.", {
            ask: { kind: "text", label: "Share left" },
          }),
        ],
      },
      makeSafe([], { drains: true }),
      { title: "Drain", steps: draining },
      unlock,
      filling,
      closing(),
      prove,
    ],
  },
  {
    id: "change-oil",
    title: "Change the oil and flush",
    purpose: "Oil condemned by analysis, or past its longest interval.",
    kinds: anywhere,
    fits: ["repair", "inspection"],
    cautions: [cautions.hot, cautions.energy],
    renew: ["filter elements", "breather"],
    phases: [makeSafe([], { drains: true }), { title: "Drain", steps: draining }, unlock, filling, closing()],
  },
  {
    id: "change-element",
    title: "Change a filter element",
    purpose: "Differential pressure at its limit, or debris suspected.",
    kinds: ["filter"],
    fits: ["replacement"],
    cautions: [cautions.energy, cautions.hot],
    renew: ["bowl seal"],
    phases: [
      makeSafe(),
      {
        title: "Element",
        steps: [
          step("bowl", "Bowl off over a tray, not tipped out.", { caution: cautions.hot }),
          ...lookFirst,
          step("cut", "Element opened and spread where debris is suspected.", {
            ask: {
              kind: "choice",
              label: "Element",
              options: [
                { id: "usual", label: "usual dirt" },
                { id: "metal", label: "metal: a debris event is opened under Oil" },
                { id: "collapsed", label: "collapsed: what passed is looked for downstream" },
              ],
            },
            photo: true,
          }),
          step("rating", "New element: number, rating and collapse pressure as the register asks.", {
            hold: "an element of a coarser rating fits too",
            ask: { kind: "text", label: "Part number" },
          }),
          tighten("Bowl"),
          step("indicator", "Indicator or switch tried."),
        ],
      },
      backToWork(),
      {
        title: "Prove it",
        steps: [
          step("clean-dp", "Differential pressure, oil warm, at the stated flow: the clean value of the new element.", {
            hold: "the next change is judged from it",
            ask: { kind: "value", label: "Differential pressure", quantity: "pressureDrop" },
          }),
        ],
      },
    ],
  },
  {
    id: "cooler-bypass",
    title: "Thermostatic cooler bypass",
    purpose: "A circuit that runs hot with no temperature drop over its cooler.",
    kinds: ["other"],
    fits: ["repair", "inspection"],
    cautions: [cautions.hot, cautions.energy],
    renew: ["cover seal"],
    phases: [
      {
        title: "Before",
        steps: [
          step("drop-before", "Temperature drop over the cooler, oil hot.", {
            ask: { kind: "value", label: "Drop", quantity: "temperatureDifference" },
          }),
        ],
      },
      makeSafe(),
      {
        title: "Bypass",
        steps: [
          ...lookFirst,
          step("thermo", "Element moves in warm water; seat clean.", {
            ask: {
              kind: "choice",
              label: "Element",
              options: [
                { id: "cleaned", label: "cleaned, moves" },
                { id: "renewed", label: "renewed" },
                { id: "full", label: "set to full-time cooling on purpose: a modification, cold start checked" },
              ],
            },
          }),
          tighten("Cover"),
        ],
      },
      backToWork(),
      {
        title: "Prove it",
        steps: [
          step("drop-after", "Temperature drop again, oil as hot.", {
            hold: "the same measurement proves it",
            ask: { kind: "value", label: "Drop", quantity: "temperatureDifference" },
          }),
        ],
      },
    ],
  },
];
