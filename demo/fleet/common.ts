/** What machines of several areas share: oils, how warm they run, the usual pump. */
import type { Spread } from "../parts/limits";
import { pistonPump } from "../parts/pumps";
import type { ComponentPlan } from "../world";

export const VG46 = "Harbour mineral oil VG 46";
export const VG32 = "Harbour mineral oil VG 32";
export const ESTER = "Quayside ester VG 46";
/** °C of the oil: mean, swing of the year, scatter. */
export const USUAL_WARMTH = { mean: 48, swing: 7, scatter: 1.6 };

/** A piston pump of 45 cm³ at 210 bar, but for what is told of it. */
export const harbourPump =
  (s: Spread) =>
  (name: string, extra: Partial<Parameters<typeof pistonPump>[0]> = {}): ComponentPlan =>
    pistonPump({ name, displacement: 45, speed: 1450, pressure: 210, ...extra }, s);
