import { counted } from "~/ui/counted";

/** "7 pieces of work: 5 at planned stops, 1 at a stop of its own, 1 waits". */
export function headline(all: number, stop: number, own: number, wait: number): string {
  const parts = [
    stop > 0 ? `${stop} at planned stops` : "",
    own > 0 ? `${own} at ${own === 1 ? "a stop of its own" : "stops of their own"}` : "",
    wait > 0 ? `${wait} wait${wait === 1 ? "s" : ""}` : "",
  ].filter(Boolean);
  return `${counted(all, "piece")} of work: ${parts.join(", ")}`;
}

/** A share as people read it: two digits where it is small. */
export const percent = (share: number) =>
  `${share >= 0.0995 ? Math.round(share * 100) : (share * 100).toFixed(share < 0.01 ? 2 : 1)}\u00a0%`;
