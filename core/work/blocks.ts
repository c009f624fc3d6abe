/** Steps that many procedures share, in the order of the trade. Common practice; the manufacturer's document goes first. */
import type { WorkPhase, WorkStep } from "./types";

export const cautions = {
  injection:
    "Oil under pressure pierces skin: card, never the hand, to look for a leak. An injection wound is an emergency.",
  energy: "Isolate, lock, release pressure, accumulators and pressurised reservoirs too; prove zero at a gauge.",
  load: "A suspended load is propped before a line is opened.",
  hot: "Hot oil and hot surfaces; eye protection.",
  case: "Never plug a case drain.",
  outlet: "Never close a pump's outlet without a relief path and a time limit.",
  licensed: "Isolation and lifting follow local codes and are done by licensed people.",
} as const;

/** A step by its id and its words. */
export const step = (id: string, text: string, more: Omit<WorkStep, "id" | "text"> = {}): WorkStep => ({
  id,
  text,
  ...more,
});

/** Before every job, up to the proof that no pressure is left. */
export function makeSafe(more: readonly WorkStep[] = [], { drains = false } = {}): WorkPhase {
  return {
    title: "Before a line is opened",
    steps: [
      step("document", "Manufacturer's document for this part, current revision, at hand. It goes before this list.", {
        ask: { kind: "text", label: "Number and revision" },
      }),
      step("answers", "Who answers for the machine knows, and said yes.", { ask: { kind: "text", label: "Who" } }),
      step("ready", "Parts, seals, plugs and trays lie ready."),
      ...more,
      ...(drains
        ? [step("sample", "Oil sampled before it is drained, where debris is suspected.", { photo: true })]
        : []),
      step("isolated", "Isolated, locked and tried: electrical, pump drive.", {
        hold: "what starts by itself kills",
        caution: cautions.licensed,
        alters: "Isolated and locked",
      }),
      step("propped", "Load propped, or down on its stops.", {
        hold: "a load on oil comes down when a line opens",
        caution: cautions.load,
      }),
      step("accumulators", "Accumulators and pressurised reservoirs vented slowly, or there are none.", {
        hold: "an accumulator keeps its pressure when the pump is locked",
        caution: cautions.energy,
      }),
      step("zero", "Zero read at a gauge that was seen to read pressure before.", {
        hold: "a gauge that is broken reads zero too",
        caution: cautions.injection,
        ask: { kind: "value", label: "Pressure read", quantity: "pressure", greatest: 0.5 },
      }),
      step("card", "Cardboard under the place: a drip shows."),
    ],
  };
}

/** Lines off, each end plugged and counted, everything tagged first. */
export const linesOff = (order: string): WorkStep[] => [
  step("tags", "Hoses and wires tagged before any is taken off.", { ask: { kind: "lines" }, photo: true }),
  step("off", `Lines off in the order ${order}; each open end plugged at once, both sides.`, {
    caution: cautions.injection,
    ask: { kind: "count", label: "Plugs set" },
  }),
];

/** Lines on again by their tags; as many plugs as went in. */
export const linesOn: readonly WorkStep[] = [
  step("by-hand", "Every line started by hand at its tagged place: one that does not go by hand is crossed."),
  step("plugs-back", "Plugs counted back.", {
    hold: "a plug left in a line starves the part or bursts it",
    ask: { kind: "count", label: "Plugs back", equals: "off" },
  }),
];

/** A joint tightened by hand, evenly, then to the stated torque; `id` where a procedure does it twice. */
export const tighten = (what: string, id = "torque"): WorkStep =>
  step(id, `${what}: by hand, then evenly crosswise in passes, then to the manufacturer's torque.`, {
    ask: { kind: "torque" },
  });

export const turnsFreely = step("turns", "Turns or moves freely by hand after tightening.", {
  hold: "what binds cold seizes hot",
});

export const marks = step("marks", "Torque marks on every joint.", { photo: true });

const clear = step("clear", "Everybody clear, tools and rags counted out of the machine.", {
  hold: "what is left inside is found by the pump",
});
const settled: readonly WorkStep[] = [
  step("leaks", "Leak check at working pressure, by card.", { caution: cautions.injection }),
  step("level", "Oil level right: oil hot, actuators in the stated position."),
  step("restored", "Everything altered for the work is put back: valves, jumpers, breakers, lock nuts.", {
    hold: "what was altered for the work stays so until somebody is hurt by it",
  }),
];

/** Locks off: what follows needs the drive. */
export const unlock: WorkPhase = {
  title: "Locks off",
  steps: [
    clear,
    step("unlocked", "Locks taken off by those who set them; props stay until the load is held.", {
      putsBack: "isolated",
    }),
  ],
};

/** After a phase that ran already: leaks, level, and what was altered. */
export const closing = (more: readonly WorkStep[] = []): WorkPhase => ({
  title: "Back to work",
  steps: [...more, ...settled],
});

/** Locks off, then at once back to work. */
export const backToWork = (more: readonly WorkStep[] = []): WorkPhase => ({
  title: "Back to work",
  steps: [...unlock.steps, ...more, ...settled],
});

/** Findings come before washing. */
export const lookFirst: readonly WorkStep[] = [
  step("look", "Looked at before anything is washed: debris, colour, wear. Photographs; findings written down.", {
    hold: "washed evidence is gone",
    photo: true,
    closedBy: "evidence",
  }),
];

/** Small parts out and in. */
export const smallOut = step("small-out", "Small loose parts (balls, springs, shims) mapped and counted out.", {
  ask: { kind: "count", label: "Parts out" },
  photo: true,
});
export const smallIn = step("small-in", "Small parts counted in again, or renewed one for one.", {
  hold: "a part too many or too few is in the circuit",
  ask: { kind: "count", label: "Parts in", equals: "small-out" },
});

/** The reading that condemned it, again. */
export const prove: WorkPhase = {
  title: "Prove it",
  steps: [
    step("again", "The reading or test that condemned it, made again at the same conditions and logged.", {
      hold: "a repair that nobody measured is a hope",
      closedBy: "reading",
    }),
    step("settings-left", "Settings as left.", {
      ask: { kind: "text", label: "Settings", optional: true, fills: "settingsLeft" },
    }),
  ],
};
