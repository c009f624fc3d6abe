/** Calculations about the fluid. */
import { gradeOf } from "../fluid/grade";
import { gapPressureFactor, viscosityUnderPressure } from "../fluid/pressureViscosity";
import { fluidSuitability, fluidTypeIds, fluidTypes } from "../fluid/suitability";
import {
  densityAt,
  dynamicViscosity,
  kinematicViscosity,
  viscosityTemperatureSensitivity,
  waltherConstants,
} from "../fluid/viscosity";
import { solubilityFrom, waterSaturation, waterShare } from "../fluid/water";
import { formatNumber } from "../units/format";
import { calculator, choice, figure, plain, quantity, say, spaced } from "./types";

const kv40 = quantity("viscosity", "46", { label: "Viscosity at 40 °C", take: "kv40" });
const kv100 = quantity("viscosity", "6.8", { label: "Viscosity at 100 °C", take: "kv100" });
const density15 = quantity("density", "875", { label: "Density at 15 °C", take: "density15" });
const D341 = "ASTM D341.";

const viscosity = calculator({
  id: "viscosity",
  group: "fluid",
  title: "Viscosity at a temperature",
  asks: "How thick is this oil here, and in which temperatures does it suit?",
  fields: {
    kv40,
    kv100,
    density15,
    temperature: quantity("oilTemperature", "50", { label: "Oil temperature" }),
    least: quantity("viscosity", "10", { label: "Least permitted" }),
    greatest: quantity("viscosity", "1000", { label: "Greatest at start" }),
  },
  compute(v) {
    const fluid = { kv40: v.kv40, kv100: v.kv100, density15: v.density15 };
    const nu = kinematicViscosity(fluid, v.temperature);
    const { a, b } = waltherConstants(fluid);
    const at = (wanted: number) => 10 ** ((a - Math.log10(Math.log10(wanted + 0.7))) / b) - 273.15;
    const [cold, hot] = [at(v.greatest), at(v.least)];
    const good = nu >= v.least && nu <= v.greatest;
    return {
      answer: say(
        "At ",
        figure(v.temperature, "oilTemperature"),
        " it has ",
        figure(nu, "viscosity", 4),
        " (",
        figure(dynamicViscosity(fluid, v.temperature), "dynamicViscosity", 4),
        "). It suits from ",
        figure(cold, "oilTemperature"),
        " to ",
        figure(hot, "oilTemperature"),
        ".",
      ),
      tone: good ? "plain" : "bad",
      working: {
        formula: "log10 log10(ν + 0.7) = A − B·log10(T), T in K",
        source: D341,
        note: `A kelvin changes it by ${formatNumber(100 * viscosityTemperatureSensitivity(fluid, v.temperature), 1)} % here.`,
        rows: [
          { label: "A", value: a, digits: 5 },
          { label: "B", value: b, digits: 5 },
          { label: "ν", value: nu, quantity: "viscosity", digits: 4 },
          { label: "ρ", value: densityAt(v.density15, v.temperature), quantity: "density", digits: 4 },
        ],
      },
      chart: {
        x: { label: "oil", quantity: "oilTemperature" },
        y: { label: "kinematic viscosity", quantity: "viscosity", log: true },
        series: [
          { label: "this oil", style: "line", points: spaced(-20, 110).map((t) => [t, kinematicViscosity(fluid, t)]) },
          { label: "here", style: "points", points: [[v.temperature, nu]] },
        ],
        bands: [{ axis: "y", from: v.least, to: v.greatest, label: "permitted" }],
      },
    };
  },
});

