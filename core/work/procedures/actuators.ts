/** Cylinders, hoses and accumulators. Common practice; the manufacturer's document goes first. */
import {
  backToWork,
  cautions,
  closing,
  linesOff,
  linesOn,
  lookFirst,
  makeSafe,
  marks,
  prove,
  smallIn,
  smallOut,
  step,
  tighten,
  turnsFreely,
  unlock,
} from "../blocks";
import type { WorkProcedure, WorkStep } from "../types";

/** Air out of a cylinder: full strokes without load, level, again. */
const bleeding: readonly WorkStep[] = [
  step("no-load", "No load on the cylinder; everybody clear.", {
    hold: "a cylinder full of air springs",
    caution: cautions.load,
  }),
  step("strokes", "Full strokes both ways, slowly, about three times; level filled up between."),
  step("quiet", "Moves without spring or jerk; no foam in the tank.", {
    ask: {
      kind: "choice",
      label: "Air",
      options: [
        { id: "out", label: "out" },
        { id: "in", label: "still in", stops: "Stroke and fill up again; look for the place where air enters." },
      ],
    },
  }),
];

export const actuatorProcedures: readonly WorkProcedure[] = [
  {
    id: "renew-seals-cylinder",
    title: "Renew the seals of a cylinder",
    purpose: "A piston or rod seal that leaks, proved by a holding test or a weep port.",
    kinds: ["cylinder"],
    fits: ["repair", "replacement"],
    cautions: [cautions.load, cautions.energy, cautions.licensed],
    renew: ["piston seals and guide rings", "rod seal and wiper", "static seals that were opened"],
    phases: [
      {
        title: "Before",
        steps: [
          step("before", "Holding test or weeps before, in drops a minute at each port.", {
            ask: { kind: "text", label: "Result" },
          }),
        ],
      },
      makeSafe([], { drains: true }),
      {
        title: "Open it",
        steps: [
          ...linesOff("rod side, bore side"),
          step("bench", "On a clean bench, parts laid out in order."),
          ...lookFirst,
          smallOut,
          step("surfaces", "Bore and rod looked at along and across: scores, pits, steps. Findings written down.", {
            ask: {
              kind: "choice",
              label: "Bore and rod",
              options: [
                { id: "good", label: "good" },
                { id: "polished", label: "polished within the manufacturer's rule" },
                { id: "bad", label: "scored or pitted", stops: "New seals do not hold on it: replace the part." },
              ],
            },
          }),
        ],
      },
      {
        title: "Close it",
        steps: [
          step(
            "seals",
            "Seals one by one: groove clean, direction of lips and cups as on the drawing and a photograph before; system oil.",
            {
              photo: true,
              hold: "a lip the wrong way round holds nothing",
            },
          ),
          smallIn,
          tighten("Gland and head"),
          turnsFreely,
          ...linesOn,
          marks,
        ],
      },
      unlock,
      { title: "Bleed", steps: bleeding },
      closing(),
      prove,
    ],
  },
  {
    id: "bleed-cylinders",
    title: "Bleed cylinders",
    purpose: "After a line or cylinder was opened, or where a load springs.",
    kinds: ["cylinder"],
    fits: ["inspection"],
    cautions: [cautions.load, cautions.injection],
    renew: [],
    phases: [
      {
        title: "Bleed",
        steps: [
          step("level-first", "Level read with the actuators in the stated position."),
          ...bleeding,
          step("level-again", "Level again, actuators in the stated position."),
        ],
      },
    ],
  },
  {
    id: "check-hoses",
    title: "Check and renew hoses",
    purpose: "Hoses at their longest life, or chafed, weeping, blistered, too near to what moves.",
    kinds: ["other", "cylinder", "axialPistonPump", "gearPump", "directionalValve"],
    fits: ["inspection", "repair"],
    cautions: [cautions.injection, cautions.energy, cautions.load],
    renew: ["seals of each end that was opened"],
    phases: [
      {
        title: "Look, under no pressure",
        steps: [
          step("age", "Age and rating of each hose against its tag and the record.", { ask: { kind: "lines" } }),
          step("outside", "Cover, ends, bends, routing clear of moving parts through the whole stroke.", {
            photo: true,
          }),
        ],
      },
      makeSafe(),
      {
        title: "Renew",
        steps: [
          ...linesOff("highest first"),
          step("new", "New hoses: rating, bore, length and ends against the old ones; date of making.", {
            hold: "a hose of a lower rating fits too",
            ask: { kind: "text", label: "Rating and date" },
          }),
          step("flushed", "New hoses blown and flushed clean, capped until fitted."),
          ...linesOn,
          step("twist", "No twist: the line along the hose runs straight."),
          tighten("Ends"),
          marks,
        ],
      },
      backToWork(),
    ],
  },
  {
    id: "recharge-accumulator",
    title: "Recharge an accumulator",
    purpose: "Pre-charge below its band, or short cycles.",
    kinds: ["accumulator"],
    fits: ["repair", "inspection"],
    cautions: [
      "Dry nitrogen only, never oxygen or air.",
      cautions.energy,
      "Pressure vessels follow local codes; a licensed person where they ask for one.",
    ],
    renew: ["valve core seal", "cap"],
    phases: [
      makeSafe(),
      {
        title: "Charge",
        steps: [
          step("oil-out", "Oil side at zero and open to tank.", {
            hold: "gas is read against no oil pressure only",
            alters: "Accumulator bleed open",
          }),
          step("found", "Pre-charge as found, with the gas temperature.", {
            ask: { kind: "value", label: "Pre-charge found", quantity: "pressure" },
          }),
          step("kit", "Charging kit and regulator rated for the bottle; nitrogen.", {
            hold: "oil and oxygen explode",
            ask: {
              kind: "choice",
              label: "Gas",
              options: [
                { id: "n2", label: "dry nitrogen" },
                { id: "other", label: "something else", stops: "Only dry nitrogen." },
              ],
            },
          }),
          step("charged", "Charged slowly; read again when the temperature is even.", {
            ask: { kind: "value", label: "Pre-charge set", quantity: "pressure" },
          }),
          step("soap", "Valve tested with leak spray, cap on."),
          step("bleed-shut", "Bleed shut again.", { putsBack: "oil-out" }),
        ],
      },
      backToWork(),
      prove,
    ],
  },
];
