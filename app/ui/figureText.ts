/** Figures of a drawing, which are stated in units of their own, in the reader's. */
import { readerFigure, type UnitPreference } from "@core";

/** To four figures, and no more than are there: "12.5 mm", "0.4921 in". */
export function figureText(value: number, symbol: string, units: UnitPreference): string {
  const shown = readerFigure(value, symbol, units);
  return `${Number(shown.value.toPrecision(4))}\u00a0${shown.symbol}`;
}
