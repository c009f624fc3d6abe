/** Valves that hold a load: repaired, or another kind fitted. Common practice; the manufacturer's document goes first. */
import {
  backToWork,
  cautions,
  linesOff,
  linesOn,
  lookFirst,
  makeSafe,
  marks,
  smallIn,
  smallOut,
  step,
  tighten,
} from "../blocks";
import type { WorkProcedure, WorkStep } from "../types";

/** A valve that holds hides a leak across the piston behind it; that cause is looked at again. */
const leakOpen = step(
  "leak-open",
  "Where the valve only masks a leak across the piston: that cause stays open with a date.",
  {
    ask: { kind: "day", label: "Look again on", optional: true },
    interim: true,
  },
);

const lettersOnBody = step("marking", "Marking on the body noted: which variant is it?", {
  ask: { kind: "text", label: "Marking" },
  photo: true,
});

const holding = (id: string, text: string, hold?: string): WorkStep =>
  step(id, text, { ask: { kind: "text", label: "Pressures and time" }, ...(hold && { hold }) });

const setTo = (text: string): WorkStep =>
  step("setting", text, {
    ask: { kind: "value", label: "Setting", quantity: "pressure" },
    hold: "a holding valve set below its load opens with it",
  });

const provedAgain = holding(
  "holding-after",
  "Holding test again: both pressures, same load and time.",
  "the same test proves it",
);

const takenUpSlowly = step("slow", "Load taken up slowly, props still in place; then lowered by command, no jump.", {
  caution: cautions.load,
});

export const loadHoldingProcedures: readonly WorkProcedure[] = [
  {
    id: "repair-load-holding",
    title: "Repair a load-holding valve",
    purpose:
      "A load that creeps or comes down after standing, and the valve is proved to be the way. A valve that masks a leak is an interim repair.",
    kinds: ["loadHoldingValve"],
    fits: ["repair", "replacement"],
    cautions: [cautions.load, cautions.energy, cautions.licensed],
    renew: ["every seal of the cartridge"],
    phases: [
      {
        title: "Before",
        steps: [holding("holding-before", "Holding test: both pressures, margin for this area ratio.")],
      },
      makeSafe(),
      {
        title: "Valve",
        steps: [
          lettersOnBody,
          step("out", "Cartridge out, slowly: what is shut in lets go.", { caution: cautions.injection }),
          ...lookFirst,
          smallOut,
          step("seat", "Seat and poppet looked at; never polished.", {
            ask: {
              kind: "choice",
              label: "Seat",
              options: [
                { id: "good", label: "good, debris found and removed" },
                { id: "renewed", label: "marked: renewed" },
              ],
            },
          }),
          smallIn,
          tighten("Cartridge"),
          setTo("Setting by the manufacturer, sealed."),
        ],
      },
      backToWork([takenUpSlowly]),
      {
        title: "Prove it",
        steps: [provedAgain, leakOpen],
      },
    ],
  },
  {
    id: "counterbalance-for-check",
    title: "Fit a counterbalance valve instead of a pilot-operated check",
    purpose:
      "A load that jumps on the pilot-operated check as it is lowered; a bulletin that asks for it. A modification.",
    kinds: ["loadHoldingValve"],
    fits: ["replacement"],
    cautions: [cautions.load, cautions.energy, cautions.licensed],
    renew: ["every seal of the cartridge", "seals of the lines that were off"],
    phases: [
      {
        title: "Before",
        steps: [
          lettersOnBody,
          holding("holding-before", "Holding test with the old valve: both pressures, margin for this area ratio."),
        ],
      },
      makeSafe(),
      {
        title: "Valve",
        steps: [
          ...linesOff("pilot, service line"),
          step("out", "Old valve off, slowly: what is shut in lets go.", { caution: cautions.injection }),
          ...lookFirst,
          step("code", "Type code of the new one, its pilot ratio and its way through: load side to load side.", {
            hold: "a counterbalance valve the wrong way round holds nothing",
            ask: { kind: "text", label: "Code and ratio" },
            photo: true,
          }),
          ...linesOn,
          tighten("Valve and lines"),
          setTo("Setting by the manufacturer, sealed: above what this load makes."),
          marks,
        ],
      },
      backToWork([takenUpSlowly]),
      {
        title: "Prove it",
        steps: [
          provedAgain,
          step("modification", "Recorded as a modification, with the new marking; trends split here.", {
            ask: { kind: "text", label: "New marking" },
          }),
          leakOpen,
        ],
      },
    ],
  },
];
