/** Valves: replaced, sealed, freed, set, added. Common practice; the manufacturer's document goes first. */
import {
  backToWork,
  cautions,
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
} from "../blocks";
import type { WorkProcedure, WorkStep } from "../types";

const electrical: readonly WorkStep[] = [
  step(
    "coil",
    "Voltage at the plug, magnetism (a steel rule is drawn), outside drive: looked at before the valve is blamed.",
    {
      ask: {
        kind: "choice",
        label: "Command side",
        options: [
          { id: "good", label: "good" },
          {
            id: "bad",
            label: "faulty",
            stops: "The command side is at fault: mend that first, the valve may be good.",
          },
        ],
      },
    },
  ),
];

function replaceValve(id: string, title: string, proportional: boolean): WorkProcedure {
  return {
    id,
    title,
    purpose: proportional
      ? "Null leakage, response or hysteresis beyond its limit, or a spool that sticks again."
      : "A spool or bore that is scored, or sticks again after it was freed.",
    kinds: proportional
      ? ["proportionalValve"]
      : ["directionalValve", "reducingValve", "flushingValve", "reliefValve", "unloaderValve"],
    fits: ["replacement"],
    cautions: [cautions.energy, cautions.load, cautions.injection],
    renew: ["every interface seal", "back-up rings"],
    phases: [
      makeSafe(electrical),
      {
        title: "Old valve off",
        steps: [
          step("plug", "Plug off, tagged.", { ask: { kind: "text", label: "Tag" } }),
          step("orientation", "Position and orientation photographed.", { photo: true }),
          step("bolts-off", "Bolts loosened crosswise; residual pressure let go under a rag before the last turn.", {
            caution: cautions.injection,
          }),
          ...lookFirst,
          step("face", "Mounting face clean and flat, no scratch across a port; ports covered.", {
            ask: { kind: "count", label: "Covers set" },
          }),
        ],
      },
      {
        title: "New valve on",
        steps: [
          step("code", "Type code, spool, voltage and orifice of the new one against the old one's plate.", {
            hold: "a valve of another spool fits too",
            ask: { kind: "text", label: "Code" },
          }),
          step("seals", "New seals in their grooves, none lost from its seat."),
          step("covers-back", "Covers counted back.", {
            hold: "a cover left in a port blocks it",
            ask: { kind: "count", label: "Covers back", equals: "face" },
          }),
          tighten("Mounting bolts"),
          marks,
          step("plug-on", "Plug on, at its tag."),
        ],
      },
      backToWork([
        step("low-first", "Low pressure first; actuators stroked slowly both ways."),
        ...(proportional
          ? [
              step("null", "Amplifier: null, gains and ramps by the manufacturer's sheet.", {
                ask: { kind: "text", label: "Null and gains" },
              }),
            ]
          : []),
        step("both-ways", "Shifts both ways by command, and by outside drive."),
      ]),
      prove,
    ],
  };
}

