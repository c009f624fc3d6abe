/** Pumps and motors: replaced, commissioned, set; the valve end before the rotating end. Common practice. */
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
  step,
  smallIn,
  smallOut,
  tighten,
  turnsFreely,
  unlock,
} from "../blocks";
import type { WorkPhase, WorkProcedure, WorkStep } from "../types";

const SECONDS_TO_FLOW = 10;

/** First start of a pump that moves oil from a tank. `cased`: it has a case that must be full. */
function commissioning(cased: boolean, sets: readonly WorkStep[]): WorkPhase {
  return {
    title: "Commission",
    steps: [
      step("suction", "Suction line full and open, strainer clean, level right."),
      ...(cased
        ? [
            step("filled", "Case filled with clean oil until it runs out of the upper port.", {
              hold: "a dry start ruins the new pump in seconds",
            }),
            step("case-open", "Case line open to tank, not plugged, not shared with pressure.", {
              hold: "a shut case line blows the shaft seal",
              caution: cautions.case,
            }),
          ]
        : [
            step("primed", "Pump and inlet filled with clean oil.", {
              hold: "a dry start ruins the new pump in seconds",
            }),
          ]),
      step("backed-off", "Relief and compensator backed off (out: lower), turns noted.", {
        ask: { kind: "text", label: "Turns" },
        alters: "Relief and compensator backed off",
      }),
      step("rotation", "Rotation proved by a jog.", { hold: "a pump that runs backwards runs dry" }),
      step(
        "flow",
        `Started without load, listened to. No flow in the stated time (for instance ${SECONDS_TO_FLOW} s): stop.`,
        {
          ask: {
            kind: "choice",
            label: "Flow",
            options: [
              { id: "yes", label: "came in time" },
              {
                id: "no",
                label: "did not come",
                stops: "Stop. Look at level, suction valve, strainer, air leak, rotation, case. Then start again.",
              },
            ],
          },
        },
      ),
      step("bleed", "Bled at the highest point, or at the case line by its filter."),
      step("low", "Run low for some minutes; noise, foam and case line looked at."),
      ...sets,
      step(
        "functions",
        "Functional tests: pressure reached, unloading off and on, shut-off valve with its low-pressure warning.",
        {
          caution: "The warning test is short, and noisy by right.",
        },
      ),
      step("air", "All actuators stroked both ways to expel air; level again."),
    ],
  };
}

const pressureThenFlow: readonly WorkStep[] = [
  step(
    "pressure-first",
    "Pressure first: compensator in until the gauge reads its set value against blocked consumers; lock nut.",
    {
      ask: { kind: "value", label: "Pressure set", quantity: "pressure", below: "relief-gap" },
      caution: cautions.outlet,
      putsBack: "backed-off",
    },
  ),
  step("then-flow", "Then flow: displacement stop set, lock nut.", {
    ask: { kind: "text", label: "Flow or turns", optional: true },
  }),
  step("relief-gap", "Relief above the compensator by the stated gap.", {
    ask: { kind: "value", label: "Relief set", quantity: "pressure", above: "pressure-first" },
  }),
];

const reliefOnly: readonly WorkStep[] = [
  step("relief-set", "Relief set in a known direction, gauge watched, never above the lowest line rating; lock nut.", {
    ask: { kind: "value", label: "Relief set", quantity: "pressure" },
    putsBack: "backed-off",
  }),
];

interface PumpKind {
  id: string;
  title: string;
  purpose: string;
  kinds: WorkProcedure["kinds"];
  cased: boolean;
  before: readonly WorkStep[];
  after: readonly WorkStep[];
  sets: readonly WorkStep[];
}

