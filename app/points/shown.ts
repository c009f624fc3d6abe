/** What a chart of a point needs to know of its reader. */
import { formatNumber, decimalsFor } from "@core";

export interface Shown {
  /** Core unit to the unit of the axis. */
  scale(core: number): number;
  unit: string;
}

export const figure = (value: number) => formatNumber(value, decimalsFor(value, 2));

export type XY = { x: number; y: number };
