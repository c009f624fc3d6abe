/** Trends and changes in a series of readings. */
import { cusum, falseAlarmRate } from "../change/cusum";
import { ewma } from "../change/ewma";
import { outliers } from "../change/outliers";
import { stepOrDrift } from "../change/stepOrDrift";
import { mannKendall } from "../trend/mannKendall";
import { median, robustSpread } from "../trend/robust";
import { theilSen } from "../trend/theilSen";
import { formatNumber } from "../units/format";
import { calculator, maybePlain, plain, rows, say } from "./types";

const series = rows(
  "Readings",
  [
    { id: "time", label: "Time" },
    { id: "value", label: "Value" },
  ],
  "0 2.1\n1 2.0\n2 2.3\n3 2.3\n4 2.2\n5 2.5\n6 2.4\n7 2.4\n8 2.7\n9 2.5",
  4,
  "One a line: time in any unit, value.",
);

const values = rows(
  "Values",
  [{ id: "value", label: "Value" }],
  "10.1\n9.8\n10.3\n9.9\n10.0\n10.2\n9.7\n10.1\n10.0\n9.9\n10.8\n11.1\n10.7\n11.2\n10.9\n11.4\n11.0\n11.3",
  3,
  "One a line, in order of time.",
);

const trend = calculator({
  id: "trend",
  group: "statistics",
  title: "Trend",
  asks: "Does this series rise or fall beyond its scatter, and how fast?",
  fields: { series },
  compute(v) {
    const [x, y] = [v.series.map((r) => r.time!), v.series.map((r) => r.value!)];
    const [test, line] = [mannKendall(y), theilSen(x, y)];
    const proved = test.p < 0.05;
    return {
      answer: say(
        { text: proved ? (line.slope > 0 ? "It rises" : "It falls") : "No trend is proved", strong: true },
        proved ? ` by ${formatNumber(Math.abs(line.slope), 4)} a unit of time` : "",
        ` (95 %: ${formatNumber(line.low, 4)} to ${formatNumber(line.high, 4)}; p ${formatNumber(test.p, 4)}).`,
      ),
      tone: "plain",
      notes: ["Where many series are tested at once, one in twenty shows p < 0.05 by chance."],
      working: {
        formula: "Mann-Kendall, two-sided, with ties and continuity correction; Theil-Sen slope with Sen's interval",
        source: "Mann (1945), Kendall (1975), Sen (1968).",
        rows: [
          { label: "S", value: test.s, digits: 3 },
          { label: "z", value: test.z, digits: 4 },
          { label: "p", value: test.p, digits: 3 },
          { label: "slope", value: line.slope, digits: 4 },
          { label: "intercept", value: line.intercept, digits: 4 },
        ],
      },
      chart: {
        x: { label: "time" },
        y: { label: "value" },
        series: [
          {
            label: "Theil-Sen",
            style: "line",
            points: [Math.min(...x), Math.max(...x)].map((t) => [t, line.intercept + line.slope * t]),
          },
          { label: "values", style: "points", points: x.map((t, i) => [t, y[i]!]) },
        ],
      },
    };
  },
});

function chartTarget(all: readonly number[], baseline: number, target: number | null, sigma: number | null) {
  const first = all.slice(0, baseline);
  return {
    target: target ?? median(first),
    sigma: sigma ?? robustSpread(first),
    known: target !== null && sigma !== null,
  };
}

const baselineField = plain("Baseline: the first", "10", 3, 500, { suffix: "values" });

const cusumCalculator = calculator({
  id: "cusum",
  group: "statistics",
  title: "Change by CUSUM",
  asks: "Has the level moved, since when, and how often would this give a false alarm?",
  fields: {
    values,
    baseline: baselineField,
    target: maybePlain("Target", -1e9, 1e9, { hint: "Left out: the median of the baseline." }),
    sigma: maybePlain("Sigma", 0, 1e9, { hint: "Left out: the robust spread of the baseline." }),
    k: plain("k", "0.5", 0.05, 5),
    h: plain("h", "5", 0.5, 50),
  },
  compute(v) {
    const all = v.values.map((r) => r.value!);
    const { target, sigma, known } = chartTarget(all, Math.round(v.baseline), v.target, v.sigma);
    if (!(sigma > 0)) throw new RangeError("The baseline does not vary: give sigma, or values with more digits.");
    const watched = known ? all : all.slice(Math.round(v.baseline));
    const offset = all.length - watched.length;
    const found = cusum(watched, { target, sigma, k: v.k, h: v.h });
    const signal = found.signals[0];
    const wolf =
      watched.length > 0
        ? falseAlarmRate({
            readings: Math.min(200, watched.length),
            baseline: known ? Infinity : Math.min(200, Math.round(v.baseline)),
            k: v.k,
            h: v.h,
            runs: 600,
          })
        : 0;
    return {
      answer: signal
        ? say(
            {
              text: `It moved ${signal.arm === "upper" ? "up" : "down"} after value ${offset + signal.since}`,
              strong: true,
            },
            `, seen at value ${offset + signal.index + 1}.`,
          )
        : say({ text: "No change.", strong: true }, ` The arms stay within ${formatNumber(v.h, 1)} sigma.`),
      tone: signal ? "doubt" : "good",
      notes: [
        `If nothing had changed, ${formatNumber(100 * wolf, 0)} % of series this long would still ` +
          `signal${known ? "" : `, since the baseline has only ${formatNumber(Math.min(all.length, v.baseline), 0)} values`} ` +
          `(by simulation).`,
      ],
      working: {
        formula: "C⁺ = max(0, C⁺ + z − k), C⁻ = max(0, C⁻ − z − k); a signal above h",
        source: "Montgomery, Introduction to Statistical Quality Control.",
        rows: [
          { label: "target", value: target, digits: 4 },
          { label: "sigma", value: sigma, digits: 3 },
          { label: "largest C⁺", value: Math.max(0, ...found.upper), digits: 3 },
          { label: "largest C⁻", value: Math.max(0, ...found.lower), digits: 3 },
        ],
      },
      chart: {
        x: { label: "value" },
        y: { label: "sigma" },
        series: [
          { label: "up", style: "line", points: found.upper.map((c, i) => [offset + i + 1, c]) },
          { label: "down", style: "dashed", points: found.lower.map((c, i) => [offset + i + 1, -c]) },
        ],
        marks: [
          { axis: "y", at: v.h, label: "h", tone: "limit" },
          { axis: "y", at: -v.h, label: "−h", tone: "limit" },
        ],
      },
    };
  },
});

