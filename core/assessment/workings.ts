/** The working of a corrected reading. */
import { dynamicViscosity, kinematicViscosity, type Fluid } from "../fluid/viscosity";
import { fluidAt } from "../fluid/measured";
import type { LearnedExponents } from "../leakage/exponents";
import { formatNumber } from "../units/format";
import { quantityOf } from "../units/quantities";
import type { Working, WorkingRow } from "../working";
import { believable, LEAST_PRESSURE, type CorrectedReading } from "./series";
import type { AssessContext, AssessPoint, AssessReading } from "./types";

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
    { label: `ν at ${formatNumber(reading.temperature, 0)} °C`, value: nu, quantity: "viscosity", digits: 3 },
    { label: `ν at ${formatNumber(reference.temperature, 0)} °C`, value: nuRef, quantity: "viscosity", digits: 3 },
    {
      label: `pressure ${formatNumber(reference.pressure, 0)}/${formatNumber(reading.pressure, 0)}, to the power ${formatNumber(a, 2)}`,
      value: pFactor,
      digits: 3,
    },
    {
      label: `dynamic viscosity ratio ${formatNumber(muRatio, 3)}, to the power ${formatNumber(b, 2)}`,
      value: vFactor,
      digits: 3,
    },
    {
      label: `${formatNumber(reading.value, 2)} × ${formatNumber(pFactor, 3)} × ${formatNumber(vFactor, 3)}`,
      value: corrected.corrected,
      quantity: point.quantity,
      digits: 3,
    },
    { label: "standard uncertainty", value: corrected.uncertainty, quantity: point.quantity, digits: 2 },
  ];
  if (point.fullFlow)
    rows.push({
      label: `of ${formatNumber(point.fullFlow, 2)} L/min full flow`,
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
      {
        label: `ν at ${formatNumber(reading.temperature!, 0)} °C`,
        value: kinematicViscosity(fluid, believable(reading.temperature!)),
        quantity: "viscosity",
        digits: 3,
      },
      { label: `viscosity ratio to ${formatNumber(reference.temperature, 0)} °C`, value: ratio, digits: 3 },
      ...(flow === 1 ? [] : [{ label: "flow ratio, from the speeds", value: flow, digits: 3 }]),
      {
        label: `${formatNumber(reading.value, 2)} × ${formatNumber(ratio, 3)}${flow === 1 ? "" : ` × ${formatNumber(flow, 3)}`}`,
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
