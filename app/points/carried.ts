/** Oil, load and hours go along from one point of a machine to the next, while one stands at it. */

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
  sessionStorage.setItem(KEY, JSON.stringify({ machineId, at: Date.now(), ...conditions }));
}

/** What was typed at this machine a moment ago; null: nothing, or at another one. */
export function carried(machineId: string): Conditions | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as
      (Conditions & { machineId: string; at: number }) | null;
    return kept?.machineId === machineId && Date.now() - kept.at < HOLDS_MS ? kept : null;
  } catch {
    return null;
  }
}