const grade = calculator({
  id: "viscosity-grade",
  group: "fluid",
  title: "Viscosity grade",
  asks: "Which grade is this oil, and has it left its grade?",
  fields: { kv40, new40: quantity("viscosity", "46", { label: "The new oil's at 40 °C" }) },
  compute(v) {
    const found = gradeOf(v.kv40);
    const change = 100 * (v.kv40 / v.new40 - 1);
    return {
      answer: say(
        found.within ? "It is " : "It lies outside every grade, nearest to ",
        { text: `VG ${found.grade}`, strong: true },
        ` (${formatNumber(found.low, 1)} to ${formatNumber(found.high, 1)} mm²/s), ` +
          `${formatNumber(Math.abs(change), 1)} % ${change < 0 ? "thinner" : "thicker"} than new.`,
      ),
      tone: !found.within || Math.abs(change) > 10 ? "doubt" : "good",
      notes:
        Math.abs(change) > 10
          ? ["More than 10 % from new: sheared, diluted, aged or mixed. Ask the laboratory which."]
          : [],
      working: {
        formula: "VG n: n ± 10 % at 40 °C",
        source: "ISO 3448.",
        rows: [
          { label: "ν at 40 °C", value: v.kv40, quantity: "viscosity", digits: 4 },
          { label: "grade from", value: found.low, quantity: "viscosity", digits: 4 },
          { label: "grade to", value: found.high, quantity: "viscosity", digits: 4 },
        ],
      },
    };
  },
});

const pressure = calculator({
  id: "viscosity-pressure",
  group: "fluid",
  title: "Viscosity under pressure",
  asks: "How much thicker does pressure make the oil, and what does that do to leakage?",
  fields: {
    mu: quantity("dynamicViscosity", "26", { label: "Viscosity at atmosphere" }),
    pressure: quantity("loadPressure", "200", { label: "Pressure" }),
    alpha: plain("Pressure coefficient", "0.002", 0, 0.01, { suffix: "1/bar" }),
  },
  compute(v) {
    const factor = gapPressureFactor(v.pressure, v.alpha);
    return {
      answer: say(
        "It is ",
        figure(viscosityUnderPressure(v.mu, v.pressure, v.alpha), "dynamicViscosity"),
        " under pressure; a gap leaks ",
        { text: `${formatNumber(100 * (1 - factor), 0)} % less`, strong: true },
        " than the oil at atmosphere would.",
      ),
      tone: "plain",
      working: {
        formula: "μ(p) = μ0·exp(αp); mean factor through a gap (1 − e^(−αp))/(αp)",
        source: "Barus; α about 2e-3 per bar for mineral oil (common handbook value, memory).",
        rows: [
          { label: "α·p", value: v.alpha * v.pressure, digits: 3 },
          { label: "factor", value: factor, digits: 3 },
        ],
      },
      chart: {
        x: { label: "pressure", quantity: "loadPressure", least: 0 },
        y: { label: "dynamic viscosity", quantity: "dynamicViscosity", least: 0 },
        series: [
          {
            label: "viscosity",
            style: "line",
            points: spaced(0, 2 * v.pressure).map((p) => [p, viscosityUnderPressure(v.mu, p, v.alpha)]),
          },
        ],
      },
    };
  },
});

