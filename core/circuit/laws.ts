/**
 * Flow laws of hydraulic elements, smoothed so that Newton's method can follow them: each gives the flow and its slope.
 * Pressures in bar, flows in L/min, both with sign. A law that opens at a threshold does so over `SOFT` bar.
 */

export interface Law {
  /** L/min. */
  q: number;
  /** dq/dΔp, L/min per bar. */
  slope: number;
}

/** Width over which thresholds are rounded, bar: far below what a gauge shows. */
export const SOFT = 0.004;

/** max(0, x), rounded over `width`: width/2 at the corner, and off by width²/4x at a distance x from it. With its slope. */
export function ramp(x: number, width = SOFT): { value: number; slope: number } {
  const root = Math.hypot(x, width);
  return { value: 0.5 * (x + root), slope: 0.5 * (1 + x / root) };
}

/** A share from 0 to 1 that runs straight between, rounded at both ends over `width` of the share. */
export function share(x: number, width = 1e-3): { value: number; slope: number } {
  const low = ramp(x, width);
  const high = ramp(x - 1, width);
  return { value: Math.min(1, Math.max(0, low.value - high.value)), slope: low.slope - high.slope };
}

/** Pressure at which an orifice turns from laminar to turbulent flow, bar; keeps the slope finite at rest. */
const TURBULENT_FROM = 0.01;

/**
 * Orifice with a laminar start: q = K·Δp/(Δp² + p0²)^¼, which is K·√Δp from a tenth of a bar on.
 * @param k L/min at 1 bar
 * @param dp pressure over it, bar
 * @returns flow in the direction of the fall
 * @example orifice(5, 100).q // 49.9999999
 */
export function orifice(k: number, dp: number): Law {
  const square = dp * dp + TURBULENT_FROM * TURBULENT_FROM;
  const root = square ** 0.25;
  return { q: (k * dp) / root, slope: (k / root) * (1 - (0.5 * dp * dp) / square) };
}

/**
 * Flow through an orifice at 1 bar: C_d·A·√(2Δp/ρ).
 * @param diameter mm
 * @param density kg/m³
 * @param dischargeCoefficient about 0.62 for a sharp edge (common handbook value)
 * @returns L/min at 1 bar
 * @example orificeAtOneBar(2, 870, 0.62) // 1.7719
 */
export function orificeAtOneBar(diameter: number, density: number, dischargeCoefficient = 0.62): number {
  const area = (Math.PI / 4) * (diameter / 1000) ** 2;
  return dischargeCoefficient * area * Math.sqrt(2e5 / density) * 60_000;
}

/** A valve that opens in proportion to what exceeds `crack`: relief valves, bypasses, checks with a spring. */
export function opensAbove(crack: number, perBar: number, dp: number): Law {
  const above = ramp(dp - crack);
  return { q: perBar * above.value, slope: perBar * above.slope };
}

/** Below this, bar gauge, oil tears: the void that opens gives way so fast, L/min per bar. */
export const VOID = -0.95;
export const TEARS = 1000;
/** Over so little, bar: rounded wider, oil would appear in a shut-in chamber. */
export const TORN = 1e-5;
/** Pressure over which the seat of a check valve clears, bar. */
const CLEARS = 0.05;

/**
 * A check valve: an orifice of what exceeds the cracking pressure, behind a seat. Rounded as softly as Newton needs it,
 * and tight all the same: the rounded corner alone would let 0.02 mL/min past against 100 bar.
 */
export function checked(k: number, crack: number, dp: number): Law {
  const over = ramp(dp - crack);
  const seat = share((dp - crack) / CLEARS);
  const through = orifice(k, over.value);
  return {
    q: through.q * seat.value,
    slope: through.slope * over.slope * seat.value + (through.q * seat.slope) / CLEARS,
  };
}

/** A filter element or a long line: Δp = a·q + b·q², solved for q. a, b at least 0 and not both 0. */
export function laminarAndTurbulent(a: number, b: number, dp: number): Law {
  const size = Math.abs(dp);
  if (b <= 0) return { q: dp / a, slope: 1 / a };
  const root = Math.sqrt(a * a + 4 * b * size);
  const q = (2 * size) / (a + root);
  return { q: Math.sign(dp) * q, slope: 1 / Math.max(1e-9, a + 2 * b * q) };
}
