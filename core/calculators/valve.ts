/** Leakage through gaps and orifices, and its correction. */
import { correctedUncertainty, correctLeakage } from "../leakage/correct";
import { annularLeakage, orificeFlow } from "../leakage/gaps";
import { clearanceAt, clearanceFactor, mixedLeakage, splitLeakage } from "../leakage/mixed";
import { gapPressureFactor } from "../fluid/pressureViscosity";
import { formatNumber } from "../units/format";
import { cautions } from "./cautions";
import { calculator, figure, maybe, maybePlain, plain, quantity, say, spaced } from "./types";

const MERRITT = "Merritt, Hydraulic Control Systems (1967).";

const annular = calculator({
  id: "clearance-leakage",
  group: "valve",
  title: "Leakage through a clearance",
  asks: "How much slips past a spool, plunger or piston of this clearance?",
  caution: cautions.energy,
  fields: {
    bore: quantity("bore", "20", { label: "Bore" }),
    clearance: quantity("clearance", "10", {
      label: "Radial clearance",
      hint: "Half the difference of the diameters.",
    }),
    length: quantity("gapLength", "30", { label: "Length of the gap" }),
    eccentricity: plain("Eccentricity", "0", 0, 1, { hint: "0 centred, 1 touching: then 2.5 times as much." }),
    pressure: quantity("loadPressure", "200", { label: "Pressure across it" }),
    viscosity: quantity("dynamicViscosity", "30", { label: "Dynamic viscosity" }),
    alpha: maybePlain("Pressure coefficient of viscosity", 0, 0.01, {
      suffix: "1/bar",
      hint: "About 0.002 for mineral oil; left out: none.",
    }),
  },
  compute(v) {
    const factor = v.alpha === null ? 1 : gapPressureFactor(v.pressure, v.alpha);
    const leak = (c: number) =>
      annularLeakage(
        { diameter: v.bore, clearance: c, length: v.length, eccentricity: v.eccentricity },
        v.pressure,
        v.viscosity,
      ) * factor;
    const here = leak(v.clearance);
    return {
      answer: say(
        "It leaks ",
        figure(here, "leak"),
        ". At a clearance half as large again it would leak ",
        figure(leak(1.5 * v.clearance), "leak"),
        ", at twice the clearance ",
        figure(leak(2 * v.clearance), "leak"),
        ".",
      ),
      tone: "plain",
      working: {
        formula: "Q = π·d·c³·Δp/(12·μ·L)·(1 + 1.5·ε²)",
        source: MERRITT,
        rows: [
          { label: "c³ over c³ twice as large", value: 0.125, digits: 3 },
          { label: "1 + 1.5·ε²", value: 1 + 1.5 * v.eccentricity ** 2, digits: 3 },
          ...(v.alpha === null ? [] : [{ label: "mean factor of pressure (Barus)", value: factor, digits: 3 }]),
          { label: "Q", value: here, quantity: "leak", digits: 3 },
        ],
        note: "Laminar flow, a gap much longer than it is wide.",
      },
      chart: {
        x: { label: "radial clearance", quantity: "clearance", least: 0 },
        y: { label: "leakage", quantity: "leak", least: 0 },
        series: [
          { label: "leakage", style: "line", points: spaced(0, 2.5 * v.clearance).map((c) => [c, leak(c)]) },
          { label: "here", style: "points", points: [[v.clearance, here]] },
        ],
      },
    };
  },
});

