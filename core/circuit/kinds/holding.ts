/** Valves that hold a load: pilot-operated check and counterbalance. How they open: docs of core/holding/margin. */
import { checked, orifice, share } from "../laws";
import { COMMON, figure, percent, type ElementKind, type Fault, type Port, type Stamp } from "./types";

const ports: Record<string, Port> = {
  V: { role: "work", side: "S", label: "valve side" },
  C: { role: "work", side: "N", label: "cylinder side" },
  X: { role: "pilot", side: "E", label: "pilot", optional: true },
};
const leakBack: Fault = { label: "Seat leaks", says: (s) => `${s.toPrecision(2)} L/min per bar`, greatest: 0.2 };
const margin = figure("Margin to opening when healthy", "bar", [-50, 50, 400], "measured when healthy");
const k = figure("Flow at 1 bar, open", "L/min", [0.5, 20, 2000], "the valve's data sheet");
const free = figure("Cracks forward at", "bar", [0, 1, 20], COMMON);

/** Forward through the check, back through the seat as far as it is lifted. `lift` with slopes by C, X and V. */
function holds(s: Stamp, lift: { value: number; byC: number; byX: number; byV: number }): void {
  const dp = s.p("C") - s.p("V");
  const forward = checked(s.d("k"), s.d("free"), -dp);
  const back = orifice(s.d("k") * lift.value, Math.max(0, dp));
  const fullBack = orifice(s.d("k"), Math.max(0, dp)).q;
  const leak = dp > 0 ? s.fault("leakBack") / s.viscosity : 0;
  const slope = forward.slope + (dp > 0 ? back.slope : 0) + leak;
  s.flow("C", "V", back.q + leak * dp - forward.q, slope + fullBack * lift.byC, -slope + fullBack * lift.byV);
  if (s.connected("X")) s.also("X", fullBack * lift.byX);
}

export const pilotCheck: ElementKind = {
  label: "Pilot-operated check valve",
  symbol: "pilotCheck",
  ports,
  data: { ratio: figure("Pilot ratio", "", [1.1, 3.5, 20], "the valve's data sheet"), free, margin, k },
  faults: { leakBack, stuckOpen: { label: "Held open", says: percent, greatest: 1 } },
  stamp: (s) => {
    const stuck = s.fault("stuckOpen");
    if (!s.connected("X")) return holds(s, { value: stuck, byC: 0, byX: 0, byV: 0 });
    const [c, v, x] = [s.p("C"), s.p("V"), s.p("X")];
    const ratio = s.d("ratio");
    // the pilot piston lifts the poppet where ratio times its pressure exceeds the load's, both against V
    const lift = share((ratio * (x - v) - (c - v)) / 10);
    const moves = lift.value >= stuck ? lift.slope / 10 : 0;
    holds(s, {
      value: Math.max(lift.value, stuck),
      byC: -moves,
      byX: ratio * moves,
      byV: (1 - ratio) * moves,
    });
  },
};

export const counterbalance: ElementKind = {
  label: "Counterbalance valve",
  symbol: "counterbalance",
  ports,
  data: {
    set: figure("Set at", "bar", [5, 250, 450], "the setting plate, 1.3 times the load at least", true),
    ratio: figure("Pilot ratio", "", [1, 4, 20], "the valve's data sheet"),
    range: figure("Fully open over", "bar", [2, 40, 200], COMMON),
    free,
    margin,
    k,
  },
  faults: {
    leakBack,
    setLow: { label: "Set low", says: (s) => `${Math.round(s)} bar too low`, greatest: 300 },
  },
  stamp: (s) => {
    const ratio = s.connected("X") ? s.d("ratio") : 0;
    const pilot = ratio ? s.p("X") : 0;
    const range = s.d("range");
    // unvented: back pressure at V raises the setting by (1 + ratio)
    const opens = s.p("C") + ratio * pilot - (1 + ratio) * s.p("V") - s.d("set") + s.fault("setLow");
    const lift = share(opens / range);
    holds(s, {
      value: lift.value,
      byC: lift.slope / range,
      byX: (ratio * lift.slope) / range,
      byV: (-(1 + ratio) * lift.slope) / range,
    });
  },
};
