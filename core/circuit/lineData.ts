/** Hoses and pipes: what is known of a line, what cannot be, and what it says when it is held against the circuit. */
import { YEAR } from "../units/time";
import { styleOf, type LineStyle } from "./drawing";
import type { VerdictPart } from "../state/verdictPart";
import { elementKinds } from "./kinds";
import { roleOf, type CircuitLine, type LineData, type Netlist, type PortRef } from "./netlist";

/** Figures of a line: label, unit, least and greatest. */
export const lineFigures = {
  rating: { label: "Rated pressure", unit: "bar", least: 2, greatest: 1500 },
  bore: { label: "Bore", unit: "mm", least: 1, greatest: 400 },
  length: { label: "Length", unit: "m", least: 0.02, greatest: 1000 },
} as const;

export type LineFigure = keyof typeof lineFigures;

const LONGEST_TAG = 40;

/** What is wrong with the figures of a line, in words; undefined: nothing. */
export function whyNotLine(data: LineData, now: number): string | undefined {
  for (const [name, { label, unit, least, greatest }] of Object.entries(lineFigures)) {
    const value = data[name as LineFigure];
    if (value !== null && !(value >= least && value <= greatest))
      return `${label}: ${value} lies outside ${least} to ${greatest} ${unit}. Is the unit right?`;
  }
  if (data.tag.length > LONGEST_TAG) return `The tag is longer than ${LONGEST_TAG} letters.`;
  if (data.fittedOn !== "") {
    const fitted = Date.parse(`${data.fittedOn}T00:00:00Z`);
    if (Number.isNaN(fitted)) return "Fitted on: write a date, as 2024-05-31.";
    if (fitted > now) return "Fitted on lies in the future.";
  }
  return undefined;
}

/** A hose is looked at for renewal after so many years (common practice; the manufacturer and local rules first). */
export const HOSE_YEARS = 6;

/**
 * Years since a line was fitted.
 * @param data of the line
 * @param now epoch ms
 * @returns years of 365.25 days, 0 or more; null: not known
 * @example ageOf({ fittedOn: "2020-11-24" }, Date.UTC(2026, 10, 24)) // 6.00
 * @example ageOf({ fittedOn: "" }, Date.UTC(2026, 10, 24)) // null
 */
export function ageOf(data: LineData, now: number): number | null {
  const fitted = Date.parse(`${data.fittedOn}T00:00:00Z`);
  return Number.isNaN(fitted) ? null : Math.max(0, (now - fitted) / YEAR);
}

const ownStyle = (netlist: Netlist, line: CircuitLine) =>
  styleOf([line.from, line.to].flatMap((end) => roleOf(netlist, end) ?? []));

/**
 * What a line carries. One that leads to the reservoir bears no pressure whatever its other end is called: a case line's
 * outlet is one of a plain resistance, and carries on what came in.
 * @param netlist the circuit
 * @param line of it
 * @returns the style in which it is drawn
 * @example
 * const circuit = circuitOf({ tank: ["tank"], pump: ["fixedPump"] }, ["tank.T - pump.in"]);
 * lineStyle(circuit, circuit.lines[0]) // "suction"
 */
export function lineStyle(netlist: Netlist, line: CircuitLine): LineStyle {
  const style = ownStyle(netlist, line);
  const isTank = (end: PortRef) => netlist.elements.find((e) => e.id === end.element)?.kind === "tank";
  const far = [line.from, line.to].find((end) => !isTank(end));
  if (style !== "pressure" || !far || ![line.from, line.to].some(isTank)) return style;
  const before = netlist.lines.some(
    (l) => l !== line && [l.from, l.to].some((end) => end.element === far.element) && ownStyle(netlist, l) === "case",
  );
  return before ? "case" : "return";
}

/** The greatest pressure that a relief valve of the circuit allows, bar; null: there is none. */
function allowedBy(netlist: Netlist): number | null {
  const settings = netlist.elements
    .filter((e) => e.kind === "relief")
    .map((e) => e.data.crack ?? elementKinds.relief.data.crack!.usual);
  return settings.length > 0 ? Math.max(...settings) : null;
}

/**
 * What a line's data say against it: a rating below what the relief valve allows, a hose of more than 6 years (common practice; the
 * manufacturer and local rules first).
 * @param netlist the circuit
 * @param line of it
 * @param now epoch ms, for its age
 * @returns remarks, their figures in core units; empty: nothing
 * @example
 * const drawn = circuitOf({ pump: ["fixedPump"], relief: ["relief", { crack: 250 }] }, ["pump.out - relief.P"]);
 * const hose = { made: "hose", rating: 210, bore: 12, length: 1, fittedOn: "", tag: "H1" };
 * lineRemarks(drawn, { ...drawn.lines[0], data: hose }, 0)[0][3] // { value: 250, quantity: "loadPressure" }
 */
export function lineRemarks(netlist: Netlist, line: CircuitLine, now: number): VerdictPart[][] {
  const { data } = line;
  if (!data) return [];
  const remarks: VerdictPart[][] = [];
  const style = lineStyle(netlist, line);
  const allowed = allowedBy(netlist);
  if (style === "pressure" && data.rating !== null && allowed !== null && data.rating < allowed)
    remarks.push([
      { text: "Rated " },
      { value: data.rating, quantity: "loadPressure" },
      { text: ", and the relief valve allows " },
      { value: allowed, quantity: "loadPressure" },
      { text: ": renew it with one of a higher rating, or have the setting checked." },
    ]);
  const age = ageOf(data, now);
  if (data.made === "hose" && age !== null && age >= HOSE_YEARS)
    remarks.push([
      {
        text:
          `${Math.floor(age)} years old: hoses are usually looked at for renewal after ${HOSE_YEARS} years; ` +
          `the manufacturer and local rules say when.`,
      },
    ]);
  return remarks;
}