const orifice = calculator({
  id: "orifice",
  group: "valve",
  title: "Flow through an orifice",
  asks: "How much passes a sharp orifice, a burr or a stuck seat?",
  fields: {
    diameter: quantity("orifice", "2", { label: "Diameter" }),
    discharge: plain("Discharge coefficient", "0.62", 0.3, 1),
    pressure: quantity("loadPressure", "100", { label: "Pressure across it" }),
    density: quantity("density", "870", { label: "Density", take: "density15" }),
  },
  compute(v) {
    const flow = (p: number) => orificeFlow(v.diameter, v.discharge, p, v.density);
    return {
      answer: say("It passes ", figure(flow(v.pressure), "flow", 4), "."),
      tone: "plain",
      working: {
        formula: "Q = C_d·A·√(2·Δp/ρ)",
        source: MERRITT,
        rows: [
          { label: "A", value: (Math.PI / 4) * v.diameter ** 2, quantity: "area", digits: 3 },
          { label: "Q", value: flow(v.pressure), quantity: "flow", digits: 4 },
        ],
        note: "Turbulent flow: viscosity hardly matters.",
      },
      chart: {
        x: { label: "pressure", quantity: "loadPressure", least: 0 },
        y: { label: "flow", quantity: "flow", least: 0 },
        series: [
          { label: "flow", style: "line", points: spaced(0, 2 * v.pressure).map((p) => [p, flow(p)]) },
          { label: "here", style: "points", points: [[v.pressure, flow(v.pressure)]] },
        ],
      },
    };
  },
});

const mixed = calculator({
  id: "leak-kind",
  group: "valve",
  title: "Clearance or hole?",
  asks: "Is the leak through a worn clearance or through a hole, from readings at two pressures?",
  fields: {
    p1: quantity("loadPressure", "60", { label: "First pressure" }),
    q1: quantity("leakageFlow", "0.9", { label: "Leakage then" }),
    p2: quantity("loadPressure", "200", { label: "Second pressure" }),
    q2: quantity("leakageFlow", "2.4", { label: "Leakage then" }),
  },
  compute(v) {
    const parts = splitLeakage({ pressure: v.p1, flow: v.q1 }, { pressure: v.p2, flow: v.q2 });
    const top = Math.max(v.p1, v.p2);
    const laminarShare = (parts.laminar * top) / mixedLeakage(parts, top);
    const odd = parts.laminar < 0 || parts.turbulent < 0;
    return {
      answer: odd
        ? say(
            { text: "Neither.", strong: true },
            parts.laminar < 0
              ? " It grows more slowly than through a hole: the oil warmed, or a valve closed further, between the readings."
              : " It grows faster than pressure: something opens as the pressure rises, or the oil warmed.",
          )
        : say(
            "At ",
            figure(top, "loadPressure"),
            " about ",
            { text: `${formatNumber(100 * laminarShare, 0)} %`, strong: true },
            laminarShare > 0.6
              ? " goes through a clearance: wear."
              : laminarShare < 0.4
                ? " goes through a clearance, the rest through a hole: a burr, a cut seal, a seat held open."
                : " goes through a clearance and the rest through a hole.",
          ),
      tone: odd ? "doubt" : "plain",
      notes: ["Both readings at one oil temperature, or the answer is the oil's."],
      working: {
        formula: "Q = k·p + t·√p through both readings",
        source: MERRITT,
        rows: [
          { label: "k, L/(min·bar)", value: parts.laminar, digits: 3 },
          { label: "t, L/(min·√bar)", value: parts.turbulent, digits: 3 },
        ],
      },
      ...(!odd && {
        chart: {
          x: { label: "pressure", quantity: "loadPressure" as const, least: 0 },
          y: { label: "leakage", quantity: "leakageFlow" as const, least: 0 },
          series: [
            {
              label: "both",
              style: "line" as const,
              points: spaced(0, top).map((p): [number, number] => [p, mixedLeakage(parts, p)]),
            },
            {
              label: "through a clearance",
              style: "dashed" as const,
              points: spaced(0, top).map((p): [number, number] => [p, parts.laminar * p]),
            },
          ],
        },
      }),
    };
  },
});