const replacement = ({ id, title, purpose, kinds, cased, before, after, sets }: PumpKind): WorkProcedure => ({
  id,
  title,
  purpose,
  kinds,
  fits: ["replacement"],
  cautions: [cautions.energy, cautions.load, cautions.hot, cautions.case, cautions.licensed],
  renew: ["every seal and back-up ring that was opened", "shaft seal ring", "mounting gasket"],
  phases: [
    makeSafe(
      [
        step("settings", "Finding that condemned it, settings (compensator, flow stop, relief) and hours noted.", {
          ask: { kind: "text", label: "Settings as found" },
        }),
        ...before,
      ],
      { drains: true },
    ),
    {
      title: "Take the old one out",
      steps: [
        step("plug-off", "Electrical plugs off first."),
        ...linesOff(cased ? "case drain, pressure, suction" : "pressure, suction"),
        step(
          "support",
          "Weight supported; mounting nuts loosened in turn, the top one last; pump turned out of its register.",
          {
            caution: cautions.licensed,
          },
        ),
        ...lookFirst,
        step("coupling", "Coupling or spline and mounting face looked at.", {
          ask: {
            kind: "choice",
            label: "Spline",
            options: [
              { id: "good", label: "good" },
              { id: "worn", label: "worn, renewed or ordered" },
            ],
          },
        }),
        step("broke-up", "Did it break up?", {
          ask: {
            kind: "choice",
            label: "Old pump",
            options: [
              { id: "whole", label: "whole" },
              { id: "flushed", label: "broke up: lines, cooler and valves after it are flushed, source named" },
              {
                id: "not-flushed",
                label: "broke up, not flushed yet",
                stops: "Open a debris event under Oil, flush and name the source first: the new one goes the same way.",
              },
            ],
          },
        }),
      ],
    },
    {
      title: "Fit the new one",
      steps: [
        step("plate", "Rotation, port side and displacement of the new pump checked against the plate.", {
          hold: "a pump of the other rotation fits too",
          ask: { kind: "text", label: "Plate" },
          photo: true,
        }),
        step("serial", "Serial of the new pump, from its plate.", {
          ask: { kind: "text", label: "Serial, or none", fills: "serial" },
        }),
        step(
          "unions",
          "Unions fitted with new seals and back-up rings, " +
            "back-up ring on the side away from the pressure; those out of reach later are tightened on the bench.",
        ),
        step("caps", "Transport caps counted out.", { ask: { kind: "count", label: "Caps" } }),
        tighten("Mounting nuts"),
        ...linesOn,
        ...after,
        marks,
      ],
    },
    unlock,
    commissioning(cased, sets),
    closing(),
    prove,
  ],
});

const shutValve = step("close-off", "Shut-off valve between tank and pump closed.", {
  alters: "Suction shut-off closed",
});
const openValve = step("suction-open", "Suction shut-off open again, handle secured.", {
  hold: "a shut suction destroys the pump at once",
  putsBack: "close-off",
});

