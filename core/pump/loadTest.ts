/**
 * Load test of a pump: all flow through a meter and over a relief valve that is raised in steps. Model at the
 * pump's outlet: Q = Q_0·(n/n_ref)·(1 − p/K) − G·p/μ(T), and a turbulent part H·√p where the steps ask for
 * it. Q_0 low: inlet, speed or displacement. G high: worn clearances. Fitted by weighted least squares.
 */
import { dynamicViscosity, type Fluid } from "../fluid/viscosity";
import { solveSymmetric } from "../trend/linear";
import { studentQuantile } from "../numeric/student";
import { theoreticalFlow } from "./flow";

export interface LoadStep {
  /** bar, at the pump's outlet */
  pressure: number;
  /** L/min */
  flow: number;
  /** Oil temperature, °C; the reference temperature when left out. */
  temperature?: number;
  /** r/min; the pump's stated speed when left out. */
  speed?: number;
}

export interface LoadTestPump {
  /** cm³/rev */
  displacement: number;
  /** r/min */
  speed: number;
  /** bar: the pressure at which the pump has to deliver. */
  workingPressure: number;
  fluid?: Fluid;
  /** °C; 50 when left out. */
  referenceTemperature?: number;
  /** Pressure at which its compensator begins to act, bar: steps from 97 % of it are left out. */
  compensatorPressure?: number;
  /** Where the meter stands: in the pressure line (at the outlet) or after the relief valve, in the line to tank. */
  meter?: "outlet" | "tank";
  /** Standard uncertainty of the meter, relative to its reading; 0.01 when left out. */
  flowUncertainty?: number;
  /** Drop from no load to working pressure that is still good, percent of theoretical flow; 10 when left out (common practice). */
  allowedDrop?: number;
  /** Shortfall at no load that is still good, percent of theoretical flow; 5 when left out (common practice). */
  allowedShortfall?: number;
  /** bar; 14 000 when left out (common handbook value, memory). */
  bulkModulus?: number;
}

export interface Estimate {
  value: number;
  low: number;
  high: number;
}

export type LoadVerdict = "good" | "wear" | "inlet" | "wearAndInlet" | "notConclusive";

export interface LoadTestResult {
  verdict: LoadVerdict;
  /** Why, in words. */
  reason: string;
  /** Flow without load at the stated speed, L/min. Intervals are two-sided 95 %. */
  noLoadFlow: Estimate;
  /** No-load flow over theoretical flow. */
  noLoadShare: Estimate;
  /** Drop by leakage from no load to working pressure at the reference temperature, percent of theoretical flow. */
  drop: Estimate;
  /** Leak conductance G: L·mPa·s/(min·bar) with a fluid, L/(min·bar) without. */
  conductance: Estimate;
  /** Turbulent part H in L/(min·√bar); null when the steps do not ask for it. */
  turbulent: number | null;
  theoretical: number;
  /** Steps with the flow brought to the outlet and the fitted one; left: why a step was left out. */
  steps: { pressure: number; flow: number; fitted: number; left: string | null }[];
  /** Flow at the outlet by the fit, at the stated speed and reference temperature, L/min. */
  flowAt(pressure: number): number;
}

const COMPENSATES_FROM = 0.97;
const REACHES = 0.95;
const BULK_MODULUS = 14_000;
/** F of one added coefficient that is believed (about 1 % with few steps). */
const TURBULENT_F = 12;

interface Fit {
  x: number[];
  inverse: number[][];
  residual: number;
  freedom: number;
}

function weightedFit(rows: readonly number[][], y: readonly number[], weights: readonly number[]): Fit {
  const k = rows[0]!.length;
  const normal = Array.from({ length: k }, (_, i) =>
    Array.from({ length: k }, (_, j) => rows.reduce((sum, r, n) => sum + weights[n]! * r[i]! * r[j]!, 0)),
  );
  const right = Array.from({ length: k }, (_, i) => rows.reduce((sum, r, n) => sum + weights[n]! * r[i]! * y[n]!, 0));
  const { x, inverse } = solveSymmetric(normal, right);
  const residual = rows.reduce(
    (sum, r, n) => sum + weights[n]! * (y[n]! - r.reduce((s, v, i) => s + v * x[i]!, 0)) ** 2,
    0,
  );
  return { x, inverse, residual, freedom: rows.length - k };
}

/**
 * Analyse the steps of a load test, at least 3 of them usable.
 * @throws {RangeError} when displacement, speed or working pressure is not above zero, or with fewer than 3 usable steps.
 */