const ewmaCalculator = calculator({
  id: "ewma",
  group: "statistics",
  title: "Change by EWMA",
  asks: "Has a moving average left its limits?",
  fields: {
    values,
    baseline: baselineField,
    target: maybePlain("Target", -1e9, 1e9),
    sigma: maybePlain("Sigma", 0, 1e9),
    lambda: plain("λ", "0.2", 0.01, 1),
    L: plain("L", "2.962", 0.5, 10),
  },
  compute(v) {
    const all = v.values.map((r) => r.value!);
    const { target, sigma } = chartTarget(all, Math.round(v.baseline), v.target, v.sigma);
    if (!(sigma > 0)) throw new RangeError("The baseline does not vary: give sigma, or values with more digits.");
    const found = ewma(all, { target, sigma, lambda: v.lambda, L: v.L });
    const first = found.signals[0];
    return {
      answer:
        first === undefined
          ? say({ text: "Within its limits.", strong: true })
          : say({ text: `It left its limits at value ${first + 1}.`, strong: true }),
      tone: first === undefined ? "good" : "doubt",
      working: {
        formula: "z = λ·x + (1 − λ)·z; limits target ± L·σ·√(λ/(2 − λ))",
        source: "Roberts, Technometrics 1 (1959).",
        rows: [
          { label: "target", value: target, digits: 4 },
          { label: "sigma", value: sigma, digits: 3 },
          { label: "upper", value: found.upper, digits: 4 },
          { label: "lower", value: found.lower, digits: 4 },
        ],
      },
      chart: {
        x: { label: "value" },
        y: { label: "" },
        series: [
          { label: "average", style: "line", points: found.values.map((z, i) => [i + 1, z]) },
          { label: "values", style: "points", points: all.map((x, i) => [i + 1, x]) },
        ],
        marks: [
          { axis: "y", at: found.upper, label: "upper", tone: "limit" },
          { axis: "y", at: found.lower, label: "lower", tone: "limit" },
        ],
      },
    };
  },
});

const shape = calculator({
  id: "step-or-drift",
  group: "statistics",
  title: "Step or drift?",
  asks: "Did something happen at once, or has it been going on? And which readings are odd?",
  fields: {
    series: rows(
      "Readings",
      [
        { id: "time", label: "Time" },
        { id: "value", label: "Value" },
      ],
      "0 5.1\n1 4.9\n2 5.0\n3 5.1\n4 4.9\n5 5.0\n6 6.0\n7 6.1\n8 5.9\n9 6.0\n10 6.1\n11 6.0",
      6,
      "One a line: time in any unit, value.",
    ),
  },
  compute(v) {
    const [x, y] = [v.series.map((r) => r.time!), v.series.map((r) => r.value!)];
    const found = stepOrDrift(x, y);
    const odd = outliers(y);
    const words = {
      none: "It stays.",
      step: `It jumped by ${formatNumber(found.size, 3)} at time ${formatNumber(x[found.at ?? 0]!, 2)}.`,
      drift: `It drifts: ${formatNumber(found.size, 3)} from first to last.`,
    };
    return {
      answer: say(
        { text: words[found.kind], strong: true },
        ` Weight ${formatNumber(100 * found.weights[found.kind], 0)} %.`,
        odd.length
          ? ` Odd: ${odd.map((o) => `time ${formatNumber(x[o.index]!, 2)}`).join(", ")}; marked, not deleted.`
          : "",
      ),
      tone: "plain",
      notes:
        found.kind === "step"
          ? ["A step at an intervention or a change of instrument is expected: ask first what was done that day."]
          : [],
      working: {
        formula: "constant, step at the best place and line compared by BIC",
        source: "Schwarz, Annals of Statistics 6 (1978).",
        rows: (["none", "step", "drift"] as const).map((k) => ({
          label: { none: "constant", step: "step", drift: "line" }[k],
          value: found.weights[k],
          digits: 3,
        })),
      },
      chart: {
        x: { label: "time" },
        y: { label: "value" },
        series: [{ label: "values", style: "points", points: x.map((t, i) => [t, y[i]!]) }],
        ...(found.at !== null && { marks: [{ axis: "x", at: x[found.at]!, label: "step" }] }),
      },
    };
  },
});

export const statisticsCalculators = [trend, cusumCalculator, ewmaCalculator, shape];
