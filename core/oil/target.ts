/** Target cleanliness of a circuit from what stands in it, or as a person set it. */
import { parseIso4406 } from "../contamination/iso4406";
import { targetCode, type SensitiveKind, type Target } from "../contamination/target";
import type { ComponentKind } from "../equipment/kinds";

/** Row of the typical guidance that a kind of component is judged by; kinds left out ask for nothing of their own. */
const sensitive: Partial<Record<ComponentKind, SensitiveKind>> = {
  axialPistonPump: "variablePistonPump",
  gearPump: "gearPump",
  pistonMotor: "fixedPump",
  closedLoopPump: "variablePistonPump",
  proportionalValve: "proportionalValve",
  directionalValve: "solenoidValve",
  loadHoldingValve: "solenoidValve",
  reliefValve: "solenoidValve",
  unloaderValve: "solenoidValve",
  reducingValve: "solenoidValve",
  flushingValve: "solenoidValve",
  cylinder: "cylinder",
};

export interface TargetComponent {
  name: string;
  kind: string;
  /** The maker's figure, "18/16/13"; empty or null: typical guidance. */
  makersCode: string | null;
}

export interface CircuitTarget {
  codes: Target["codes"];
  text: string;
  /** Who or what set it, as said: "the hoist valve (typical guidance)", "set by hand: …". */
  because: string;
}

/**
 * Target cleanliness of a circuit: size by size the strictest of what stands in it, or as a person set it. The manufacturer's figure
 * goes before typical guidance.
 * @param components with the code that the manufacturer asks for; empty or null: typical guidance by kind
 * @param pressure of the circuit, bar; null: taken as 210
 * @param set by hand, with the reason; null: not set
 * @returns the target and what set it; null when no component asks for anything and nobody set one
 * @throws {RangeError} for a code that is none
 * @example circuitTarget([{ name: "Hoist valve", kind: "proportionalValve", makersCode: null }], 180, null).text // "18/16/13"
 * @example circuitTarget([], 180, null) // null
 */
export function circuitTarget(
  components: readonly TargetComponent[],
  pressure: number | null,
  set: { code: string; reason: string } | null,
): CircuitTarget | null {
  if (set?.code) {
    const codes = parseIso4406(set.code).codes;
    if (codes.every((c): c is number => typeof c === "number"))
      return {
        codes: codes as unknown as Target["codes"],
        text: codes.join("/"),
        because: `set by hand: ${set.reason}`,
      };
  }
  const asked = components.flatMap((c) => {
    if (c.makersCode) {
      const codes = parseIso4406(c.makersCode).codes;
      if (codes.every((n): n is number => typeof n === "number"))
        return [{ name: c.name, codes: codes as unknown as Target["codes"], maker: true }];
    }
    const kind = sensitive[c.kind as ComponentKind];
    return kind ? [{ name: c.name, codes: targetCode([kind], pressure ?? 210).codes, maker: false }] : [];
  });
  if (asked.length === 0) return null;
  const codes = [0, 1, 2].map((i) => Math.min(...asked.map((a) => a.codes[i]!))) as Target["codes"];
  const deciding = asked.filter((a) => a.codes.some((c, i) => c === codes[i]));
  const first = deciding.reduce((best, a) =>
    a.codes.filter((c, i) => c === codes[i]).length > best.codes.filter((c, i) => c === codes[i]).length ? a : best,
  );
  return {
    codes,
    text: codes.join("/"),
    because: `${first.name} (${first.maker ? "its manufacturer's figure" : "typical guidance"})`,
  };
}
