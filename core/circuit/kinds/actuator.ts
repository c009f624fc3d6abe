/** Cylinders, motors and what else takes the oil. Forces are balanced; in time a cylinder knows its ends. */
import { ramp } from "../laws";
import { COMMON, figure, times, type ElementKind, type Stamp, warmth } from "./types";

/** Speed at which friction has its full size, cm/s; below it falls off, so that a standing piston is no jump. */
const STICKS = 0.05;
/** Seals drag a little with speed, bar per cm/s: two cylinders side by side share their flow by it. */
const DRAG = 0.005;
/** Stiffness of an end stop, bar per cm of overrun. */
const STOP = 2000;

const ring = (outer: number, inner: number) => (Math.PI / 400) * (outer * outer - inner * inner);

export const cylinder: ElementKind = {
  label: "Cylinder",
  symbol: "cylinder",
  ports: {
    A: { role: "work", side: "S", label: "bore side" },
    B: { role: "work", side: "S", label: "rod side" },
  },
  data: {
    bore: figure("Bore", "mm", [5, 125, 1500], "the cylinder's drawing"),
    rod: figure("Rod", "mm", [1, 80, 1400], "the cylinder's drawing"),
    stroke: figure("Stroke", "mm", [1, 1000, 20000], "the cylinder's drawing"),
    load: figure(
      "Load against extending",
      "kN",
      [-20000, 100, 20000],
      "the machine's data or a measured pressure",
      true,
    ),
    friction: figure("Friction", "kN", [0, 2, 500], "2 % of the force, common practice"),
    pistonLeak: figure("Leak across the piston", "L/min per bar", [0, 0.00001, 2], COMMON),
  },
  faults: {
    pistonLeak: {
      label: "Piston seal leaks",
      says: (s) => `${s.toPrecision(2)} L/min per bar`,
      greatest: 0.5,
      // 2 mL/min move the chamber of a lift cylinder by 40 bar in ten minutes
      least: 0.000002,
    },
    rodSeal: { label: "Rod seal leaks outside", says: (s) => `${s.toPrecision(2)} L/min per bar`, greatest: 0.05 },
    friction: { label: "Binds", says: times, greatest: 20 },
  },
  inner: 1,
  innerInTime: [0, 1],
  stamp: (s) => {
    const area = ring(s.d("bore"), 0);
    const annulus = ring(s.d("bore"), s.d("rod"));
    const v = s.x(0);
    s.into("A", -0.06 * area * v);
    s.intoByInner("A", 0, -0.06 * area);
    s.into("B", 0.06 * annulus * v);
    s.intoByInner("B", 0, 0.06 * annulus);
    const [a, b] = [s.p("A"), s.p("B")];
    const leak = (s.d("pistonLeak") + s.fault("pistonLeak")) / s.viscosity;
    s.flow("A", "B", leak * (a - b), leak, -leak);
    const seal = s.fault("rodSeal") / s.viscosity;
    if (seal > 0) s.flow("B", "outside", seal * b, seal, 0);
    const friction = (100 * s.d("friction") * (1 + s.fault("friction"))) / area;
    const drag = Math.tanh(v / STICKS);
    s.equation(0, a - (b * annulus) / area - (100 * s.d("load")) / area - friction * drag - DRAG * v);
    s.equationBy(0, "A", 1);
    s.equationBy(0, "B", -annulus / area);
    s.equationByInner(0, 0, (-friction * (1 - drag * drag)) / STICKS - DRAG);
    s.load(((a * area - b * annulus) * v) / 10_000);
    if (!s.inTime) return;
    const place = s.x(1);
    const beyond = ramp(place - s.d("stroke") / 10, 1e-3);
    const before = ramp(-place, 1e-3);
    s.equation(0, STOP * (before.value - beyond.value));
    s.equationByInner(0, 1, -STOP * (before.slope + beyond.slope));
    s.equation(1, v);
    s.equationByInner(1, 0, 1);
  },
};

/** Turns until torque and load balance. */
function turns(s: Stamp): void {
  const displacement = s.d("displacement");
  const n = s.x(0);
  s.into("A", (-displacement * n) / 1000);
  s.intoByInner("A", 0, -displacement / 1000);
  s.into("B", (displacement * n) / 1000);
  s.intoByInner("B", 0, displacement / 1000);
  const [a, b] = [s.p("A"), s.p("B")];
  const across = (s.d("slip") * (1 + s.fault("worn"))) / s.viscosity;
  s.flow("A", "B", across * (a - b), across, -across);
  const leak = (s.d("caseLeak") * (1 + s.fault("worn"))) / s.viscosity;
  if (s.connected("case")) {
    const drain = s.p("case");
    s.flow("A", "case", leak * (a - drain), leak, -leak);
    s.flow("B", "case", leak * (b - drain), leak, -leak);
  }
  const perTorque = (20 * Math.PI) / displacement;
  const drag = Math.tanh(n / 2);
  const friction = s.d("friction");
  s.equation(0, a - b - s.d("torque") * perTorque - friction * drag - s.d("drag") * n);
  s.equationBy(0, "A", 1);
  s.equationBy(0, "B", -1);
  s.equationByInner(0, 0, (-friction * (1 - drag * drag)) / 2 - s.d("drag"));
  s.load(((a - b) * displacement * n) / 600_000);
}

export const motor: ElementKind = {
  label: "Motor",
  symbol: "motor",
  ports: {
    A: { role: "work", side: "S", label: "A" },
    B: { role: "work", side: "S", label: "B" },
    case: { role: "case", side: "E", label: "case drain", optional: true },
  },
  data: {
    displacement: figure("Displacement", "cm³", [1, 500, 50000], "the motor's plate"),
    torque: figure("Load torque", "N·m", [-200000, 1000, 200000], "the machine's data or a measured pressure", true),
    ...warmth,
    friction: figure("Friction", "bar", [0, 8, 100], COMMON),
    drag: figure("Drag with speed", "bar per r/min", [0.0001, 0.01, 5], COMMON),
    slip: figure("Slip across", "L/min per bar", [0, 0.005, 10], COMMON),
    caseLeak: figure("Leakage to the case, a side", "L/min per bar", [0, 0.01, 10], COMMON),
  },
  faults: { worn: { label: "Worn", says: times, greatest: 40 } },
  inner: 1,
  stamp: turns,
};

/** Anything that only takes oil as its clearances let it: a clutch with its seals, bearings, a bank of pilot valves. */
export const consumer: ElementKind = {
  label: "Consumer with clearances",
  symbol: "consumer",
  ports: {
    P: { role: "work", side: "S", label: "supply" },
    T: { role: "return", side: "S", label: "drain", optional: true },
  },
  data: { leak: figure("Takes", "L/min per bar", [0, 0.005, 20], "measured, or the maker's figure") },
  faults: { worn: { label: "Seals or clearances worn", says: times, greatest: 60 } },
  stamp: (s) => {
    const leak = (s.d("leak") * (1 + s.fault("worn"))) / s.viscosity;
    const to = s.connected("T") ? "T" : "outside";
    s.flow("P", to, leak * (s.p("P") - s.p(to)), leak, -leak);
  },
};
