/** Valves that open by the pressure before them. Override of relief valves 5 to 15 % at full flow: common practice. */
import { checked, opensAbove, orifice, orificeAtOneBar, share } from "../laws";
import { bars, COMMON, figure, type ElementKind, type Fault, warmth } from "./types";

const held: Fault = { label: "Held open by dirt", says: (s) => `as a ${s.toPrecision(2)} mm hole`, greatest: 6 };
const seat: Fault = { label: "Seat leaks", says: (s) => `${s.toPrecision(2)} L/min per bar`, greatest: 1 };

export const relief: ElementKind = {
  label: "Relief valve",
  symbol: "relief",
  ports: {
    P: { role: "pressure", side: "N", label: "inlet" },
    T: { role: "return", side: "S", label: "outlet" },
  },
  data: {
    crack: figure("Cracks at", "bar", [1, 245, 700], "the setting plate or the last setting", true),
    ...warmth,
    perBar: figure("Opens by", "L/min per bar", [0.1, 4, 200], "5 to 15 % override at full flow, common practice"),
  },
  faults: {
    setLow: { label: "Set low", says: bars, greatest: 400 },
    heldOpen: held,
    seat,
    springBroken: { label: "Spring broken", says: (s) => `${Math.round(s * 100)} % of its force gone`, greatest: 1 },
  },
  stamp: (s) => {
    const dp = s.p("P") - s.p("T");
    const crack = (s.d("crack") - s.fault("setLow")) * (1 - 0.95 * s.fault("springBroken"));
    const open = opensAbove(Math.max(0.5, crack), s.d("perBar"), dp);
    const hole = orifice(orificeAtOneBar(s.fault("heldOpen"), s.density), dp);
    const leak = s.fault("seat") / s.viscosity;
    s.flow("P", "T", open.q + hole.q + leak * dp, open.slope + hole.slope + leak, -open.slope - hole.slope - leak);
  },
};

/** Opens by the pressure before it against a drained spring: what lies behind it does not matter. */
export const sequence: ElementKind = {
  label: "Sequence valve",
  symbol: "sequence",
  ports: {
    in: { role: "pressure", side: "S", label: "inlet" },
    out: { role: "work", side: "N", label: "outlet" },
  },
  data: {
    set: figure("Opens at", "bar", [1, 100, 450], "the setting plate", true),
    range: figure("Fully open over", "bar", [0.5, 5, 50], COMMON),
    k: figure("Flow at 1 bar, open", "L/min", [0.5, 25, 2000], "the valve's data sheet"),
  },
  faults: { setLow: { label: "Set low", says: bars, greatest: 400 }, seat },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const open = share((s.p("in") - s.d("set") + s.fault("setLow")) / s.d("range"));
    const through = orifice(s.d("k") * open.value, dp);
    const leak = s.fault("seat") / s.viscosity;
    const perOpen = orifice(s.d("k"), dp).q;
    s.flow(
      "in",
      "out",
      through.q + leak * dp,
      through.slope + leak + (perOpen * open.slope) / s.d("range"),
      -through.slope - leak,
    );
  },
};

/** Keeps the pressure behind it at its setting, and lets what is above that off through its drain. */
export const reducing: ElementKind = {
  label: "Pressure reducing valve",
  symbol: "reducing",
  ports: {
    in: { role: "pressure", side: "S", label: "inlet" },
    out: { role: "work", side: "N", label: "reduced side" },
    drain: { role: "case", side: "E", label: "drain", optional: true },
  },
  data: {
    set: figure("Reduces to", "bar", [1, 30, 400], "the setting plate", true),
    range: figure("Closes over", "bar", [0.2, 2, 40], COMMON),
    k: figure("Flow at 1 bar, open", "L/min", [0.2, 8, 1000], "the valve's data sheet"),
  },
  faults: {
    setLow: { label: "Set low", says: bars, greatest: 300 },
    stuckOpen: { label: "Stuck open", says: (s) => `${Math.round(s * 100)} % open`, greatest: 1 },
  },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const controlled = share((s.d("set") - s.fault("setLow") - s.p("out")) / s.d("range"));
    const stuck = s.fault("stuckOpen");
    const open = Math.max(controlled.value, stuck);
    const moves = controlled.value >= stuck ? -controlled.slope / s.d("range") : 0;
    const through = orifice(s.d("k") * open, dp);
    s.flow("in", "out", through.q, through.slope, -through.slope + orifice(s.d("k"), dp).q * moves);
    if (s.connected("drain")) {
      const over = opensAbove(s.d("set") + s.d("range"), s.d("k") / 10, s.p("out"));
      s.flow("out", "drain", over.q, over.slope, 0);
    }
  },
};

/**
 * Unloader: loads the accumulator through its check valve, and lets the pump idle from the cut-out pressure at X until
 * that has fallen to the cut-in. Which of both it is in is a state of its own (`switched`).
 */
export const unloader: ElementKind = {
  label: "Unloading valve",
  symbol: "unloader",
  ports: {
    P: { role: "pressure", side: "N", label: "pump side" },
    T: { role: "return", side: "S", label: "outlet" },
    X: { role: "pilot", side: "E", label: "pilot" },
  },
  data: {
    cutOut: figure("Cut-out", "bar", [2, 175, 450], "the setting plate", true),
    cutIn: figure("Cut-in", "bar", [1, 145, 449], "the setting plate", true),
    k: figure("Flow at 1 bar, unloading", "L/min", [0.5, 20, 2000], "the valve's data sheet"),
  },
  faults: {
    seat,
    stuckLoading: { label: "Does not unload", says: (s) => `${Math.round(s * 100)} % shut`, greatest: 1 },
  },
  stamp: (s) => {
    const dp = s.p("P") - s.p("T");
    const open = s.switched ? 1 - s.fault("stuckLoading") : 0;
    const through = orifice(s.d("k") * open, dp);
    const leak = s.fault("seat") / s.viscosity;
    s.flow("P", "T", through.q + leak * dp, through.slope + leak, -through.slope - leak);
  },
};

export const check: ElementKind = {
  label: "Check valve",
  symbol: "check",
  ports: {
    in: { role: "work", side: "S", label: "inlet" },
    out: { role: "work", side: "N", label: "outlet" },
  },
  data: {
    crack: figure("Cracks at", "bar", [0, 0.5, 20], "the valve's data sheet"),
    k: figure("Flow at 1 bar, open", "L/min", [0.5, 40, 2000], "the valve's data sheet"),
  },
  faults: { leakBack: { label: "Leaks back", says: (s) => `${s.toPrecision(2)} L/min per bar`, greatest: 1 } },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const through = checked(s.d("k"), s.d("crack"), dp);
    const leak = s.fault("leakBack") / s.viscosity;
    const back = dp < 0 ? leak : 0;
    const slope = through.slope + back;
    s.flow("in", "out", through.q + back * dp, slope, -slope);
  },
};
