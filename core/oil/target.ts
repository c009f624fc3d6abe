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
 * Size by size the strictest of the components at the circuit's pressure (bar; null: taken as 210).
 * Null when no component asks for anything and nobody set one.
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
