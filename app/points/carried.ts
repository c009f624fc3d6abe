/** Oil, load and hours go along from one point of a machine to the next, while one stands at it. */
import { useMemo, useSyncExternalStore } from "react";

interface Conditions {
  temperature: string;
  pressure: string;
  hours: string;
}

const KEY = "juncteral-conditions";
/** After so long the oil is another one. */
const HOLDS_MS = 30 * 60_000;

/** Keep what was typed for the next point of this machine, on this device and in this tab alone. */
export function carry(machineId: string, conditions: Conditions): void {
  if (!machineId) return;
  try {
    sessionStorage.setItem(KEY, JSON.stringify({ machineId, at: Date.now(), ...conditions }));
  } catch {
    // a browser that keeps nothing carries nothing: the reading is saved all the same
  }
}

const never = () => () => {};

/** Reading may be refused as well, where a browser is told to keep nothing. */
function keptHere(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/**
 * What was typed at this machine a moment ago; null: nothing, or at another one. The server knows none of it, so a page
 * first shows none.
 */
export function useCarried(machineId: string): Conditions | null {
  const kept = useSyncExternalStore(
    never,
    () => stillHolds(keptHere(), machineId, Date.now()),
    () => null,
  );
  return useMemo(() => (kept ? (JSON.parse(kept) as Conditions) : null), [kept]);
}

/** What was kept, where it is of this machine and fresh; null: of another machine, too old, or not readable. */
export function stillHolds(kept: string | null, machineId: string, now: number): string | null {
  try {
    const read = JSON.parse(kept ?? "null") as { machineId: string; at: number } | null;
    return read?.machineId === machineId && now - read.at < HOLDS_MS ? kept : null;
  } catch {
    return null;
  }
}
