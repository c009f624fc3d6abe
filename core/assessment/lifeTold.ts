/** What a life tells its peers: after how many hours it reached its limit, or that it lasted so long at least. */
import { excess, type LimitSide } from "../baseline/margin";
import { ownExponents } from "../forecast/exponents";
import type { Forecast } from "../forecast/forecast";
import { median } from "../trend/robust";
import type { Indicator } from "./indicator";
import { lifeStart, type CorrectedSeries } from "./series";
import { RISING } from "./trendNow";
import type { AssessContext, Assessment, AssessPoint } from "./types";

/** Beyond its limit when it was first read: nobody knows after how many hours it got there, so it tells its peers nothing. */
export function firstReadBeyond(believed: CorrectedSeries["readings"], side: LimitSide): boolean {
  return excess(median(believed.slice(0, 3).map((r) => r.corrected)), side) >= 0;
}

/** The life so far, by its forecast. */
export function lifeOf(
  cast: Forecast,
  indicator: Indicator,
  series: CorrectedSeries["readings"],
  point: AssessPoint,
  context: AssessContext,
): Assessment["life"] {
  const start = lifeStart(context);
  const age = series[series.length - 1]!.hours - start;
  const told = {
    noise: cast.noise,
    regimes: cast.regimes,
    ...(point.knownWhenNew && { course: cast.course }),
    ...(indicator.corrected && { exponents: ownExponents(cast.exponents, context.prior.exponents) }),
  };
  // what was altered or broke in one step did not wear out: it lasted at least until then
  if (cast.step.hours !== null) return { hours: cast.step.hours - start, censored: true, ...told };
  if (cast.crossedSince !== null && cast.crossed > 0.5)
    return { hours: cast.crossedSince - start, censored: false, reached: true, ...told };
  return cast.p50 === null
    ? { hours: age + cast.horizon, censored: true, ...told }
    : { hours: age + cast.p50, censored: cast.rising.at(-1)! < RISING, ...told };
}
