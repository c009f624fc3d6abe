/** Calculations about instruments and units. */
import { instrumentFitness } from "../instrument/fitness";
import { formatNumber } from "../units/format";
import { unitsOf, findUnit, fromCore, toCore, units } from "../units/units";
import { cautions } from "./cautions";
import { calculator, choice, figure, plain, quantity, say } from "./types";

const fitness = calculator({
  id: "gauge-fitness",
  group: "instrument",
  title: "Is this gauge fit?",
  asks: "Can this gauge survive the worst pressure, and is its error small against the change to be seen?",
  caution: cautions.gauge,
  fields: {
    scale: quantity("loadPressure", "420", { label: "Full scale" }),
    accuracy: plain("Class", "1.0", 0.05, 10, { suffix: "% of full scale" }),
    expected: quantity("loadPressure", "14", { label: "Usual value" }),
    greatest: quantity("loadPressure", "30", {
      label: "Greatest that can come",
      hint: "With the outlet closed, at the relief setting.",
    }),
    change: quantity("loadPressure", "14", { label: "Change to be seen" }),
  },
  compute(v) {
    const f = instrumentFitness({ fullScale: v.scale, accuracyClass: v.accuracy }, v);
    return {
      answer: say(
        {
          text: f.preferred
            ? "Suitable, and in the best part of its scale."
            : f.fit
              ? "Fit, but not the best."
              : "Not fit.",
          strong: true,
        },
        ` ${f.reasons.map((r) => r.message).join(" ")} Its error is ± `,
        figure(f.permissible, "loadPressure", 2),
        ", U ",
        figure(f.expanded, "loadPressure", 3),
        ` (${formatNumber(100 * f.share, 0)} % of the reading).`,
      ),
      tone: f.preferred ? "good" : f.fit ? "doubt" : "bad",
      working: {
        formula: "U = 2·(class·FS)/√3 ≤ a third of the change to be seen; full scale above the greatest value",
        source: "Class as the bound of a rectangle (GUM, type B).",
        rows: [
          { label: "class·FS", value: f.permissible, quantity: "loadPressure", digits: 3 },
          { label: "U, k = 2", value: f.expanded, quantity: "loadPressure", digits: 3 },
          { label: "U may be", value: f.allowed, quantity: "loadPressure", digits: 3 },
          { label: "place on the scale, %", value: f.place, digits: 2 },
        ],
      },
    };
  },
});

/** Symbols that can be converted into something else. */
const convertible = [...new Set(units.filter((u) => unitsOf(u.dimension).length > 1).map((u) => u.dimension))];
const dimensionLabels: Partial<Record<(typeof convertible)[number], string>> = {
  pressure: "pressure",
  flow: "flow",
  temperature: "temperature",
  temperatureDifference: "temperature difference",
  length: "length",
  displacement: "displacement",
  volume: "volume",
  power: "power",
  force: "force",
  torque: "torque",
  vacuum: "vacuum",
  time: "running time",
  duration: "duration",
  count: "particles",
  area: "area",
  pressureRate: "pressure over time",
  temperatureRate: "temperature over time",
  creepSpeed: "creep",
  concentration: "concentration",
};

const conversion = calculator({
  id: "units",
  group: "instrument",
  title: "Units",
  asks: "What is this in another unit?",
  fields: {
    dimension: choice(
      "Kind",
      convertible.map((d) => ({ value: d, label: dimensionLabels[d] ?? d })),
    ),
    value: plain("Value", "3000", -1e12, 1e12),
    unit: choice(
      "Unit",
      [
        "psi",
        ...new Set(units.filter((u) => convertible.includes(u.dimension) && u.symbol !== "psi").map((u) => u.symbol)),
      ].map((s) => ({ value: s, label: s })),
    ),
  },
  compute(v) {
    const dimension = v.dimension;
    const from = findUnit(v.unit, dimension);
    if (!from)
      throw new RangeError(
        `${v.unit} is no unit of ${dimensionLabels[dimension] ?? dimension}. Use ${unitsOf(dimension)
          .map((u) => u.symbol)
          .join(", ")}.`,
      );
    const core = toCore(v.value, from);
    const all = unitsOf(dimension);
    return {
      answer: say(
        { text: `${shown(v.value)} ${from.symbol}`, strong: true },
        ` is ${all
          .filter((u) => u.symbol !== from.symbol)
          .map((u) => `${shown(fromCore(core, u))} ${u.symbol}`)
          .join(", ")}.`,
      ),
      tone: "plain",
      working: {
        formula: "exact factors",
        source: "NIST Special Publication 811; 1 inHg at 0 °C is rounded there.",
        rows: all.map((u) => ({ label: u.symbol, value: fromCore(core, u), digits: 7 })),
      },
    };
  },
});

function shown(value: number): string {
  const digits = value === 0 ? 0 : Math.min(8, Math.max(0, 5 - Math.floor(Math.log10(Math.abs(value)))));
  return formatNumber(value, digits);
}

export const instrumentCalculators = [fitness, conversion];
