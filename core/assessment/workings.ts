/** The workings of an assessment: of the last reading, the baseline, the forecast. */
import { DAY } from "../units/time";
import type { Baseline } from "../baseline/baseline";
import { dynamicViscosity, kinematicViscosity, type Fluid } from "../fluid/viscosity";
import { fluidAt } from "../fluid/measured";
import type { Forecast } from "../forecast/forecast";
import { pathLabel } from "../forecast/wearPath";
import type { LearnedExponents } from "../leakage/exponents";
import { formatNumber } from "../units/format";
import { quantityOf, type PointQuantityId } from "../units/quantities";
import type { StateFacts } from "../state/state";
import type { Decision } from "./decide";
import type { Working, WorkingRow } from "../working";
import type { FastCourse } from "./course";
import type { Duty } from "./dates";
import type { Indicator } from "./indicator";
import { believable, LEAST_PRESSURE, type CorrectedReading } from "./series";
import type { AssessContext, AssessedForecast, AssessPoint, AssessReading } from "./types";

/** How a reading was brought to the reference condition; null when it was not corrected. */
export function lastReadingWorking(
  reading: AssessReading | undefined,
  corrected: CorrectedReading | undefined,
  exponents: LearnedExponents | null,
  point: AssessPoint,
  { fluid: stated, measured }: Pick<AssessContext, "fluid" | "measured">,
): Working | null {
  const { reference } = point;
  const fluid = stated && reading ? fluidAt(stated, measured, reading.at) : stated;
  if (
    reading &&
    corrected &&
    exponents &&
    reference &&
    stated &&
    fluid &&
    quantityOf(point.quantity).correction === "element" &&
    reading.temperature !== null
  )
    return elementWorking(reading, corrected, point, stated, fluid, { ...reference });
  if (
    !reading ||
    !corrected ||
    !exponents ||
    !reference ||
    !stated ||
    !fluid ||
    reading.pressure === null ||
    reading.pressure < LEAST_PRESSURE ||
    reading.temperature === null
  )
    return null;
  const temperature = believable(reading.temperature);
  const { a, b } = exponents;
  const nu = kinematicViscosity(fluid, temperature);
  const nuRef = kinematicViscosity(stated, believable(reference.temperature));
  const muRatio = dynamicViscosity(fluid, temperature) / dynamicViscosity(stated, believable(reference.temperature));
  const pFactor = (reference.pressure / reading.pressure) ** a;
  const vFactor = muRatio ** b;
  const rows: WorkingRow[] = [
    viscosityAt(reading.temperature, nu),
    viscosityAt(reference.temperature, nuRef),
    {
      label: `pressure {} over {}, to the power ${formatNumber(a, 2)}`,
      given: [reference.pressure, reading.pressure].map((value) => ({ value, quantity: "loadPressure" })),
      value: pFactor,
      digits: 3,
    },
    {
      label: `dynamic viscosity ratio ${formatNumber(muRatio, 3)}, to the power ${formatNumber(b, 2)}`,
      value: vFactor,
      digits: 3,
    },
    {
      label: `{} × ${formatNumber(pFactor, 3)} × ${formatNumber(vFactor, 3)}`,
      given: [{ value: reading.value, quantity: point.quantity, digits: 3 }],
      value: corrected.corrected,
      quantity: point.quantity,
      digits: 3,
    },
    { label: "standard uncertainty", value: corrected.uncertainty, quantity: point.quantity, digits: 2 },
  ];
  if (point.fullFlow)
    rows.push({
      label: "of {} full flow",
      given: [{ value: point.fullFlow, quantity: "flow", digits: 4 }],
      value: (corrected.corrected / point.fullFlow) * 100,
      quantity: "share",
      digits: 3,
    });
  return {
    formula: "Leakage corrected to the reference pressure and viscosity",
    rows,
    source: "ASTM D341 for viscosity over temperature; laminar gap flow, Merritt (1967).",
    note:
      (fluid === stated ? "" : "With the viscosity that the laboratory found. ") +
      (exponents.readings === 0
        ? "Exponents 1 (laminar): too few readings to learn them."
        : `Exponents learned from ${exponents.readings} of this life's own readings, shrunk to 1.`),
  };
}

