/** The tests that ship. A plant adds its own as data: plant.ts. */
import { calculatorOf } from "../calculators/index";
import { cautions } from "../calculators/cautions";
import type { Calculator } from "../calculators/types";
import type { ComponentKind } from "../equipment/kinds";
import { endPeak, fallAfterStop, inletAndCase, shutIn, standbyLeakage, testPort } from "./atTheGauge";
import { response, solenoid, spool } from "./ofValves";
import { heatSurvey, hotLevel, slipTorque, weep } from "./byHandAndEye";
import type { Check } from "./types";

const pumps: readonly ComponentKind[] = ["axialPistonPump", "gearPump", "closedLoopPump"];
const valves: readonly ComponentKind[] = [
  "directionalValve",
  "proportionalValve",
  "reliefValve",
  "unloaderValve",
  "reducingValve",
  "flushingValve",
  "loadHoldingValve",
];
const all: readonly ComponentKind[] = [
  ...pumps,
  "pistonMotor",
  ...valves,
  "cylinder",
  "filter",
  "accumulator",
  "other",
];
const warm = "Oil at working temperature.";
const gaugeFits = "The gauge can take the worst pressure that can come.";
const clear = "Everybody clear; nothing that can move is under load.";
const bench = (id: string): Calculator => calculatorOf(id)!;

