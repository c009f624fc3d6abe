/**
 * A load held by shut-in oil: how far is the valve that holds it from opening by itself? Force balance
 * p_l·A_l − p_o·A_o = F, so that with φ = A_o/A_l: p_l = F/A_l + φ·p_o. A leak across the piston raises both
 * pressures along that line. Gauge pressures, bar.
 */
import { P90 } from "../numeric/normal";

export interface HoldingReadings {
  /** Load side, bar. */
  loadPressure: number;
  /** Opposite side, bar. */
  oppositePressure: number;
  /** Areas in one unit. */
  loadArea: number;
  oppositeArea: number;
  /** Rise of the opposite pressure, bar/min, with its standard uncertainty, from the record of a holding test. */
  rise?: { perMinute: number; uncertainty: number };
  /** The greatest pressure that the load side may see, bar. */
  rating?: number;
}

export interface HoldingValve {
  kind: "pilotCheck" | "counterbalance";
  /** Pilot ratio R. */
  ratio: number;
  /** Where its pilot comes from: the opposite chamber, or a line of its own. */
  pilot?: "opposite" | "outside";
  /** Setting of a counterbalance valve, bar. */
  setting?: number;
  /** Pressure at the free side of a check valve (undrained pilot), or at the unvented outlet of a counterbalance valve, bar. */
  backPressure?: number;
  /** Spring of a check valve, as pilot pressure, bar. */
  spring?: number;
}

export interface HoldingMargin {
  /** Area ratio φ. */
  areaRatio: number;
  /** Load over load area, bar, from the force balance. */
  loadTerm: number;
  /** Pilot (or opposite) pressure at which the valve opens, bar; null: never by this path. */
  opensAt: number | null;
  /** Load-side pressure at that moment, bar. */
  loadPressureThere: number | null;
  /** opensAt less the measured opposite (or pilot) pressure, bar. */
  margin: number | null;
  /** Minutes until it opens; null: not by this path, or no rise was measured. P90 null: it may never. */
  timeToOpening: { p10: number; p50: number; p90: number | null } | null;
  /** Load-side pressure over its rating, before opening or when it opens. */
  overRating: boolean;
}

/**
 * Margin of a load-holding valve. A check valve opens when R·(p_pilot − p_b) ≥ p_l − p_b (+ spring); a
 * counterbalance valve when p_l + R·p_pilot ≥ setting + p_back·(1 + R).
 * @throws {RangeError} when areas or ratio are not above zero, or a counterbalance valve has no setting.
 */
export function holdingMargin(readings: HoldingReadings, valve: HoldingValve): HoldingMargin {
  const { loadPressure, oppositePressure, loadArea, oppositeArea, rise, rating } = readings;
  if (!(loadArea > 0) || !(oppositeArea > 0)) throw new RangeError("Areas must be above zero.");
  if (!(valve.ratio > 0)) throw new RangeError("The pilot ratio must be above zero.");
  const areaRatio = oppositeArea / loadArea;
  const loadTerm = loadPressure - areaRatio * oppositePressure;
  // with a pilot line of its own the opposite side does not climb with the pilot
  const coupled = (valve.pilot ?? "opposite") === "opposite";
  const phi = coupled ? areaRatio : 0;
  const base = coupled ? loadTerm : loadPressure;
  const opensAt =
    valve.kind === "pilotCheck" ? checkOpensAt(base, phi, valve) : counterbalanceOpensAt(base, phi, valve);
  const margin = opensAt === null ? null : opensAt - oppositePressure;
  const there = opensAt === null ? null : base + phi * opensAt;
  return {
    areaRatio,
    loadTerm,
    opensAt,
    margin,
    loadPressureThere: there,
    timeToOpening: coupled ? timeTo(margin, rise) : null,
    overRating: rating !== undefined && (loadPressure > rating || (there !== null && there > rating)),
  };
}

function checkOpensAt(base: number, phi: number, { ratio, backPressure = 0, spring = 0 }: HoldingValve): number | null {
  // R·(p − p_b) = base + φ·p − p_b + R·spring
  if (ratio <= phi) return null;
  return Math.max(0, (base + backPressure * (ratio - 1) + ratio * spring) / (ratio - phi));
}

function counterbalanceOpensAt(base: number, phi: number, { ratio, setting, backPressure = 0 }: HoldingValve): number {
  if (setting === undefined) throw new RangeError("A counterbalance valve needs its setting.");
  return Math.max(0, (setting + backPressure * (1 + ratio) - base) / (ratio + phi));
}

function timeTo(margin: number | null, rise: HoldingReadings["rise"]): HoldingMargin["timeToOpening"] {
  if (margin === null || !rise || !(rise.perMinute > 0)) return null;
  if (margin <= 0) return { p10: 0, p50: 0, p90: 0 };
  const slow = rise.perMinute - P90 * rise.uncertainty;
  return {
    p10: margin / (rise.perMinute + P90 * rise.uncertainty),
    p50: margin / rise.perMinute,
    p90: slow > 0 ? margin / slow : null,
  };
}
