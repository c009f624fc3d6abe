/** What only hinders the flow or stores oil: orifices, lines, filters, coolers, strainers, accumulators, the reservoir. */
import { laminarAndTurbulent, opensAbove, orifice, orificeAtOneBar, ramp } from "../laws";
import { COMMON, figure, percent, times, type ElementKind, type Port } from "./types";

const up: Record<string, Port> = {
  in: { role: "work", side: "S", label: "inlet" },
  out: { role: "work", side: "N", label: "outlet" },
};
const down: Record<string, Port> = {
  in: { role: "return", side: "N", label: "inlet" },
  out: { role: "return", side: "S", label: "outlet" },
};

export const tank: ElementKind = {
  label: "Reservoir",
  symbol: "tank",
  ports: { T: { role: "tank", side: "N", label: "connection" } },
  data: {
    surroundings: figure("Temperature around it", "°C", [-50, 20, 60], COMMON),
    duty: figure("Share of the running time at work", "", [0, 0.25, 1], "the machine's day, common practice", true),
    cooling: figure(
      "Heat given off by tank and lines",
      "W per K",
      [1, 40, 20000],
      "10 to 15 W per K and m² of wall, common practice",
    ),
  },
  faults: {},
  stamp: () => undefined,
};

export const throttle: ElementKind = {
  label: "Orifice",
  symbol: "throttle",
  ports: up,
  data: {
    diameter: figure("Diameter", "mm", [0.1, 3, 60], "the drawing", true),
    discharge: figure("Discharge coefficient", "", [0.4, 0.62, 1], "sharp edge, common handbook value"),
  },
  faults: { blocked: { label: "Partly blocked", says: percent, greatest: 0.99 } },
  stamp: (s) => {
    const k = orificeAtOneBar(s.d("diameter"), s.density, s.d("discharge")) * (1 - s.fault("blocked"));
    const law = orifice(k, s.p("in") - s.p("out"));
    s.flow("in", "out", law.q, law.slope, -law.slope);
  },
};

/** A pressure-compensated flow control: its setting as long as the pressure suffices, never more. */
export const flowControl: ElementKind = {
  label: "Flow control valve",
  symbol: "flowControl",
  ports: up,
  data: {
    set: figure("Set at", "L/min", [0.05, 20, 2000], "the setting plate", true),
    least: figure("Controls from a pressure drop of", "bar", [1, 8, 40], "the valve's data sheet"),
  },
  faults: { stuckOpen: { label: "Compensator stuck open", says: percent, greatest: 1 } },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const [set, least] = [s.d("set"), s.d("least")];
    // √(Δp/least) below the control range, bending to 1 above it
    const x = dp / least;
    const bend = Math.sqrt(1 + x * x);
    const held = (set * x) / bend;
    const open = orifice(set / Math.sqrt(least), dp);
    const stuck = s.fault("stuckOpen");
    const slope = ((1 - stuck) * set) / (least * bend ** 3) + stuck * open.slope;
    s.flow("in", "out", (1 - stuck) * held + stuck * open.q, slope, -slope);
  },
};

export const line: ElementKind = {
  label: "Line with resistance",
  symbol: "lineLoss",
  ports: up,
  data: {
    laminar: figure("Resistance, laminar", "bar per L/min", [0, 0.005, 50], "from bore, length and oil"),
    turbulent: figure(
      "Resistance, turbulent",
      "bar per (L/min)²",
      [0, 0.0001, 5],
      "bends and fittings, common practice",
    ),
  },
  faults: {
    chafed: { label: "Hose leaks outside", says: (s) => `as a ${s.toPrecision(2)} mm hole`, greatest: 3 },
    squeezed: { label: "Squeezed or collapsed", says: times, greatest: 100 },
  },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const worse = 1 + s.fault("squeezed");
    const law = laminarAndTurbulent(s.d("laminar") * s.viscosity * worse + 1e-6, s.d("turbulent") * worse, dp);
    s.flow("in", "out", law.q, law.slope, -law.slope);
    const hole = s.fault("chafed");
    if (hole > 0) {
      const out = orifice(orificeAtOneBar(hole, s.density), s.p("in"));
      s.flow("in", "outside", out.q, out.slope, 0);
    }
  },
};

export const strainer: ElementKind = {
  label: "Suction strainer",
  symbol: "strainer",
  ports: { in: { role: "suction", side: "S", label: "inlet" }, out: { role: "suction", side: "N", label: "outlet" } },
  data: {
    laminar: figure("Resistance, laminar", "bar per L/min", [0, 0.0006, 1], COMMON),
    turbulent: figure("Resistance, turbulent", "bar per (L/min)²", [0, 0.000002, 0.1], COMMON),
  },
  faults: { blocked: { label: "Blocked", says: times, greatest: 60 } },
  stamp: (s) => {
    const worse = 1 + s.fault("blocked");
    const law = laminarAndTurbulent(
      s.d("laminar") * s.viscosity * worse + 1e-7,
      s.d("turbulent") * worse,
      s.p("in") - s.p("out"),
    );
    s.flow("in", "out", law.q, law.slope, -law.slope);
  },
};

/** A seat without its seal passes so many times what the bypass does, and one more (common practice). */
const WIDER = 4;

