/** The parts that causes and tests belong to, and what they are in a circuit. */
import type { Part } from "./types";

const define = <const T extends Record<string, Part>>(parts: T): T => parts;

export const parts = define({
  drive: { label: "Drive of the pump", kinds: [] },
  fluid: { label: "Oil", kinds: [] },
  inlet: { label: "Suction side", kinds: ["strainer"] },
  pump: { label: "Pump", kinds: ["fixedPump", "compensatedPump", "closedLoopPump"] },
  variable: { label: "Pump control", kinds: ["compensatedPump"] },
  relief: { label: "Relief valve", kinds: ["relief"] },
  unloader: { label: "Unloading valve", kinds: ["unloader"] },
  sequence: { label: "Sequence valve", kinds: ["sequence"] },
  flowControl: { label: "Flow control valve", kinds: ["flowControl"] },
  throttle: { label: "Orifice or throttle", kinds: ["throttle"] },
  reducing: { label: "Reducing valve", kinds: ["reducing"] },
  check: { label: "Check valve", kinds: ["check"] },
  valve: { label: "Directional or proportional valve", kinds: ["directional", "proportional"] },
  command: { label: "Electrical command", kinds: [] },
  holding: { label: "Load-holding valve", kinds: ["pilotCheck", "counterbalance"] },
  counterbalance: { label: "Counterbalance valve", kinds: ["counterbalance"] },
  cylinder: { label: "Cylinder", kinds: ["cylinder"] },
  motor: { label: "Motor", kinds: ["motor"] },
  consumer: { label: "Consumer", kinds: ["consumer"] },
  loop: { label: "Closed loop", kinds: [], undrawn: true },
  servo: { label: "Servo of a closed-loop pump", kinds: ["closedLoopPump"] },
  flushing: { label: "Flushing valve", kinds: ["flushing"] },
  filter: { label: "Filter", kinds: ["filter"] },
  cooler: { label: "Cooler", kinds: ["cooler"] },
  accumulator: { label: "Accumulator", kinds: ["accumulator"] },
  line: { label: "Hose or pipe", kinds: ["line"] },
  gauge: { label: "Instrument", kinds: [] },
});

export type PartId = keyof typeof parts;
