/**
 * What only a closed loop has: a pump that sends the oil round and takes back what the motor returns, and the valve that
 * lets the warm low side out. What makes up for their leakage is an ordinary pump with check valves: the charge.
 */
import { opensAbove } from "../laws";
import { COMMON, figure, percent, times, type ElementKind, type Port, type Stamp, warmth } from "./types";

const loop: Record<string, Port> = {
  A: { role: "work", side: "N", label: "side A" },
  B: { role: "work", side: "N", label: "side B" },
};

/** The command is the share of its stroke, and the side to which it delivers. */
function loopPump(s: Stamp): void {
  const [a, b] = [s.p("A"), s.p("B")];
  const speed = s.d("speed") * (1 - s.fault("speedLow"));
  const stroke = s.command * (1 - s.fault("stuckShort"));
  const full = (s.d("displacement") * speed) / 1000;
  const q = full * stroke;
  s.flow("B", "A", q, 0, 0, true);
  // friction goes with pressure and speed, not with the stroke
  const friction = (full * Math.abs(a - b) * (1 - s.d("mechanical"))) / s.d("mechanical") / 600;
  s.shaft((q * (a - b)) / 600 + friction);
  const slip = (s.d("slip") * (1 + s.fault("slip"))) / s.viscosity;
  s.flow("A", "B", slip * (a - b), slip, -slip);
  if (!s.connected("case")) return;
  const leak = (s.d("caseLeak") * (1 + s.fault("caseLeak"))) / s.viscosity;
  for (const side of ["A", "B"]) s.flow(side, "case", leak * (s.p(side) - s.p("case")), leak, -leak);
}

export const closedLoopPump: ElementKind = {
  label: "Closed-loop pump",
  symbol: "loopPump",
  ports: { ...loop, case: { role: "case", side: "E", label: "case drain", optional: true } },
  data: {
    displacement: figure("Displacement", "cm³", [0.1, 45, 5000], "the pump's plate"),
    speed: figure("Speed", "r/min", [1, 1450, 6000], "the driver's plate", true),
    slip: figure("Slip across", "L/min per bar", [0, 0.004, 5], COMMON),
    caseLeak: figure("Leakage to the case, a side", "L/min per bar", [0, 0.005, 5], COMMON),
    mechanical: figure("Mechanical efficiency", "", [0.3, 0.92, 1], COMMON),
    ...warmth,
  },
  faults: {
    slip: { label: "Worn: slips across", says: times, greatest: 40 },
    caseLeak: { label: "Worn: leaks to the case", says: times, greatest: 40 },
    speedLow: { label: "Turns too slowly", says: percent, greatest: 0.9 },
    stuckShort: { label: "Servo stuck or weak: does not reach its stroke", says: percent, greatest: 0.95 },
  },
  commanded: true,
  stamp: loopPump,
};

/** So much more on the other side, bar, and it is half open; it is open or shut over twice that. */
const SHIFTS = 4;

/** Share that it is open to a side, by how much higher the other one stands. */
function openTo(above: number): { value: number; slope: number } {
  const x = Math.tanh((above - SHIFTS) / (SHIFTS / 2));
  return { value: 0.5 * (1 + x), slope: (1 - x * x) / SHIFTS };
}

export const flushing: ElementKind = {
  label: "Flushing valve",
  symbol: "flushing",
  ports: { ...loop, T: { role: "return", side: "S", label: "outlet" } },
  data: {
    set: figure("Keeps in the low side", "bar", [1, 18, 60], "the setting plate", true),
    perBar: figure("Opens by", "L/min per bar", [0.05, 1.5, 50], COMMON),
  },
  faults: { stuck: { label: "Stuck in its middle position", says: percent, greatest: 1 } },
  stamp: (s) => {
    for (const [side, other] of [
      ["A", "B"],
      ["B", "A"],
    ] as const) {
      const open = openTo(s.p(other) - s.p(side));
      const free = 1 - s.fault("stuck");
      const through = opensAbove(s.d("set"), s.d("perBar"), s.p(side) - s.p("T"));
      s.flow(
        side,
        "T",
        free * open.value * through.q,
        free * (open.value * through.slope - open.slope * through.q),
        -free * open.value * through.slope,
      );
      s.also(other, free * open.slope * through.q);
    }
  },
};