export const filter: ElementKind = {
  label: "Filter",
  symbol: "filter",
  ports: down,
  data: {
    laminar: figure(
      "Element's resistance",
      "bar per L/min",
      [0.0001, 0.012, 10],
      "the element's data sheet at 30 mm²/s",
    ),
    housing: figure("Housing's resistance", "bar per (L/min)²", [0, 0.00003, 0.1], "the housing's data sheet"),
    bypass: figure("Bypass opens at", "bar", [0.2, 3, 30], "the filter's plate"),
    perBar: figure("Bypass opens by", "L/min per bar", [1, 60, 2000], COMMON),
  },
  faults: {
    blocked: { label: "Element blocked", says: times, greatest: 60 },
    bypassOpen: { label: "Bypass does not close", says: percent, greatest: 1 },
  },
  stamp: (s) => {
    const dp = s.p("in") - s.p("out");
    const through = laminarAndTurbulent(s.d("laminar") * s.viscosity * (1 + s.fault("blocked")), s.d("housing"), dp);
    // a missing seal is a wider way than an open bypass
    const open = s.fault("bypassOpen");
    const past = opensAbove(s.d("bypass") * (1 - open), s.d("perBar") * (1 + WIDER * open * open), dp);
    s.flow("in", "out", through.q + past.q, through.slope + past.slope, -through.slope - past.slope);
  },
};

export const cooler: ElementKind = {
  label: "Cooler",
  symbol: "cooler",
  ports: down,
  data: {
    laminar: figure("Resistance, laminar", "bar per L/min", [0, 0.008, 5], "the cooler's data sheet"),
    turbulent: figure("Resistance, turbulent", "bar per (L/min)²", [0, 0.0001, 0.1], "the cooler's data sheet"),
    cooling: figure("Heat taken off", "W per K", [1, 250, 100000], "the cooler's data sheet"),
    opens: figure("Thermostat opens at", "°C", [0, 45, 90], "the thermostat", true),
  },
  faults: {
    bypassed: { label: "Thermostat or bypass stuck", says: percent, greatest: 1 },
    fouled: { label: "Fouled outside", says: percent, greatest: 0.95 },
  },
  stamp: (s) => {
    const law = laminarAndTurbulent(s.d("laminar") * s.viscosity + 1e-6, s.d("turbulent"), s.p("in") - s.p("out"));
    s.flow("in", "out", law.q, law.slope, -law.slope);
  },
};

/** Absolute pressure of the surroundings, bar. */
export const ATMOSPHERE = 1.01325;
/** Stiffness of an accumulator that is empty of oil, bar per litre below nothing. */
const EMPTY = 1e5;

/** In a steady state an accumulator that is charged holds its pressure this stiffly, L/min per bar. */
const STIFF = 1000;

/** Gas behind the bladder, isothermal: p·V constant in absolute pressure. In rest it takes no oil. */
export const accumulator: ElementKind = {
  label: "Accumulator",
  symbol: "accumulator",
  ports: { P: { role: "pressure", side: "S", label: "oil side" } },
  data: {
    volume: figure("Gas volume, empty of oil", "L", [0.01, 4, 1000], "the plate"),
    precharge: figure("Precharge", "bar", [1, 90, 400], "the plate or the last charge", true),
  },
  faults: { gasLost: { label: "Gas lost", says: percent, greatest: 0.95 } },
  inner: 0,
  innerInTime: [0, 1],
  stamp: (s) => {
    if (!s.inTime) {
      if (s.held !== null) s.into("P", STIFF * (s.held - s.p("P")), -STIFF);
      return;
    }
    const q = s.x(0);
    const stored = s.x(1);
    const charged = s.d("precharge") * (1 - s.fault("gasLost")) + ATMOSPHERE;
    const volume = s.d("volume");
    const held = ramp(stored, 1e-5);
    const room = Math.max(volume * 0.02, volume - held.value);
    const gas = (charged * volume) / room - ATMOSPHERE;
    s.into("P", -q);
    s.intoByInner("P", 0, -1);
    s.equation(0, s.p("P") - gas - EMPTY * Math.min(0, stored));
    s.equationBy(0, "P", 1);
    s.equationByInner(0, 1, -((gas + ATMOSPHERE) / room) * held.slope - (stored < 0 ? EMPTY : 0));
    s.equation(1, q / 60);
    s.equationByInner(1, 0, 1 / 60);
  },
};

/** Passes the higher of two pressures on. */
export const shuttle: ElementKind = {
  label: "Shuttle valve",
  symbol: "shuttle",
  ports: {
    A: { role: "pilot", side: "W", label: "A" },
    B: { role: "pilot", side: "E", label: "B" },
    C: { role: "pilot", side: "N", label: "outlet" },
  },
  data: { k: figure("Flow at 1 bar", "L/min", [0.1, 10, 500], "the valve's data sheet") },
  faults: {},
  stamp: (s) => {
    for (const from of ["A", "B"]) {
      const other = from === "A" ? "B" : "A";
      const dp = s.p(from) - s.p("C");
      // the ball lies on the lower side's seat: the higher side is open both ways
      const higher = 0.5 * (1 + Math.tanh((s.p(from) - s.p(other)) / 0.5));
      const by = (0.5 * (1 - Math.tanh((s.p(from) - s.p(other)) / 0.5) ** 2)) / 0.5;
      const full = orifice(s.d("k"), dp);
      s.flow(from, "C", full.q * higher, full.slope * higher + full.q * by, -full.slope * higher);
      s.also(other, -full.q * by);
    }
  },
};
