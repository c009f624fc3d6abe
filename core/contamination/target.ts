/** Target cleanliness of a circuit: size by size the smallest code of its components at its pressure. */
import type { Iso4406 } from "./iso4406";

export type SensitiveKind =
  "servoValve" | "proportionalValve" | "variablePistonPump" | "fixedPump" | "gearPump" | "solenoidValve" | "cylinder";
type Triple = readonly [number, number, number];

/** Typical guidance, up to 210 bar and above it strictly (memory). The maker's figure first; a plant may edit its own. */
export const typicalTargets: Record<SensitiveKind, { label: string; upTo210: Triple; above: Triple }> = {
  servoValve: { label: "servo valve", upTo210: [16, 14, 11], above: [15, 13, 10] },
  proportionalValve: { label: "proportional valve", upTo210: [18, 16, 13], above: [17, 15, 12] },
  variablePistonPump: { label: "variable piston pump", upTo210: [18, 16, 13], above: [17, 15, 12] },
  fixedPump: { label: "fixed piston or vane pump", upTo210: [19, 17, 14], above: [18, 16, 13] },
  gearPump: { label: "gear pump", upTo210: [20, 18, 15], above: [19, 17, 14] },
  solenoidValve: { label: "solenoid valve", upTo210: [20, 18, 15], above: [19, 17, 14] },
  cylinder: { label: "cylinder", upTo210: [20, 18, 15], above: [19, 17, 14] },
};
export const sensitiveKindIds = Object.keys(typicalTargets) as SensitiveKind[];

const STRICT_ABOVE = 210;

export interface Target {
  codes: [number, number, number];
  text: string;
  /** Kinds that decide at least one size. */
  decidedBy: SensitiveKind[];
}

/**
 * Target of a circuit at a pressure in bar.
 * @throws {RangeError} without a component.
 */
export function targetCode(kinds: readonly SensitiveKind[], pressure: number, table = typicalTargets): Target {
  if (kinds.length === 0) throw new RangeError("A target needs at least one component.");
  const of = (kind: SensitiveKind) => (pressure > STRICT_ABOVE ? table[kind].above : table[kind].upTo210);
  const codes = [0, 1, 2].map((size) => Math.min(...kinds.map((k) => of(k)[size]!))) as Target["codes"];
  return {
    codes,
    text: codes.join("/"),
    decidedBy: [...new Set(kinds.filter((k) => of(k).some((code, size) => code === codes[size])))],
  };
}

/**
 * How far a code lies above its target, size by size; each number up is twice the particles.
 * @param code as measured
 * @param target of the circuit
 * @returns numbers above it; 0 or less: met; Infinity: too many to count; null: not counted
 * @example overTarget(parseIso4406("20/16/*"), { codes: [18, 16, 13] }) // [2, 0, Infinity]
 */
export function overTarget({ codes }: Pick<Iso4406, "codes">, target: Pick<Target, "codes">): (number | null)[] {
  return codes.map((code, size) =>
    typeof code === "number" ? code - target.codes[size]! : code === "*" ? Infinity : null,
  );
}
