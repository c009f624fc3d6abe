/**
 * Pumps. Q = D·n/1000·x·fill − slip·Δp, with a case flow of its own (ISO 4391 for the terms). Efficiency of the shaft
 * and usual leakages: common practice.
 */
import { ramp, share } from "../laws";
import {
  bars,
  COMMON,
  figure,
  percent,
  times,
  type ElementKind,
  type Fault,
  type Figure,
  type Port,
  type Stamp,
  warmth,
} from "./types";

const ports: Record<string, Port> = {
  out: { role: "outlet", side: "N", label: "outlet" },
  in: { role: "suction", side: "S", label: "inlet" },
  case: { role: "case", side: "E", label: "case drain", optional: true },
};

const data: Record<string, Figure> = {
  displacement: figure("Displacement", "cm³", [0.1, 45, 5000], "the pump's plate"),
  speed: figure("Speed", "r/min", [1, 1450, 6000], "the driver's plate", true),
  slip: figure("Slip to the inlet", "L/min per bar", [0, 0.002, 5], COMMON),
  caseLeak: figure("Leakage to the case", "L/min per bar", [0, 0.005, 5], COMMON),
  mechanical: figure("Mechanical efficiency", "", [0.3, 0.92, 1], COMMON),
  ...warmth,
  inletLimit: figure("Fills down to, at the inlet", "bar", [-0.9, -0.35, 5], COMMON),
};

const faults: Record<string, Fault> = {
  slip: { label: "Worn: slips to the inlet", says: times, greatest: 40 },
  caseLeak: { label: "Worn: leaks to the case", says: times, greatest: 40 },
  speedLow: { label: "Turns too slowly", says: percent, greatest: 0.9 },
  beltSlips: { label: "Belt or coupling slips under load", says: percent, greatest: 0.9 },
  air: { label: "Draws air", says: percent, greatest: 0.8 },
  reversed: { label: "Turns the wrong way", says: percent, greatest: 1 },
};

/** Share of the chambers that fills, falling over a tenth of a bar below the permitted inlet pressure. */
const FILLING = 0.1;

/** The equations of a pump of which `x` is the share of its displacement, with the slope of x by the outlet pressure. */
function pump(s: Stamp, x: { value: number; slope: number }): void {
  const [out, inlet] = [s.p("out"), s.p("in")];
  // a belt gives way the more, the more pressure it has to carry
  const carried = ramp(out - inlet, 1);
  const slips = (s.fault("beltSlips") * carried.value) / (carried.value + 100);
  const slipsBy = (s.fault("beltSlips") * 100 * carried.slope) / (carried.value + 100) ** 2;
  const speed = s.d("speed") * (1 - s.fault("speedLow")) * (1 - slips) * (1 - 2 * s.fault("reversed"));
  const speedBy = -s.d("speed") * (1 - s.fault("speedLow")) * slipsBy * (1 - 2 * s.fault("reversed"));
  const fill = share((inlet - s.d("inletLimit")) / FILLING + 1);
  const full = (s.d("displacement") / 1000) * (1 - s.fault("air"));
  const q = full * speed * x.value * fill.value;
  const byOut = full * fill.value * (speed * x.slope + speedBy * x.value);
  s.flow(
    "in",
    "out",
    q,
    (full * speed * x.value * fill.slope) / FILLING - full * fill.value * speedBy * x.value,
    byOut,
    true,
  );
  // friction goes with pressure and speed, not with the stroke: a pump at idle takes a tenth of its full power and heats
  // the tank with it (45 cm³ at 1450 r/min and 210 bar: 2 kW)
  const power = (full * speed * fill.value * (out - inlet)) / 600;
  s.shaft((q * (out - inlet)) / 600 + (Math.abs(power) * (1 - s.d("mechanical"))) / s.d("mechanical"));
  const slip = (s.d("slip") * (1 + s.fault("slip"))) / s.viscosity;
  s.flow("out", "in", slip * (out - inlet), slip, -slip);
  const leak = (s.d("caseLeak") * (1 + s.fault("caseLeak"))) / s.viscosity;
  const to = s.connected("case") ? "case" : "in";
  s.flow("out", to, leak * (out - s.p(to)), leak, -leak);
}

export const fixedPump: ElementKind = {
  label: "Fixed pump",
  symbol: "fixedPump",
  ports,
  data,
  faults,
  stamp: (s) => pump(s, { value: 1, slope: 0 }),
};

export const compensatedPump: ElementKind = {
  label: "Pressure-compensated pump",
  symbol: "variablePump",
  ports,
  data: {
    ...data,
    set: figure("Compensator set at", "bar", [5, 210, 450], "the setting plate or the last setting", true),
    droop: figure("Stroke goes over", "bar", [0.5, 8, 50], COMMON),
    flowLimit: figure("Greatest stroke", "share", [0.05, 1, 1], "the stroke screw", true),
  },
  faults: {
    ...faults,
    setLow: { label: "Compensator set or stuck low", says: bars, greatest: 250 },
    stuckShort: { label: "Stuck at part of its stroke", says: percent, greatest: 0.95 },
  },
  stamp: (s) => {
    const droop = s.d("droop");
    const most = s.d("flowLimit") * (1 - s.fault("stuckShort"));
    const x = share((s.d("set") - s.fault("setLow") - s.p("out")) / droop);
    pump(s, { value: most * x.value, slope: (-most * x.slope) / droop });
  },
};
