/** A clean-up by the balance of the tank: ways to clean, beside one that was watched. */
import {
  DAY,
  cleanUpPlan,
  countAfter,
  countFor,
  countsOfCode,
  fitCleanUp,
  formatNumber,
  incomparable,
  ingressFrom,
  together,
  type CalculatorChart,
  type OilSample,
  type TankBalance,
  type UnitPreference,
} from "@core";
import { calculatorChart } from "~/ui/charts/calculation";
import { quantityText } from "~/ui/site";

/** Particles over 14 µm: what the target asks hardest, and what the element is stated for nearest. */
export const SIZE = "over14";
/** Samples that follow each other within a day, one cleaner than the other, are a clean-up that was watched. */
const WATCH_MS = DAY;

export interface Watched {
  start: OilSample;
  points: { minutes: number; count: number }[];
}

/** The newest run of at least four samples of one working day whose counts fall. */
export function watchedCleanUp(samples: readonly OilSample[]): Watched | null {
  const counted = samples.filter((s) => !incomparable(s) && countFor(s, SIZE) !== null && s.hours !== null);
  for (let end = counted.length; end >= 4; end--) {
    const last = counted[end - 1]!;
    const run = counted.slice(0, end).filter((s) => last.at - s.at <= WATCH_MS);
    if (run.length < 4 || countFor(last, SIZE)! > 0.5 * countFor(run[0]!, SIZE)!) continue;
    return {
      start: run[0]!,
      points: run.map((s) => ({ minutes: (s.hours! - run[0]!.hours!) * 60, count: countFor(s, SIZE)! })),
    };
  }
  return null;
}

/** What is typed, all of it within its bounds. */
export interface CleanUpGiven {
  volume: number;
  flow: number;
  beta: number;
  settled: number;
  count: number;
  code: number;
  better: number;
  loopFlow: number;
  loopBeta: number;
}

/** The ways to clean with their times, and both charts. */
export function cleanUpResult(given: CleanUpGiven, watched: Watched | null, units: UnitPreference) {
  const { volume, flow, beta, settled, count, code, better, loopFlow, loopBeta } = given;
  const balance: TankBalance = { volume, flow, beta, ingress: ingressFrom(settled, flow, beta) };
  const target = countsOfCode(code).upTo;
  const ways = [
    { label: "as it is", balance },
    ...(better > 1 ? [{ label: `element β ${formatNumber(better, 0)}`, balance: { ...balance, beta: better } }] : []),
    ...(loopFlow > 0 && loopBeta > 1
      ? [
          {
            label: `with an off-line loop, ${quantityText(loopFlow, "flow", { units })}, β ${formatNumber(loopBeta, 0)}`,
            balance: { ...balance, ...together(balance, { flow: loopFlow, beta: loopBeta }) },
          },
        ]
      : []),
  ].map((w) => ({ ...w, plan: cleanUpPlan(w.balance, count, target) }));
  const fit = watched ? fitCleanUp(balance, watched.points) : null;
  return {
    ways,
    chart: calculatorChart(waysChart(ways, count, code, target), units),
    fit,
    fitChart: watched ? calculatorChart(fitChart(balance, watched, fit), units) : null,
    target,
  };
}

export type CleanUpResult = ReturnType<typeof cleanUpResult>;
type Way = { label: string; balance: TankBalance; plan: ReturnType<typeof cleanUpPlan> };

function waysChart(ways: readonly Way[], count: number, code: number, target: number): CalculatorChart {
  const reach = Math.max(10, ...ways.map((w) => w.plan.minutes ?? 0)) * 1.3;
  const lines = ways.map((w, i) => ({
    label: w.label,
    style: i === 0 ? ("line" as const) : ("dashed" as const),
    points: Array.from({ length: 41 }, (_, k): [number, number] => [
      (reach * k) / 40,
      Math.max(0.01, countAfter(w.balance, count, (reach * k) / 40)),
    ]),
  }));
  return {
    x: { label: "running minutes", least: 0 },
    y: { label: "particles over 14 µm", quantity: "count", log: true },
    series: lines,
    marks: [{ axis: "y", at: target, label: `target ${code}`, tone: "limit" }],
  };
}

function fitChart(balance: TankBalance, watched: Watched, fit: ReturnType<typeof fitCleanUp>): CalculatorChart {
  return {
    x: { label: "running minutes since the first sample", least: 0 },
    y: { label: "particles over 14 µm", quantity: "count", log: true },
    series: [
      {
        label: "by the balance",
        style: "dashed",
        points: Array.from({ length: 61 }, (_, k): [number, number] => {
          const t = (watched.points.at(-1)!.minutes * k) / 60;
          return [t, Math.max(0.01, countAfter(balance, watched.points[0]!.count, t))];
        }),
      },
      ...(fit
        ? [
            {
              label: "as measured, fitted",
              style: "line" as const,
              points: Array.from({ length: 61 }, (_, k): [number, number] => {
                const t = (watched.points.at(-1)!.minutes * k) / 60;
                return [t, Math.max(0.01, fit.fitted(t))];
              }),
            },
          ]
        : []),
      {
        label: "samples",
        style: "points",
        points: watched.points.map((p): [number, number] => [p.minutes, p.count]),
      },
    ],
  };
}