const viscosityAt = (temperature: number, value: number): WorkingRow => ({
  label: "ν at {}",
  given: [{ value: temperature, quantity: "oilTemperature" }],
  value,
  quantity: "viscosity",
  digits: 3,
});

function elementWorking(
  reading: AssessReading,
  corrected: CorrectedReading,
  point: AssessPoint,
  stated: Fluid,
  fluid: Fluid,
  reference: { temperature: number },
): Working {
  const ratio =
    dynamicViscosity(stated, believable(reference.temperature)) /
    dynamicViscosity(fluid, believable(reading.temperature!));
  const flow = reading.speed && point.referenceSpeed ? point.referenceSpeed / reading.speed : 1;
  return {
    formula: "Differential pressure brought to one viscosity and flow: Δp·(μ_ref/μ)·(Q_ref/Q)",
    rows: [
      viscosityAt(reading.temperature!, kinematicViscosity(fluid, believable(reading.temperature!))),
      {
        label: "viscosity ratio to {}",
        given: [{ value: reference.temperature, quantity: "oilTemperature" }],
        value: ratio,
        digits: 3,
      },
      ...(flow === 1 ? [] : [{ label: "flow ratio, from the speeds", value: flow, digits: 3 }]),
      {
        label: `{} × ${formatNumber(ratio, 3)}${flow === 1 ? "" : ` × ${formatNumber(flow, 3)}`}`,
        given: [{ value: reading.value, quantity: point.quantity, digits: 3 }],
        value: corrected.corrected,
        quantity: point.quantity,
        digits: 3,
      },
      { label: "standard uncertainty", value: corrected.uncertainty, quantity: point.quantity, digits: 2 },
    ],
    source: "Laminar flow through the element; ASTM D341 for viscosity over temperature.",
    note:
      flow === 1
        ? "Taken at the usual flow: note the speed where it differs."
        : "Flow taken in proportion to the speed.",
  };
}

/** How the baseline was found. */
export function baselineWorking(baseline: Baseline, point: AssessPoint): Working {
  const row = (label: string, value: number) => ({ label, value, quantity: point.quantity, digits: 3 });
  return {
    formula:
      baseline.kind === "maker"
        ? "Baseline from the manufacturer's figure"
        : `Baseline from the first ${baseline.readings} readings after run-in`,
    rows: [
      row("centre (median)", baseline.centre),
      row("spread (1.4826·MAD, small-sample factor)", baseline.spread),
      row("standard uncertainty of the centre", baseline.uncertainty),
      { label: "readings", value: baseline.readings },
    ],
    source: "Median and median absolute deviation; never narrower than the readings' own uncertainty.",
    ...(baseline.provisional && {
      note: "Provisional: fewer than 20 readings, so limits drawn from it give more false alarms than stated.",
    }),
  };
}

/** What the forecast of a fast course was made of: its own pace. */
export function courseWorking(
  course: FastCourse,
  forecast: AssessedForecast,
  duty: Duty,
  quantity: PointQuantityId,
): Working {
  return {
    formula: "Time left to the limit at the pace of the newest readings, the faster of step and growth",
    rows: [
      { label: "readings in a row, each beyond the last", value: course.readings, digits: 1 },
      { label: "level now", value: course.level, quantity, digits: 3 },
      { label: "change a month", value: course.perMonth, digits: 3 },
      { label: "limit", value: course.side.limit, quantity, digits: 3 },
      { label: "scatter of one reading", value: course.scatter, digits: 2 },
      ...(["p10", "p50", "p90"] as const).map((p) => ({
        label: `${p.toUpperCase()}, running hours after the last reading`,
        value: forecast.hours[p]!,
        quantity: "runningHours" as const,
      })),
      { label: "duty, running hours a day", value: duty.hoursPerDay, digits: 3 },
    ],
    source:
      "Last step and growth of the distance from what went before; the doubt of two steps, a factor of 1.5 (grade).",
    note: "The wear models wait for more readings; this does not.",
  };
}