export const pumpProcedures: readonly WorkProcedure[] = [
  replacement({
    id: "replace-fixed-pump",
    title: "Replace a fixed pump",
    purpose: "A gear or other fixed pump whose delivery is gone, or that broke up.",
    kinds: ["gearPump"],
    cased: false,
    before: [],
    after: [],
    sets: reliefOnly,
  }),
  replacement({
    id: "replace-compensated-pump",
    title: "Replace a compensated pump",
    purpose: "A variable pump with a pressure compensator, condemned by case drain or load test.",
    kinds: ["axialPistonPump"],
    cased: true,
    before: [],
    after: [],
    sets: pressureThenFlow,
  }),
  replacement({
    id: "replace-engine-pump",
    title: "Replace an engine-driven pump with shut-off and case filter",
    purpose: "A pump on an engine's drive, with a valve in its suction and a filter in its case line.",
    kinds: ["axialPistonPump", "closedLoopPump"],
    cased: true,
    before: [shutValve],
    after: [
      step("case-filter", "Case filter element renewed; the old one opened and looked at.", {
        photo: true,
        ask: { kind: "text", label: "What it held" },
      }),
      openValve,
    ],
    sets: pressureThenFlow,
  }),
  {
    id: "commission-pump",
    title: "Commission a pump",
    purpose: "The first start after a pump, its lines or its oil were changed.",
    kinds: ["axialPistonPump", "closedLoopPump", "pistonMotor"],
    fits: ["inspection"],
    cautions: [cautions.injection, cautions.case, cautions.outlet],
    renew: [],
    phases: [
      {
        title: "Ready",
        steps: [
          step("document", "Manufacturer's start-up sheet, current revision, at hand.", {
            ask: { kind: "text", label: "Number and revision" },
          }),
          step("clear-start", "Everybody clear; nothing that can move is under load.", {
            hold: "the first start is the one that surprises",
          }),
        ],
      },
      commissioning(true, pressureThenFlow),
      closing(),
      prove,
    ],
  },
  {
    id: "set-compensator",
    title: "Set a compensator, then the flow stop",
    purpose: "A compensated pump that stands off its set pressure or flow, and is not worn.",
    kinds: ["axialPistonPump"],
    fits: ["repair"],
    cautions: [cautions.outlet, cautions.injection],
    renew: [],
    phases: [
      {
        title: "Ready",
        steps: [
          step("document", "Manufacturer's settings, current revision.", {
            ask: { kind: "text", label: "Number and revision" },
          }),
          step("gauge", "Gauge of the right range at the outlet; it can take the relief's pressure.", {
            hold: "a gauge that bursts is the accident",
          }),
          step("found", "Setting as found.", { ask: { kind: "value", label: "Pressure found", quantity: "pressure" } }),
          step("consumers", "Consumers blocked; the relief path is there.", {
            hold: "a pump without a way out breaks what is weakest",
            caution: cautions.outlet,
            alters: "Consumers blocked",
          }),
        ],
      },
      {
        title: "Set it",
        steps: [
          step("lock", "Lock nut loose; adjuster backed off a known number of turns.", {
            ask: { kind: "text", label: "Turns" },
            alters: "Compensator lock nut loose",
          }),
          step("set", "In until the gauge reads the set value; lock nut.", {
            ask: { kind: "value", label: "Pressure set", quantity: "pressure" },
            putsBack: "lock",
          }),
          step("below-relief", "It lies below the relief by the stated gap.", {
            hold: "relief at or below the working control carries the pump and makes heat",
          }),
          step("stop-flow", "Displacement stop set after the pressure, lock nut.", {
            ask: { kind: "text", label: "Flow or turns", optional: true },
          }),
          step("cycles", "Ten cycles; the pressure comes back to the set value each time."),
        ],
      },
      closing([step("open-consumers", "Consumers open again.", { putsBack: "consumers" })]),
      prove,
    ],
  },
  {
    id: "repair-valve-in-pump",
    title: "Fixed pump with valves in its body: low pressure",
    purpose: "Pressure too low, and the valves sit in the pump. Outside first, valve end next, rotating end last.",
    kinds: ["gearPump"],
    fits: ["repair", "inspection"],
    cautions: [cautions.outlet, cautions.hot, cautions.energy],
    renew: ["gaskets", "seals of both valves"],
    phases: [
      {
        title: "Outside first",
        steps: [
          step("slip", "Drive slip: torque to slip at the pulley against its band.", {
            ask: { kind: "value", label: "Torque to slip", quantity: "torque" },
          }),
          step("hot-level", "Level with the oil hot, leaks, covers by torque."),
          step(
            "shut-in",
            "Shut-in pressure: gauge between pump and consumer, oil warm, speed set, valve closed slowly by hand, at most 20 s.",
            {
              caution: "Open the valve at once above the upper figure.",
              ask: { kind: "value", label: "Pressure", quantity: "pressure" },
            },
          ),
        ],
      },
      makeSafe(),
      {
        title: "Valve end",
        steps: [
          step("valves-out", "Relief and flow valve out."),
          ...lookFirst,
          smallOut,
          step("falls", "Clean and dry: the spool falls through its bore by its own weight at every turn.", {
            ask: {
              kind: "choice",
              label: "Spool",
              options: [
                { id: "falls", label: "falls" },
                { id: "polished", label: "stuck, polished, falls now" },
                { id: "set", label: "sticks: valve and bore renewed as a set" },
              ],
            },
            caution: "The stuck spot is polished, never the seat.",
          }),
          step("shim", "Shim under the spring only within the manufacturer's rule.", {
            ask: { kind: "text", label: "Shim", optional: true },
          }),
        ],
      },
      {
        title: "Rotating end, only where the valve end was good",
        steps: [
          step("rotor", "Scores, springs, slip fit with suction felt. Findings written down.", { photo: true }),
          smallIn,
          step("assembled", "Assembled on a fixture or with guide pins, never forced; new gaskets."),
          tighten("Cover"),
          turnsFreely,
        ],
      },
      backToWork(),
      {
        title: "Prove it",
        steps: [
          step("shut-in-again", "Shut-in pressure again, same speed and oil temperature.", {
            hold: "the same test proves it",
            ask: { kind: "value", label: "Pressure", quantity: "pressure" },
          }),
        ],
      },
    ],
  },
];
