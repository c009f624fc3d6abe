/** Viscosity grades, ISO 3448: grade VG n lies within n ± 10 % at 40 °C. */
export const viscosityGrades = [
  2.2, 3.2, 4.6, 6.8, 10, 15, 22, 32, 46, 68, 100, 150, 220, 320, 460, 680, 1000, 1500, 2200, 3200,
] as const;

export interface GradeCheck {
  /** The nearest grade, mid-point in mm²/s at 40 °C. */
  grade: number;
  low: number;
  high: number;
  /** Does the viscosity lie within the grade's band? Between two bands it belongs to none. */
  within: boolean;
}

/**
 * The ISO 3448 viscosity grade nearest to a viscosity, and whether it lies within its ±10 %.
 * @param kv40 kinematic viscosity at 40 °C, mm²/s, above 0
 * @throws {RangeError} for a viscosity that is not above zero
 * @example gradeOf(44) // { grade: 46, low: 41.4, high: 50.6, within: true }
 */
export function gradeOf(kv40: number): GradeCheck {
  if (!(kv40 > 0)) throw new RangeError("The viscosity at 40 °C must be above zero.");
  const grade = viscosityGrades.reduce((best, g) =>
    Math.abs(Math.log(g / kv40)) < Math.abs(Math.log(best / kv40)) ? g : best,
  );
  const low = 0.9 * grade;
  const high = 1.1 * grade;
  return { grade, low, high, within: kv40 >= low - 1e-9 && kv40 <= high + 1e-9 };
}