export const checks: readonly Check[] = [
  {
    id: "load-test",
    title: "Load test of a pump",
    kinds: [...pumps, "pistonMotor"],
    calculation: bench("load-test"),
    compares: "G, L·mPa·s/(min·bar)",
    caution: cautions.loadTest,
    before: [
      warm,
      gaugeFits,
      "Consumers blocked; all flow through the meter and over a relief valve.",
      "Relief fully backed off, and to be set below the pump's rating.",
      "The driver's power carries it.",
    ],
    makersWay:
      "The manufacturer's own delivery test, at the manufacturer's speed and pressures, goes first where there is one.",
    notRecommended:
      "Driving a pump to its full capacity through the machine to find a leak: people do it and warn against it.",
    steps: [
      "Note the compensator setting before it is turned up.",
      "Start with the relief backed off; note the flow without load.",
      "Raise the relief in steps to working pressure; at each note pressure, flow and oil temperature.",
      "Back the relief off, then stop.",
    ],
    alters: ["Compensator turned up", "Relief valve raised", "Consumers blocked"],
    timeLimit: { seconds: 600, then: "Back the relief off: the oil is getting hot." },
  },
  {
    id: "shut-in",
    title: "Shut-in pressure",
    kinds: pumps,
    calculation: shutIn,
    compares: "pressure",
    caution:
      "The oil heats fast. Never close a pump's outlet without a relief path. Open the valve at once above the upper limit.",
    before: [gaugeFits, "A relief path is there.", "The outlet is closed by hand on a valve, slowly.", clear],
    makersWay: "The manufacturer's stated pressure and time limit, where there are any.",
    steps: [
      "Start the clock and close the valve slowly, watching the gauge.",
      "Read the pressure when it stands.",
      "Open the valve.",
    ],
    alters: ["Outlet valve closed"],
    timeLimit: { seconds: 20, then: "OPEN THE VALVE" },
    breakOff: { row: "pressure", above: "to", then: "OPEN THE VALVE" },
  },
  {
    id: "fall-after-stop",
    title: "Pressure fall after stopping",
    kinds: [...pumps, "accumulator"],
    calculation: fallAfterStop,
    compares: "half-life, s",
    caution: cautions.energy,
    before: [warm, "The accumulator is in or out as it was last time.", gaugeFits],
    makersWay: "The manufacturer's stated holding time, where there is one.",
    steps: ["Bring it to working pressure.", "Stop the pump, note the pressure every few seconds."],
    alters: [],
  },
  {
    id: "standby-leakage",
    title: "Standby leakage",
    kinds: ["axialPistonPump"],
    calculation: standbyLeakage,
    compares: "nothing blocked",
    caution: cautions.energy,
    before: [warm, "Pump at idle, compensator as set.", "Meter in the outlet line."],
    makersWay: "The manufacturer's figure of a good system.",
    steps: ["Read the flow with nothing blocked.", "Block one consumer after another; read what is left each time."],
    alters: ["Consumers blocked"],
  },
  {
    id: "stroke-time",
    title: "Stroke time against flow",
    kinds: ["cylinder", "pistonMotor"],
    calculation: bench("stroke-time"),
    compares: "flow that moved it",
    caution: cautions.suspended,
    before: [warm, clear, "Stated stroke and load."],
    makersWay: "The manufacturer's stroke time at the stated load.",
    steps: ["Time the stroke over its stated length.", "Measure or state the flow that should arrive."],
    alters: [],
  },
  {
    id: "holding-test",
    title: "Holding test with two pressures",
    kinds: ["cylinder", "loadHoldingValve"],
    calculation: bench("holding-margin"),
    compares: "margin",
    caution: cautions.suspended,
    before: [
      "The load is propped, or may come down.",
      "Gauges on both chambers; each can take an intensified pressure.",
      "Several cylinders in parallel: one at a time.",
    ],
    makersWay: "The manufacturer's permitted sink rate, where there is one.",
    steps: [
      "Shut the load in.",
      "Note both pressures and the time; again after some minutes.",
      "Enter the rise of the opposite side in bar a minute.",
    ],
    alters: ["Second cylinder isolated"],
  },
  {
    id: "settings-survey",
    title: "Survey of the settings",
    kinds: [...pumps, "reliefValve", "unloaderValve"],
    calculation: bench("settings-ladder"),
    compares: "Relief valve",
    caution: cautions.settings,
    before: [gaugeFits, warm, "Relief raised in a known direction and never past the line rating."],
    makersWay: "Settings from the manufacturer's current manual.",
    steps: [
      "Raise the relief watching the gauge, set the working control, lower the relief until it just shows, raise it by the gap.",
    ],
    alters: ["Relief valve raised", "Lock nut loosened"],
  },
  {
    id: "test-port",
    title: "Pilot pressure at a test port",
    kinds: [...valves, "pistonMotor"],
    calculation: testPort,
    compares: "under load",
    caution: cautions.gauge,
    before: [warm, gaugeFits],
    makersWay: "The stated value of the port.",
    steps: ["Read it unloaded, then under load."],
    alters: [],
  },
  {
    id: "inlet-case",
    title: "Inlet and case pressure",
    kinds: [...pumps, "pistonMotor"],
    calculation: inletAndCase,
    compares: "inlet vacuum",
    caution: cautions.caseDrain,
    before: [warm, "Stated speed.", "The case line stays open to tank."],
    makersWay: "The manufacturer's limits for inlet and case.",
    steps: ["Read both at the stated speed and full stroke."],
    alters: [],
  },
  {
    id: "end-peak",
    title: "Peak at the end of the stroke",
    kinds: ["cylinder"],
    calculation: endPeak,
    compares: "peak",
    caution: cautions.gauge,
    before: ["A transducer and a logger fast enough; a gauge does not see it.", clear],
    makersWay: "The manufacturer's permitted peak of hose and cylinder.",
    steps: ["Run into the end at working speed, log it."],
    alters: [],
  },
  {
    id: "weep",
    title: "Weep by port",
    kinds: all,
    calculation: weep,
    compares: "drops",
    caution: "Never search for a leak with the hand: oil under pressure pierces skin. Hold a card under the port.",
    before: ["The port is wiped dry."],
    makersWay: "The manufacturer's permitted weep.",
    steps: ["Count for two minutes, a card under the port."],
    alters: [],
  },
  {
    id: "command-response",
    title: "Command against response",
    kinds: ["proportionalValve"],
    calculation: response,
    compares: "hysteresis, %",
    caution: cautions.suspended,
    before: [warm, clear, "The actuator may move, or is isolated."],
    makersWay: "The manufacturer's hysteresis and the amplifier's settings, checked first.",
    steps: ["Raise the command in steps to full, then back."],
    alters: ["Actuator isolated"],
  },
  {
    id: "vacuum-bench",
    title: "Valve bore on the vacuum bench",
    kinds: valves,
    calculation: bench("vacuum-bench"),
    compares: "index",
    caution: "Cold and static: it judges bores and plugs of pilot and control valves, not proportional valves.",
    before: ["The bench was read open and blocked today, and both are as stated.", "Bore clean and dry."],
    makersWay: "The pass mark of the bench for this port.",
    steps: [
      "Seat the probe, read. Read again where it may not have sealed.",
      "Measure the old part before the new one is fitted: the gain proves the repair.",
    ],
    alters: [],
  },
  {
    id: "spool-spring",
    title: "Spool and spring",
    kinds: valves,
    calculation: spool,
    caution: cautions.energy,
    before: ["Isolated, pressure released, zero proved at a gauge.", "Debris looked at before anything is washed."],
    makersWay: "The manufacturer's spring table and permitted wear.",
    steps: [
      "Let the clean spool fall through its bore, turned a little each time.",
      "Press the spring to its stated length, read the force.",
    ],
    alters: [],
  },
  {
    id: "clearance",
    title: "Clearance and what it costs",
    kinds: [...pumps, "pistonMotor", ...valves, "cylinder"],
    calculation: bench("clearance-growth"),
    compares: "Q/Q_0",
    caution: cautions.energy,
    before: ["Clean, at room temperature, gauge checked against its block."],
    makersWay: "The manufacturer's permitted clearance.",
    steps: ["Measure at several places; the largest counts."],
    alters: [],
  },
  {
    id: "heat-survey",
    title: "Heat survey along a circuit",
    kinds: all,
    calculation: heatSurvey,
    caution: "Hot surfaces. Keep the camera out of reach of what moves.",
    before: [
      "Twenty minutes at work.",
      "Same emissivity and the same spots as last time; bare metal taped or painted.",
    ],
    makersWay: "The manufacturer's temperature limits.",
    steps: ["Follow the circuit from pump to tank, one part after another."],
    alters: [],
  },
  {
    id: "solenoid",
    title: "Solenoid valve, electrical",
    kinds: ["directionalValve", "proportionalValve", "unloaderValve"],
    calculation: solenoid,
    caution: "What it moves may start: isolate the actuator first. Live voltage: a qualified person measures it.",
    before: ["The actuator is isolated or may move."],
    makersWay: "The manufacturer's coil data.",
    steps: ["Voltage at the plug.", "A steel rule at the coil.", "Drive it from outside (override)."],
    alters: ["Jumper fitted", "Breaker altered"],
  },
  {
    id: "slip-torque",
    title: "Slip torque of a drive",
    kinds: [...pumps, "other"],
    calculation: slipTorque,
    compares: "torque",
    caution: "The drive is locked out. The wrench can come back: stand clear of its arc.",
    before: ["Isolated and locked."],
    makersWay: "The manufacturer's band.",
    steps: ["Pull steadily until it slips."],
    alters: [],
  },
  {
    id: "hot-level",
    title: "Hot oil level",
    kinds: ["other", ...pumps],
    calculation: hotLevel,
    caution: cautions.oil,
    before: [warm, "Machine level, actuators in the stated position."],
    makersWay: "The plate at the tank.",
    steps: ["Wipe the gauge glass and the filler, read."],
    alters: [],
  },
];

/**
 * The guided test with an id.
 * @param id as in its address
 * @returns the test; undefined: there is none
 * @example checkOf("hot-level").title // "Hot oil level"
 */
export function checkOf(id: string): Check | undefined {
  return checks.find((p) => p.id === id);
}

/**
 * Guided tests that are offered on a kind of component.
 * @param kind of the register; one that is not known gets none
 * @returns in the order in which they are listed
 * @example checksFor("other").some((test) => test.id === "hot-level") // true
 * @example checksFor("teapot") // []
 */
export function checksFor(kind: string): Check[] {
  return checks.filter((p) => (p.kinds as readonly string[]).includes(kind));
}
