/** The viscosity of a fluid in use, as a laboratory found it over time. */
import type { Fluid } from "./viscosity";

export interface MeasuredViscosity {
  at: number;
  kv40: number;
  kv100: number | null;
}

/**
 * The fluid as it was at a moment: as stated until the first measured viscosity, then between measurements in a straight line of
 * ln ν over time, then the last one.
 * @param stated grade in mm²/s and density in kg/m³ of the new fluid
 * @param measured in time order; without a figure at 100 °C the stated one is moved by the same share as that at 40 °C
 * @param at epoch ms
 * @returns the fluid at that moment
 * @example
 * const stated = { kv40: 46, kv100: 6.8, density15: 870 };
 * const measured = [{ at: 1000, kv40: 40, kv100: null }];
 * fluidAt(stated, measured, 0).kv40 // 46
 * fluidAt(stated, measured, 2000) // { kv40: 40, kv100: 5.913 }
 */
export function fluidAt(stated: Fluid, measured: readonly MeasuredViscosity[], at: number): Fluid {
  const first = measured[0];
  if (!first || at < first.at) return stated;
  const next = measured.findIndex((m) => m.at > at);
  const before = next === -1 ? measured[measured.length - 1]! : measured[next - 1]!;
  const full = (m: MeasuredViscosity) => ({
    kv40: m.kv40,
    kv100:
      m.kv100 !== null && m.kv100 > 0.21 && m.kv100 < m.kv40
        ? m.kv100
        : Math.min(0.99 * m.kv40, Math.max(stated.kv100 > 2 ? 2.05 : 0.22, stated.kv100 * (m.kv40 / stated.kv40))),
  });
  const from = full(before);
  if (next === -1) return { ...stated, ...from };
  const to = full(measured[next]!);
  const share = (at - before.at) / (measured[next]!.at - before.at);
  const between = (a: number, b: number) => Math.exp(Math.log(a) + share * (Math.log(b) - Math.log(a)));
  return { ...stated, kv40: between(from.kv40, to.kv40), kv100: between(from.kv100, to.kv100) };
}
