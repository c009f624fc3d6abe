/** Calculations about valves, clearances and settings. */
import { vacuumIndex } from "../instrument/vacuum";
import { correctedUncertainty, correctLeakage } from "../leakage/correct";
import { annularLeakage, orificeFlow } from "../leakage/gaps";
import { clearanceAt, clearanceFactor, mixedLeakage, splitLeakage } from "../leakage/mixed";
import { gapPressureFactor } from "../fluid/pressureViscosity";
import { settingsLadder, type Settings } from "../settings/ladder";
import { formatNumber } from "../units/format";
import { cautions } from "./cautions";
import { calculator, figure, maybe, maybePlain, plain, quantity, rows, say, spaced } from "./types";

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

const bench = calculator({
  id: "vacuum-bench",
  group: "valve",
  title: "Valve bore on a vacuum bench",
  asks: "How tight is this bore, stated so that test benches can be compared?",
  fields: {
    read: quantity("vacuum", "17 inHg", { label: "Read at the port" }),
    open: quantity("vacuum", "5 inHg", { label: "Bench open" }),
    blocked: quantity("vacuum", "25 inHg", { label: "Bench blocked" }),
    pass: maybe("vacuum", { label: "Pass mark of this bench and port", example: "15 inHg" }),
  },
  compute(v) {
    const index = vacuumIndex(v.read, v);
    const mark = v.pass === null ? null : vacuumIndex(v.pass, v);
    const bad = mark !== null && index < mark;
    return {
      answer: say(
        "Index ",
        { text: formatNumber(index, 2), strong: true },
        " of 1",
        ...(mark === null
          ? ["."]
          : [`, the pass mark is ${formatNumber(mark, 2)}: `, { text: bad ? "it leaks." : "it holds.", strong: true }]),
      ),
      tone: mark === null ? "plain" : bad ? "bad" : "good",
      notes:
        index < 0 || index > 1.02
          ? ["Outside what the bench itself shows open and blocked: check the bench first."]
          : ["Read again where the probe may not have sealed. Measure the old part before the new one is fitted."],
      working: {
        formula: "(read − open)/(blocked − open)",
        source: "Common practice.",
        rows: [
          { label: "read", value: v.read, quantity: "vacuum" },
          { label: "index", value: index, digits: 3 },
        ],
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

const ladder = calculator({
  id: "settings-ladder",
  group: "valve",
  title: "Ladder of settings",
  asks: "Do the pressure settings of this circuit lie in order, and far enough apart?",
  caution: cautions.settings,
  fields: {
    cutIn: maybe("loadPressure", { label: "Unloader cuts in" }),
    cutOut: maybe("loadPressure", { label: "Unloader cuts out" }),
    compensator: maybe("loadPressure", { label: "Compensator", example: "210", take: "workingPressure" }),
    relief: quantity("loadPressure", "230", { label: "Relief valve", take: "reliefSetting" }),
    ratings: rows(
      "Ratings",
      [{ id: "pressure", label: "Pressure", quantity: "loadPressure" }],
      "280\n315\n350",
      1,
      "Of each hose, pipe and component that sees the pressure, one a line.",
    ),
    flow: maybe("flow", { label: "Flow of the pump", example: "65" }),
    gap: quantity("loadPressure", "15", { label: "Gap wanted below the relief", usual: true }),
    peak: maybe("loadPressure", { label: "Greatest peak seen" }),
    rate: maybePlain("Logged at", 0.01, 1e6, { suffix: "samples/s", example: "1000" }),
  },
  compute(v) {
    const settings: Settings = {
      relief: v.relief,
      ratings: v.ratings.map((r, i) => ({ name: `part ${i + 1}`, pressure: r.pressure! })),
      gap: v.gap,
      ...(v.cutIn !== null && { cutIn: v.cutIn }),
      ...(v.cutOut !== null && { cutOut: v.cutOut }),
      ...(v.compensator !== null && { compensator: v.compensator }),
      ...(v.flow !== null && { pumpFlow: v.flow }),
      ...(v.peak !== null && { peak: { pressure: v.peak, samplesPerSecond: v.rate ?? 0.01 } }),
    };
    const found = settingsLadder(settings);
    const worst = found.steps.find((s) => s.verdict === "wrong") ?? found.steps.find((s) => s.verdict === "small");
    return {
      answer: found.good
        ? say({ text: "In order.", strong: true }, " Every setting lies below the next, with room.")
        : say(
            { text: worst?.message ?? "A peak passes the lowest rating.", strong: true },
            ...(found.reliefHeat === null ? [] : [" That is ", figure(found.reliefHeat, "power"), " of heat."]),
          ),
      tone: found.good
        ? "good"
        : found.steps.some((s) => s.verdict === "wrong") || (found.peakOverRating ?? 0) > 0
          ? "bad"
          : "doubt",
      notes: [
        ...(found.peakOverRating !== null && found.peakOverRating > 0 ? ["The peak passes the lowest rating."] : []),
        ...(found.peakSeen
          ? []
          : ["A logger this slow does not see a peak of milliseconds: the true peak may be higher."]),
      ],
      working: {
        formula: "cut-in < cut-out or compensator < relief < lowest rating",
        source: "Common practice; heat p·Q/600.",
        rows: found.rungs.map((r) => ({ label: r.name, value: r.pressure, quantity: "loadPressure" })),
      },
      table: {
        head: ["from", "to", "gap", "verdict"],
        rows: found.steps.map((s) => [s.from.name, s.to.name, { value: s.gap, quantity: "loadPressure" }, s.message]),
      },
      chart: {
        x: { label: "", places: true },
        y: { label: "pressure", quantity: "loadPressure", least: 0 },
        series: [{ label: "settings", style: "steps", points: found.rungs.map((r, i) => [i, r.pressure]) }],
        marks: found.rungs.map((r) => ({
          axis: "y" as const,
          at: r.pressure,
          label: r.name.replace(/: part.*/, ""),
          ...(r.id === "rating" && { tone: "limit" as const }),
        })),
      },
    };
  },
});

export const valveCalculators = [ladder, annular, cube, orifice, mixed, correction, bench];
