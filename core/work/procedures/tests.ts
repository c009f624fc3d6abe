/** Tests that take a part or a circuit apart. Common practice; the manufacturer's document goes first. */
import { cautions, makeSafe, prove, smallIn, smallOut, step } from "../blocks";
import type { WorkProcedure } from "../types";

export const testProcedures: readonly WorkProcedure[] = [
  {
    id: "bench-bores",
    title: "Try the bores of a valve on the vacuum bench",
    purpose: "A body that is to be kept: which bore is worn, and what a new valve or an oversize one gains in it.",
    kinds: ["directionalValve", "proportionalValve", "unloaderValve", "reducingValve", "flushingValve"],
    fits: ["inspection", "repair"],
    cautions: ["Washing fluid and compressed air: eye protection, no flame.", cautions.injection],
    renew: ["seals that were opened"],
    phases: [
      {
        title: "Bench",
        steps: [
          step("bench-low", "Open port reads the bench's low mark.", {
            hold: "a bench that is off judges every bore wrongly",
            ask: { kind: "text", label: "Low mark read" },
          }),
          step("bench-high", "Blocked port reads its high mark.", {
            hold: "a bench that is off judges every bore wrongly",
            ask: { kind: "text", label: "High mark read" },
          }),
          step("pass", "Pass mark of this bench, for this body.", { ask: { kind: "text", label: "Pass mark" } }),
        ],
      },
      {
        title: "Old part",
        steps: [
          step("old-part", "Off the machine by its own procedure; looked at and written down before it is washed.", {
            hold: "washed evidence is gone",
            photo: true,
          }),
          step("orifices", "Orifices that must be closed by a finger noted, port by port.", {
            ask: { kind: "text", label: "Ports and orifices" },
            photo: true,
          }),
          step("old", "Each port read twice, seal pad flat; nought means that it was not seated.", {
            hold: "without the old part's figure no gain can be shown",
            ask: { kind: "text", label: "Port and both readings, each" },
          }),
        ],
      },
      {
        title: "New part or oversize",
        steps: [
          step("size", "Reamer and valve size, where the bore is made larger; bore washed.", {
            ask: { kind: "text", label: "Sizes", optional: true },
          }),
          smallOut,
          smallIn,
          step("new-bench", "Same ports again with the new part, each read twice.", {
            hold: "the same test proves it",
            ask: { kind: "text", label: "Port and both readings, each" },
          }),
          step("warm", "A fault that comes only hot is not seen here: a warm test follows.", {
            ask: { kind: "text", label: "Warm test, on what day or by whom", optional: true },
          }),
        ],
      },
    ],
  },
  {
    id: "section-test",
    title: "Test a high-pressure circuit section by section",
    purpose:
      "Pressure is lost and nobody knows where. Goes beyond most manufacturers' books: only where theirs permits it, and not first.",
    kinds: ["axialPistonPump", "directionalValve", "proportionalValve", "cylinder", "other"],
    fits: ["inspection"],
    cautions: [cautions.injection, cautions.outlet, cautions.load, cautions.licensed],
    renew: ["every seal of the opened section"],
    notRecommended:
      "Pumping a leak up with the pump's whole flow until it shows: seen done, beyond most manufacturers' books.",
    phases: [
      {
        title: "Make the fault appear",
        steps: [
          step("permits", "Manufacturer's document: it permits the test, and says up to which pressure.", {
            hold: "a test that the manufacturer does not permit is not made",
            ask: { kind: "text", label: "Number and revision" },
          }),
          step("appears", "Fault made to appear, hot if it comes hot; oil temperature noted.", {
            ask: { kind: "value", label: "Oil temperature", quantity: "temperature" },
          }),
          step("driven", "Control valve driven from outside: if the machine moves, it is the command side.", {
            caution: cautions.load,
            ask: {
              kind: "choice",
              label: "With outside drive",
              options: [
                { id: "no", label: "the same fault" },
                { id: "moves", label: "it moves", stops: "The command side is at fault: look there first." },
              ],
            },
          }),
        ],
      },
      makeSafe(),
      {
        title: "Pump alone",
        steps: [
          step("clear", "Everybody clear, eye protection on; relief in the tested part is proved.", {
            hold: "a closed outlet without a relief bursts the weakest part",
          }),
          step("unlocked", "Locks taken off for the test by those who set them.", { putsBack: "isolated" }),
          step("gauge", "Gauge that can take full pressure at the outlet; closed for as short as it takes.", {
            caution: cautions.outlet,
            ask: { kind: "value", label: "Pressure reached", quantity: "pressure" },
          }),
          step("falls", "How long the pressure takes to fall to half when the pump stops.", {
            ask: { kind: "text", label: "Seconds" },
          }),
        ],
      },
      {
        title: "Section by section",
        steps: [
          step(
            "sections",
            "One section after another pressurised; looked at from a distance, by card, never by hand.",
            {
              hold: "a jet that nobody sees goes through a glove",
              caution: cautions.injection,
              ask: { kind: "text", label: "Sections and pressures, and where it is lost" },
            },
          ),
          step("locked-again", "Before a section is opened again: locked, and zero read at the gauge, each time.", {
            hold: "the zero of an hour ago says nothing",
            caution: cautions.energy,
          }),
          step("seals", "All seals of the opened section new."),
          step("same", "The same test again, hot.", {
            hold: "the same test proves it",
            ask: { kind: "text", label: "Pressures" },
          }),
          step("leaks", "Leak check at working pressure, by card.", { caution: cautions.injection }),
        ],
      },
      prove,
    ],
  },
];
