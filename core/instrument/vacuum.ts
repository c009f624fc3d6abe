/** Readings of a vacuum bench, made comparable between benches. */

/**
 * Index of a bore on a vacuum bench: (read − open)/(blocked − open), 0 as open as the bench alone, 1 as tight
 * as blocked. Pass marks belong to the bench and the port.
 * @throws {RangeError} when blocked does not lie above open.
 */
export function vacuumIndex(read: number, { open, blocked }: { open: number; blocked: number }): number {
  if (!(blocked > open)) throw new RangeError("The blocked value must lie above the open one.");
  return (read - open) / (blocked - open);
}