/** What the forecast was made of. */
export function forecastWorking(
  cast: Forecast,
  forecast: AssessedForecast,
  indicator: Indicator,
  duty: Duty,
  context: AssessContext,
): Working {
  return {
    formula: "Competing wear paths, weighted by how well each predicted the readings",
    rows: [
      { label: "indicator now, over as new", value: cast.level.centre, digits: 3 },
      { label: "limit, over as new", value: Math.exp(indicator.lnLimit), digits: 3 },
      { label: "rate, per 1000 running hours", value: cast.rate.centre, digits: 2 },
      { label: "chance that the rate is above zero", value: cast.rising.at(-1)! * 100, quantity: "share", digits: 3 },
      { label: "noise of a reading", value: cast.noise * 100, quantity: "share", digits: 2 },
      ...cast.paths
        .filter((p) => p.share >= 0.05)
        .map((p) => ({
          label: `path: ${pathLabel(p.id)}`,
          value: p.share * 100,
          quantity: "share" as const,
          digits: 2,
        })),
      {
        label: "chance of a sudden step of the level in this life",
        value: cast.step.probability * 100,
        quantity: "share",
        digits: 2,
      },
      {
        label: "chance that the rate has changed in this life",
        value: cast.change.probability * 100,
        quantity: "share",
        digits: 2,
      },
      ...(forecast.hours.p10 === null
        ? []
        : [
            {
              label: "P10, running hours after the last reading",
              value: forecast.hours.p10,
              quantity: "runningHours" as const,
            },
          ]),
      ...(forecast.hours.p50 === null
        ? []
        : [{ label: "P50", value: forecast.hours.p50, quantity: "runningHours" as const }]),
      ...(forecast.hours.p90 === null
        ? []
        : [{ label: "P90", value: forecast.hours.p90, quantity: "runningHours" as const }]),
      { label: "duty, running hours a day", value: duty.hoursPerDay, digits: 3 },
      { label: "typical hours to the limit among peers", value: context.prior.timeScale, quantity: "runningHours" },
    ],
    source:
      "Bank of extended Kalman filters on z = (s^λ − 1)/λ with soft change points; crossings drawn from " +
      "the inverse Gaussian first passage (Folks and Chhikara 1978).",
    note:
      context.prior.lives === 0
        ? "No peer histories yet: a weak default is used instead."
        : `Prior from ${context.prior.lives} peer histories.`,
  };
}

/** Why it is called steady, drifting, alert or alarm: the figures that the rule of the words looks at. */
export function wordWorking(
  facts: StateFacts,
  { chanceAt, interval, decision, likely }: WordFacts,
  context: AssessContext,
): Working {
  const days = (ms: number) => (ms - context.now) / DAY;
  const row = (label: string, value: number) => ({ label, value, digits: 3 });
  const share = (label: string, value: number) => ({
    label,
    value: 100 * value,
    quantity: "share" as const,
    digits: 2,
  });
  return {
    formula: "Alarm: the act can no longer wait. Alert: it has to be decided soon. Drifting before that.",
    rows: [
      share("chance that it is beyond its limit now", facts.beyond),
      row("days until the next chance to help", days(chanceAt)),
      share("chance of the limit before it", facts.beforeUsableStop),
      share("of that the plant accepts", context.accepted),
      ...(context.leadTimeDays === null ? [] : [row("days until a part is there", context.leadTimeDays)]),
      ...(decision ? [row("days until it must be decided, by the earliest date", days(decision.by))] : []),
      ...(likely ? [row("days until it must be decided, by the middle date", days(likely.by))] : []),
      row("usual days from one reading to the next", interval / DAY),
    ],
    source:
      "One rule for every quantity (grade): alarm when the limit before the next chance is likelier than the plant accepts, by " +
      "40 % more where that is a planned stop; alert when it must be decided within six usual readings by the middle date, or " +
      "within two of when it must be ordered for a planned stop. Chosen on simulated lives, told on others (docs/forecast.md).",
    note:
      "An alert or an alarm is left only when it is read again, or its limit, part or plan is changed: below 3 % before the next " +
      "chance, or when by the earliest date more than twelve readings are left.",
  };
}

/** What the word was found by, beside the facts themselves. */
interface WordFacts {
  chanceAt: number;
  interval: number;
  decision: Decision | null;
  likely: Decision | null;
}
