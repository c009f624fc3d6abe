/** Lives of parts: Weibull, age replacement, first passage of a drift. */
import { firstPassageCdf, firstPassageQuantile } from "../forecast/firstPassage";
import { ageReplacement, replacementCostRate } from "../lives/ageReplacement";
import { weibullFit, weibullReliability } from "../lives/weibull";
import { formatNumber } from "../units/format";
import { calculator, figure, maybe, plain, quantity, rows, say, spaced } from "./types";

const weibull = calculator({
  id: "weibull",
  group: "statistics",
  title: "Lives of parts",
  asks: "How long do these parts last, do they wear out, and when is one best replaced?",
  fields: {
    lives: rows(
      "Lives",
      [
        { id: "hours", label: "Hours" },
        { id: "failed", label: "1 failed, 0 still good" },
        { id: "entry", label: "Watched from", optional: true },
        { id: "good", label: "Still good at", optional: true },
      ],
      "4200 1\n6100 1\n7300 0\n5200 1\n8800 0\n6900 1\n9100 1\n3900 0\n7600 1\n10200 0",
      2,
      "One a line: hours, 1 failed or 0 still good; then, where they apply, hours at which watching began " +
        "(– for new) and hours at which it was last seen good.",
    ),
    planned: plain("Cost of a planned replacement", "1", 0.0001, 1e9),
    unplanned: plain("Cost of an unplanned one", "5", 0.0001, 1e9),
  },
  compute(v) {
    for (const [i, l] of v.lives.entries())
      if (l.failed !== 0 && l.failed !== 1)
        throw new RangeError(`Line ${i + 1}: write 1 for failed or 0 for still good.`);
    const fit = weibullFit(
      v.lives.map((l) => ({
        time: l.hours!,
        failed: l.failed === 1,
        ...(l.entry !== null && { entry: l.entry }),
        ...(l.good !== null && { goodAt: l.good }),
      })),
    );
    const input = {
      shape: fit.shape,
      scale: fit.scale,
      planned: v.planned,
      unplanned: v.unplanned,
      shapeInterval: fit.shapeInterval,
    };
    const best = ageReplacement(input);
    const wears =
      fit.shapeInterval.low > 1
        ? "they wear out"
        : fit.shapeInterval.high < 1
          ? "they fail early"
          : "whether they wear out is not proved";
    return {
      answer: say(
        "Shape ",
        { text: formatNumber(fit.shape, 2), strong: true },
        ` (${formatNumber(fit.shapeInterval.low, 2)} to ${formatNumber(fit.shapeInterval.high, 2)}): ${wears}. Scale `,
        figure(fit.scale, "runningHours"),
        ". ",
        ...(best.age === null
          ? [best.note]
          : [
              "Cheapest to replace at ",
              figure(best.age, "runningHours"),
              `, ${formatNumber(100 * (1 - best.costRate / best.runToFailure), 0)} % below running to failure. ${best.note}`,
            ]),
      ),
      tone: best.note ? "doubt" : "plain",
      notes: [`${fit.failures} of ${fit.lives} failed; the others say “at least”.`],
      working: {
        formula: "Weibull by maximum likelihood, intervals by profile likelihood (95 %); cost (C_p·R + C_f·F)/∫R",
        source: "Meeker and Escobar (1998); Barlow and Hunter, Operations Research 8 (1960).",
        rows: [
          { label: "shape", value: fit.shape, digits: 4 },
          { label: "scale", value: fit.scale, quantity: "runningHours", digits: 4 },
          { label: "scale from", value: fit.scaleInterval.low, quantity: "runningHours", digits: 3 },
          { label: "scale to", value: fit.scaleInterval.high, quantity: "runningHours", digits: 3 },
          {
            label: "a tenth has failed by",
            value: fit.scale * (-Math.log(0.9)) ** (1 / fit.shape),
            quantity: "runningHours",
            digits: 3,
          },
          { label: "log likelihood", value: fit.logLikelihood, digits: 5 },
        ],
      },
      chart: {
        x: { label: "age at replacement", quantity: "runningHours", least: 0 },
        y: { label: "cost over running to failure", least: 0 },
        series: [
          {
            label: "cost",
            style: "line",
            points: spaced(0.08 * fit.scale, 2.2 * fit.scale).map((t) => [
              t,
              Math.min(3, replacementCostRate(t, input) / best.runToFailure),
            ]),
          },
          {
            label: "share still good",
            style: "dashed",
            points: spaced(0, 2.2 * fit.scale).map((t) => [t, weibullReliability(t, fit)]),
          },
        ],
        ...(best.age !== null && { marks: [{ axis: "x", at: best.age, label: "cheapest" }] }),
      },
    };
  },
});