export function analyseLoadTest(steps: readonly LoadStep[], pump: LoadTestPump): LoadTestResult {
  if (!(pump.workingPressure > 0)) throw new RangeError("The working pressure must be above zero.");
  const theoretical = theoreticalFlow(pump.displacement, pump.speed);
  const modulus = pump.bulkModulus ?? BULK_MODULUS;
  const warm = pump.referenceTemperature ?? 50;
  const viscosity = (temperature: number) => (pump.fluid ? dynamicViscosity(pump.fluid, temperature) : 1);
  const seen = steps.map((step) => ({
    ...step,
    flow: pump.meter === "tank" ? step.flow * (1 - step.pressure / modulus) : step.flow,
    left:
      pump.compensatorPressure !== undefined && step.pressure >= COMPENSATES_FROM * pump.compensatorPressure
        ? "the compensator acts here"
        : null,
  }));
  const used = seen.filter((s) => s.left === null);
  if (used.length < 3) throw new RangeError("A load test needs at least 3 steps below the compensator.");
  const row = (s: LoadStep) => [
    ((s.speed ?? pump.speed) / pump.speed) * (1 - s.pressure / modulus),
    -s.pressure / viscosity(s.temperature ?? warm),
  ];
  const u = pump.flowUncertainty ?? 0.01;
  const weights = used.map((s) => 1 / Math.max(1e-6, u * s.flow) ** 2);
  const y = used.map((s) => s.flow);
  let fit = weightedFit(used.map(row), y, weights);
  let turbulent: number | null = null;
  if (used.length >= 6) {
    const curved = used.map((s) => [...row(s), -Math.sqrt(Math.max(0, s.pressure))]);
    const wider = weightedFit(curved, y, weights);
    if (
      wider.x[2]! > 0 &&
      wider.x[1]! >= 0 &&
      fit.residual - wider.residual > TURBULENT_F * Math.max(1, wider.residual / wider.freedom)
    ) {
      fit = wider;
      turbulent = wider.x[2]!;
    }
  }
  // doubt: the meter's own, or the scatter about the fit where that is larger
  const inflate = Math.max(1, fit.residual / Math.max(1, fit.freedom));
  const t = fit.freedom > 0 && fit.residual / fit.freedom > 1 ? studentQuantile(0.975, fit.freedom) : 1.96;
  const within = (value: number, variance: number): Estimate => {
    const half = t * Math.sqrt(Math.max(0, variance * inflate));
    return { value, low: value - half, high: value + half };
  };
  const scale = (e: Estimate, factor: number): Estimate => ({
    value: e.value * factor,
    low: e.low * factor,
    high: e.high * factor,
  });
  const noLoadFlow = within(fit.x[0]!, fit.inverse[0]![0]!);
  const conductance = within(fit.x[1]!, fit.inverse[1]![1]!);
  const perG = pump.workingPressure / viscosity(warm);
  const root = Math.sqrt(pump.workingPressure);
  const dropValue = fit.x[1]! * perG + (turbulent ?? 0) * root;
  const dropVariance =
    turbulent === null
      ? perG ** 2 * fit.inverse[1]![1]!
      : perG ** 2 * fit.inverse[1]![1]! + root ** 2 * fit.inverse[2]![2]! + 2 * perG * root * fit.inverse[1]![2]!;
  const drop = scale(within(dropValue, dropVariance), 100 / theoretical);
  const noLoadShare = scale(noLoadFlow, 1 / theoretical);
  const reached = Math.max(...used.map((s) => s.pressure)) >= REACHES * pump.workingPressure;
  return {
    ...verdictOf({
      drop,
      noLoadShare,
      reached,
      allowedDrop: pump.allowedDrop ?? 10,
      allowedShortfall: pump.allowedShortfall ?? 5,
    }),
    noLoadFlow,
    noLoadShare,
    drop,
    conductance,
    turbulent,
    theoretical,
    steps: seen.map((s) => ({
      pressure: s.pressure,
      flow: s.flow,
      fitted:
        row(s).reduce((sum, v, i) => sum + v * fit.x[i]!, 0) - (turbulent ?? 0) * Math.sqrt(Math.max(0, s.pressure)),
      left: s.left,
    })),
    flowAt: (pressure) =>
      fit.x[0]! * (1 - pressure / modulus) -
      (fit.x[1]! * pressure) / viscosity(warm) -
      (turbulent ?? 0) * Math.sqrt(Math.max(0, pressure)),
  };
}

function verdictOf({
  drop,
  noLoadShare,
  reached,
  allowedDrop,
  allowedShortfall,
}: {
  drop: Estimate;
  noLoadShare: Estimate;
  reached: boolean;
  allowedDrop: number;
  allowedShortfall: number;
}): { verdict: LoadVerdict; reason: string } {
  const least = 1 - allowedShortfall / 100;
  const low = noLoadShare.high < least;
  if (!reached)
    return {
      verdict: "notConclusive",
      reason: "The steps do not reach working pressure, and a worn pump looks like a new one without load.",
    };
  const worn = drop.value > allowedDrop && drop.low > 0;
  if (worn && low)
    return {
      verdict: "wearAndInlet",
      reason:
        "The flow falls with pressure by more than is allowed, and it is low without load too: put inlet, speed and displacement right, then test again.",
    };
  if (worn)
    return {
      verdict: "wear",
      reason:
        "The flow falls with pressure by more than is allowed and more than the test's own uncertainty: worn clearances.",
    };
  if (low)
    return {
      verdict: "inlet",
      reason: "The flow is low without load already and holds under pressure: inlet, speed or displacement, not wear.",
    };
  if (drop.high > allowedDrop || noLoadShare.low < least)
    return {
      verdict: "notConclusive",
      reason: "The test's own doubt is as large as what it should show: repeat it with more steps or a better meter.",
    };
  return { verdict: "good", reason: "The flow is kept to working pressure." };
}