export const valveProcedures: readonly WorkProcedure[] = [
  replaceValve("replace-directional-valve", "Replace a directional or other valve on its plate", false),
  replaceValve("replace-proportional-valve", "Replace a proportional valve", true),
  {
    id: "free-spool",
    title: "Free and clean a spool that stood long",
    purpose: "A spool that sticks part-way. A stop-gap while the cause (water, varnish, long standing) is open.",
    kinds: ["directionalValve", "proportionalValve", "unloaderValve", "flushingValve", "reducingValve"],
    fits: ["repair"],
    cautions: [cautions.energy, cautions.load],
    renew: ["cover seal"],
    phases: [
      {
        title: "Command first",
        steps: [
          ...electrical,
          step("port-before", "Pressure at the test port under command.", {
            ask: { kind: "value", label: "Pressure", quantity: "pressure" },
          }),
        ],
      },
      makeSafe(),
      {
        title: "Free it",
        steps: [
          step("cover", "Cover off."),
          ...lookFirst,
          step("moved", "Spool moved by hand against its spring several times with clean oil.", {
            ask: {
              kind: "choice",
              label: "Comes back by itself",
              options: [
                { id: "yes", label: "yes" },
                { id: "no", label: "no", stops: "It is not free: replace it as a set with its bore." },
              ],
            },
          }),
          step("named", "What held it is named: varnish, debris, water, standing.", {
            ask: { kind: "text", label: "Cause" },
          }),
          tighten("Cover"),
        ],
      },
      backToWork(),
      {
        title: "Prove it, and keep the cause open",
        steps: [
          step("port-after", "Test port again, same command and oil temperature.", {
            hold: "the same test proves it",
            ask: { kind: "value", label: "Pressure", quantity: "pressure" },
          }),
          step("interim", "A stop-gap: the day to look again is named, and an exercise plan made.", {
            hold: "a stop-gap that is forgotten is the next failure",
            ask: { kind: "day", label: "Look again on" },
            interim: true,
          }),
        ],
      },
    ],
  },
  {
    id: "set-unloader-relief",
    title: "Set an unloading valve and a relief valve",
    purpose: "Relief at or below the working control, or an unloader off its cut-in or cut-out.",
    kinds: ["unloaderValve", "reliefValve"],
    fits: ["repair"],
    cautions: [cautions.injection, "Settings and ratings come from the manufacturer's current manual."],
    renew: [],
    phases: [
      {
        title: "Ready",
        steps: [
          step("document", "Manufacturer's settings and the lowest line rating.", {
            ask: { kind: "text", label: "Number and revision" },
          }),
          step("rating", "Lowest line rating of what the relief protects.", {
            ask: { kind: "value", label: "Rating", quantity: "pressure" },
          }),
          step("gauge", "Gauge of the right range at the block.", { hold: "a gauge that bursts is the accident" }),
          step("found", "Settings as found.", { ask: { kind: "text", label: "Relief, cut-out, cut-in" } }),
        ],
      },
      {
        title: "Set them",
        steps: [
          step("nuts", "Lock nuts loose.", { alters: "Lock nuts loose" }),
          step("up", "Relief turned up out of the way, a known number of turns.", {
            hold: "never above the lowest line rating",
            ask: { kind: "text", label: "Turns" },
            alters: "Relief valve raised",
          }),
          step("cut-out", "Unloader to its cut-out at working speed.", {
            ask: { kind: "value", label: "Cut-out", quantity: "pressure" },
          }),
          step("cut-in", "Cut-in noted: it swings between the two.", {
            ask: { kind: "value", label: "Cut-in", quantity: "pressure" },
          }),
          step("down", "Relief down until the gauge shows that it takes over, then up by the stated gap.", {
            ask: { kind: "value", label: "Relief set", quantity: "pressure" },
            putsBack: "up",
          }),
          step("tight", "Lock nuts tight.", { putsBack: "nuts" }),
        ],
      },
      {
        title: "Prove it",
        steps: [
          step("cycles", "Ten cycles; cut-in and cut-out stay."),
          step("cool", "Temperature of both valves after 15 minutes: the relief stays cool.", {
            hold: "a warm relief valve carries the pump",
            ask: { kind: "value", label: "Relief valve", quantity: "temperature" },
          }),
        ],
      },
    ],
  },
  {
    id: "add-relief",
    title: "Add a relief valve to protect a line",
    purpose: "Peaks at the end of stroke beyond the line's rating, with no relief below it. A modification.",
    kinds: ["cylinder", "directionalValve", "other"],
    fits: ["repair"],
    cautions: [cautions.energy, cautions.load, cautions.injection],
    renew: ["seals on both ends of each adapter"],
    phases: [
      {
        title: "Before",
        steps: [
          step("peak-before", "Peak at the end of stroke logged, at least 1000 samples a second.", {
            hold: "what was not measured cannot be shown to be better",
            ask: { kind: "value", label: "Peak", quantity: "pressure" },
          }),
          step("choice", "Setting below the line's rating and above the working pressure; its flow suits the pump.", {
            ask: { kind: "value", label: "Setting", quantity: "pressure" },
          }),
        ],
      },
      makeSafe([step("bleed-screw", "Machine released by its own bleed screw; electrical fuse out.")]),
      {
        title: "Fit it",
        steps: [
          ...linesOff("pressure, return"),
          step("adapters", "Adapters with new seals on both ends; no tape on sealed ports."),
          step("clear-hoses", "Hoses clear of moving parts through the whole stroke.", { photo: true }),
          ...linesOn,
          tighten("Adapters and lines"),
          marks,
        ],
      },
      backToWork([step("strokes", "Full strokes both ways, card underneath.", { caution: cautions.injection })]),
      {
        title: "Prove it",
        steps: [
          step("peak-after", "Peak logged again, same stroke and speed.", {
            hold: "the same measurement proves it",
            ask: { kind: "value", label: "Peak", quantity: "pressure" },
          }),
          step("modification", "Recorded as a modification: trends of the circuit split here."),
        ],
      },
    ],
  },
  {
    id: "renew-seals-valve",
    title: "Renew the seals of a valve or bleed valve",
    purpose: "Oil at a weep port; the port tells which seal.",
    kinds: ["directionalValve", "proportionalValve", "loadHoldingValve", "reliefValve", "other"],
    fits: ["repair"],
    cautions: [cautions.energy, cautions.injection],
    renew: ["every seal that was disturbed"],
    phases: [
      {
        title: "Which seal",
        steps: [
          step("weep-before", "Drops a minute at the weep port, before.", {
            ask: { kind: "value", label: "Weep", quantity: "weep" },
          }),
        ],
      },
      makeSafe(),
      {
        title: "Seals",
        steps: [
          step("bench", "Opened on a clean bench, parts laid out in order."),
          ...lookFirst,
          smallOut,
          step("bore", "Bore looked at along and across: scores, pits, steps."),
          step(
            "one-by-one",
            "Seals one by one: groove clean, lips as on the drawing and the photograph, back-up ring away from the pressure, system oil.",
            {
              photo: true,
            },
          ),
          smallIn,
          tighten("Body"),
          turnsFreely,
        ],
      },
      backToWork(),
      {
        title: "Prove it",
        steps: [
          step("weep-after", "Drops a minute at the same port, same pressure.", {
            hold: "the same test proves it",
            ask: { kind: "value", label: "Weep", quantity: "weep" },
          }),
        ],
      },
    ],
  },
];
