/** A filter of the circuit by its differential pressure: how blocked its element is, and how many days it has left. */
import { fluidAt, type MeasuredViscosity } from "../fluid/measured";
import { kinematicViscosity } from "../fluid/viscosity";
import { elementFinding } from "./element";
import type { OilAssessment, OilComponentInput, OilInput } from "./types";

/** Viscosity at a temperature, mm²/s, within what oils are used at. */
function kinematic(fluid: { kv40: number; kv100: number }, temperature: number): number {
  return kinematicViscosity(fluid, Math.min(150, Math.max(-30, temperature)));
}

/** None or one finding of a component. */
export function filterOf(
  c: OilComponentInput,
  input: OilInput,
  measured: readonly MeasuredViscosity[],
): OilAssessment["filters"] {
  if (!c.filter || c.drops.length === 0) return [];
  const reference = {
    flow: c.filter.flow,
    viscosity: input.fluid ? kinematic(input.fluid, input.temperatures.working ?? 45) : 30,
  };
  const lives = c.lives.map((l) => ({
    id: l.id,
    startedAt: l.startedAt,
    endedAt: l.endedAt,
    readings: c.drops
      .filter((d) => d.lifeId === l.id)
      .map((d) => ({
        at: d.at,
        hours: d.hours,
        drop: d.drop,
        flow: d.flow,
        viscosity:
          input.fluid && d.temperature !== null ? kinematic(fluidAt(input.fluid, measured, d.at), d.temperature) : null,
      })),
  }));
  const found = elementFinding(lives, reference, c.filter.bypass);
  if (!found) return [];
  const { corrected: _corrected, ...finding } = found;
  const days = (hours: number) => hours / input.hoursPerDay;
  return [
    {
      ...finding,
      componentId: c.id,
      name: c.name,
      daysLeft: finding.hoursLeft
        ? {
            early: days(finding.hoursLeft.early),
            middle: days(finding.hoursLeft.middle),
            late: finding.hoursLeft.late === null ? null : days(finding.hoursLeft.late),
          }
        : null,
    },
  ];
}