const replacement = calculator({
  id: "age-replacement",
  group: "statistics",
  title: "Best age to replace",
  asks: "At which age is a part with this life best replaced?",
  fields: {
    shape: plain("Shape", "2.5", 0.05, 30),
    scale: quantity("runningHours", "10000", { label: "Scale" }),
    planned: plain("Cost of a planned replacement", "1", 0.0001, 1e9),
    unplanned: plain("Cost of an unplanned one", "5", 0.0001, 1e9),
  },
  compute(v) {
    const best = ageReplacement(v);
    return {
      answer:
        best.age === null
          ? say({ text: "Run to failure.", strong: true }, ` ${best.note}`)
          : say(
              "Replace at ",
              figure(best.age, "runningHours", 4),
              `: ${formatNumber(100 * (1 - best.costRate / best.runToFailure), 0)} % cheaper than running to failure.`,
            ),
      tone: "plain",
      working: {
        formula: "least (C_p·R(T) + C_f·F(T))/∫₀ᵀ R dt",
        source: "Barlow and Hunter, Operations Research 8 (1960).",
        rows: [
          ...(best.age === null ? [] : [{ label: "T", value: best.age, quantity: "runningHours" as const, digits: 5 }]),
          { label: "cost an hour", value: best.costRate, digits: 5 },
          { label: "run to failure", value: best.runToFailure, digits: 5 },
        ],
      },
      chart: {
        x: { label: "age at replacement", quantity: "runningHours", least: 0 },
        y: { label: "cost over running to failure", least: 0 },
        series: [
          {
            label: "cost",
            style: "line",
            points: spaced(0.08 * v.scale, 2.2 * v.scale).map((t) => [
              t,
              Math.min(3, replacementCostRate(t, v) / best.runToFailure),
            ]),
          },
        ],
        ...(best.age !== null && { marks: [{ axis: "x", at: best.age, label: "cheapest" }] }),
      },
    };
  },
});

const passage = calculator({
  id: "first-passage",
  group: "statistics",
  title: "Time to a limit",
  asks: "When does something that drifts and wanders first reach its limit?",
  fields: {
    distance: plain("Distance to the limit", "5", 1e-9, 1e12),
    drift: plain("Drift an hour", "0.2", 1e-12, 1e12),
    sigma: plain("Wander, per √hour", "0.3", 1e-12, 1e12),
    by: maybe("runningHours", { label: "Chance by", example: "30" }),
  },
  compute(v) {
    const at = (p: number) => firstPassageQuantile(p, v.distance, v.drift, v.sigma);
    const chance = v.by === null ? null : firstPassageCdf(v.by, v.distance, v.drift, v.sigma);
    return {
      answer: say(
        "Between ",
        figure(at(0.1), "runningHours"),
        " and ",
        figure(at(0.9), "runningHours"),
        " (P10 to P90), middle ",
        figure(at(0.5), "runningHours"),
        ...(chance === null
          ? ["."]
          : ["; ", { text: `${formatNumber(100 * chance, 0)} %`, strong: true }, " by then."]),
      ),
      tone: "plain",
      working: {
        formula: "inverse Gaussian, mean a/v, shape (a/σ)²",
        source: "Folks and Chhikara, J. R. Stat. Soc. B 40 (1978).",
        rows: ([0.1, 0.5, 0.9] as const).map((p) => ({
          label: `P${100 * p}`,
          value: at(p),
          quantity: "runningHours",
          digits: 5,
        })),
      },
      chart: {
        x: { label: "hours", quantity: "runningHours", least: 0 },
        y: { label: "chance that it has been reached", least: 0 },
        series: [
          {
            label: "chance",
            style: "line",
            points: spaced(0, at(0.98)).map((t) => [t, firstPassageCdf(t, v.distance, v.drift, v.sigma)]),
          },
        ],
      },
    };
  },
});

export const livesCalculators = [weibull, replacement, passage];