const cube = calculator({
  id: "clearance-growth",
  group: "valve",
  title: "What a grown clearance costs",
  asks: "By how much does leakage grow with a clearance, and which clearance is the last good one?",
  fields: {
    before: quantity("clearance", "12", { label: "Clearance as new" }),
    after: quantity("clearance", "18", { label: "Clearance now" }),
    leak: maybe("leakageFlow", { label: "Leakage as new", example: "0.6" }),
    factor: plain("Leakage allowed, times new", "4", 1, 1000),
  },
  compute(v) {
    const grown = clearanceFactor(v.before, v.after);
    const last = clearanceAt(v.before, v.factor);
    return {
      answer: say(
        "It leaks ",
        { text: `${formatNumber(grown, 2)} times`, strong: true },
        " as much as new",
        ...(v.leak === null ? ["."] : [", about ", figure(v.leak * grown, "leakageFlow"), "."]),
        " The last good clearance is ",
        figure(last, "clearance"),
        v.after > last ? ": it is past it." : ".",
      ),
      tone: v.after > last ? "bad" : "plain",
      working: {
        formula: "Q/Q_0 = (c/c_0)³",
        source: MERRITT,
        rows: [
          { label: "c/c_0", value: v.after / v.before, digits: 4 },
          { label: "Q/Q_0", value: grown, digits: 4 },
          { label: "last good c", value: last, quantity: "clearance", digits: 3 },
        ],
      },
      chart: {
        x: { label: "clearance", quantity: "clearance", least: 0 },
        y: { label: "leakage over new", least: 0 },
        series: [
          {
            label: "leakage",
            style: "line",
            points: spaced(0, Math.max(v.after, last) * 1.2).map((c) => [c, (c / v.before) ** 3]),
          },
          { label: "now", style: "points", points: [[v.after, grown]] },
        ],
        marks: [{ axis: "y", at: v.factor, label: "allowed", tone: "limit" }],
      },
    };
  },
});

const correction = calculator({
  id: "correct-leakage",
  group: "valve",
  title: "A leakage at other conditions",
  asks: "What would this leakage be at the reference, and how sure is that?",
  fields: {
    flow: quantity("leakageFlow", "3.9", { label: "As read" }),
    pressure: quantity("loadPressure", "205", { label: "Pressure" }),
    referencePressure: quantity("loadPressure", "210", { label: "Reference pressure", take: "referencePressure" }),
    mu: quantity("dynamicViscosity", "21", { label: "Viscosity at the reading" }),
    muRef: quantity("dynamicViscosity", "26", { label: "Viscosity at the reference" }),
    a: plain("Exponent of pressure", "1", 0, 2),
    b: plain("Exponent of viscosity", "1", 0, 2),
    uFlow: plain("Uncertainty of the flow", "2", 0, 100, { suffix: "%" }),
    uPressure: plain("Uncertainty of the pressure", "1", 0, 100, { suffix: "%" }),
    uTemperature: quantity("temperatureDifference", "1", { label: "Uncertainty of the oil temperature" }),
    uExponents: plain("Uncertainty of the exponents", "0.1", 0, 1),
  },
  compute(v) {
    const [here, there] = [
      { pressure: v.pressure, viscosity: v.mu },
      { pressure: v.referencePressure, viscosity: v.muRef },
    ];
    const corrected = correctLeakage({ flow: v.flow, ...here }, there, v);
    const LAMBDA = 0.04;
    const relative = correctedUncertainty(here, there, v, LAMBDA, {
      flow: v.uFlow / 100,
      pressure: v.uPressure / 100,
      temperature: v.uTemperature,
      a: v.uExponents,
      b: v.uExponents,
    });
    return {
      answer: say("At the reference it is ", figure(corrected, "leakageFlow"), {
        text: `, give or take ${formatNumber(100 * relative, 1)} % (one standard uncertainty).`,
      }),
      tone: "plain",
      working: {
        formula:
          "Q_ref = Q·(p_ref/p)^a·(μ/μ_ref)^b; (u/Q)² = u_Q² + (a·u_p/p)² + (b·λ·u_T)² + (ln(p_ref/p)·u_a)² + (ln(μ/μ_ref)·u_b)²",
        source: `${MERRITT} λ 0.04/K, about that of VG 46 at 50 °C.`,
        rows: [
          { label: "(p_ref/p)^a", value: (v.referencePressure / v.pressure) ** v.a, digits: 4 },
          { label: "(μ/μ_ref)^b", value: (v.mu / v.muRef) ** v.b, digits: 4 },
          { label: "Q_ref", value: corrected, quantity: "leakageFlow", digits: 3 },
          { label: "u/Q", value: relative, digits: 2 },
          { label: "of it from the oil temperature", value: v.b * LAMBDA * v.uTemperature, digits: 2 },
        ],
      },
    };
  },
});

export const valveCalculators = [annular, cube, orifice, mixed, correction];