const water = calculator({
  id: "water",
  group: "fluid",
  title: "Water in oil",
  asks: "Is the water dissolved, and at which temperature would it come free?",
  fields: {
    ppm: quantity("concentration", "300", { label: "Water found" }),
    temperature: quantity("oilTemperature", "50", { label: "Oil temperature" }),
    t1: quantity("oilTemperature", "20", { label: "The oil dissolves at" }),
    s1: quantity("concentration", "120", { label: "this much" }),
    t2: quantity("oilTemperature", "80", { label: "and at" }),
    s2: quantity("concentration", "600", { label: "this much", hint: "The fluid's own data, from its manufacturer." }),
  },
  compute(v) {
    const data = solubilityFrom({ temperature: v.t1, ppm: v.s1 }, { temperature: v.t2, ppm: v.s2 });
    const share = waterShare(v.ppm, v.temperature, data);
    const free = data.b / (data.a - Math.log10(Math.max(v.ppm, 1e-3))) - 273.15;
    return {
      answer: say(
        "It is at ",
        { text: `${formatNumber(share, 0)} % of saturation`, strong: true },
        share > 100 ? ": free water. " : ". ",
        "It comes free below ",
        figure(free, "oilTemperature"),
        ".",
      ),
      tone: share > 100 ? "bad" : share > 70 ? "doubt" : "good",
      notes: [
        "Free water rusts, feeds wear and freezes. Find where it enters: breather, cooler, rod seals, wash-down.",
      ],
      working: {
        formula: "log10 S = A − B/T, T in K",
        source: "The fluid's own data.",
        rows: [
          { label: "A", value: data.a, digits: 4 },
          { label: "B, K", value: data.b, digits: 4 },
          { label: "S here", value: waterSaturation(v.temperature, data), quantity: "concentration", digits: 3 },
        ],
      },
      chart: {
        x: { label: "oil", quantity: "oilTemperature" },
        y: { label: "water dissolved at most", quantity: "concentration", least: 0 },
        series: [
          { label: "saturation", style: "line", points: spaced(0, 90).map((t) => [t, waterSaturation(t, data)]) },
          { label: "found", style: "points", points: [[v.temperature, v.ppm]] },
        ],
      },
    };
  },
});

const suitability = calculator({
  id: "fluid-suitability",
  group: "fluid",
  title: "Does this fluid suit?",
  asks: "Will this fluid carry this component cold, at work and hot?",
  fields: {
    type: choice(
      "Type of fluid",
      fluidTypeIds.map((id) => ({ value: id, label: fluidTypes[id] })),
    ),
    made: choice(
      "Component is made for",
      fluidTypeIds.map((id) => ({ value: id, label: fluidTypes[id] })),
    ),
    kv40,
    kv100,
    start: quantity("oilTemperature", "5", { label: "Coldest start" }),
    working: quantity("oilTemperature", "50", { label: "At work" }),
    hottest: quantity("oilTemperature", "68", { label: "Hottest" }),
    least: quantity("viscosity", "10", { label: "Least" }),
    bestLow: quantity("viscosity", "16", { label: "Best from" }),
    bestHigh: quantity("viscosity", "36", { label: "Best to" }),
    greatest: quantity("viscosity", "1000", {
      label: "Greatest at start",
      hint: "The manufacturer's figures; here usual ones of a piston pump (common practice).",
    }),
  },
  compute(v) {
    const found = fluidSuitability(
      { kv40: v.kv40, kv100: v.kv100, type: v.type },
      {
        least: v.least,
        bestLow: v.bestLow,
        bestHigh: v.bestHigh,
        greatestAtStart: v.greatest,
        types: [v.made],
      },
      v,
    );
    const bad = found.filter((f) => f.verdict === "bad");
    const outside = found.filter((f) => f.verdict === "outsideBest");
    return {
      answer:
        bad.length > 0
          ? say({ text: "No.", strong: true }, ` It is ${bad.map((f) => f.message).join("; ")}.`)
          : outside.length > 0
            ? say({ text: "Yes, with a cost.", strong: true }, ` It is ${outside[0]!.message}.`)
            : say({ text: "Yes.", strong: true }, " Cold, at work and hot it lies in the range."),
      tone: bad.length > 0 ? "bad" : outside.length > 0 ? "doubt" : "good",
      working: {
        formula: "ν at each temperature against the component's range",
        source: `${D341} Range: the manufacturer's figures.`,
        rows: found
          .filter((f) => f.viscosity !== null)
          .map((f) => ({ label: `ν, ${f.at}`, value: f.viscosity!, quantity: "viscosity", digits: 3 })),
      },
      table: {
        head: ["when", "oil", "viscosity", "finding"],
        rows: found.map((f) => [
          f.at,
          f.temperature === null ? "" : { value: f.temperature, quantity: "oilTemperature" },
          f.viscosity === null ? "" : { value: f.viscosity, quantity: "viscosity", digits: 3 },
          f.message,
        ]),
      },
    };
  },
});

export const fluidCalculators = [viscosity, suitability, grade, water, pressure];
