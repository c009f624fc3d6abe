/**
 * Kinematic viscosity over temperature, ASTM D341: log10 log10(ν + 0.7) = A − B·log10(T), T in K.
 */
const KELVIN = 273.15;
const T40 = Math.log10(40 + KELVIN);
const T100 = Math.log10(100 + KELVIN);

export interface ViscosityGrade {
  /** Kinematic viscosity at 40 °C, mm²/s, above that at 100 °C. */
  kv40: number;
  /** Kinematic viscosity at 100 °C, mm²/s, above 0.21 (a water emulsion is near 0.3) and below kv40. */
  kv100: number;
}

export interface WaltherConstants {
  a: number;
  b: number;
}

/** Thinner than this the simple law leaves what the standard adds for thin liquids, mm²/s. */
const THIN = 2;
/** Of a viscosity: Z of ASTM D341, with its term for thin liquids (down to 0.21 mm²/s; the constants from memory). */
const zOf = (v: number) => v + 0.7 + (v > THIN ? 0 : Math.exp(-1.47 - 1.84 * v - 0.51 * v * v));
/** And back. */
const ofZ = (z: number) => {
  const y = z - 0.7;
  return y > THIN ? y : y - Math.exp(-0.7487 - 3.295 * y + 0.6119 * y ** 2 - 0.3193 * y ** 3);
};
const loglog = (v: number) => Math.log10(Math.log10(zOf(v)));
/** The thinnest liquid that the law holds for, mm²/s: boiling water is thicker. */
const THINNEST = 0.21;

/**
 * A and B of ASTM D341 from the viscosities at 40 and 100 °C.
 * @throws {RangeError} outside ν > 0.21 mm²/s or when kv100 is not below kv40.
 */
export function waltherConstants({ kv40, kv100 }: ViscosityGrade): WaltherConstants {
  if (!(kv100 > THINNEST) || !(kv40 > kv100))
    throw new RangeError(`ASTM D341 needs kv40 > kv100 > ${THINNEST} mm²/s, not ${kv40} and ${kv100}.`);
  const b = (loglog(kv40) - loglog(kv100)) / (T100 - T40);
  return { a: loglog(kv40) + b * T40, b };
}

/**
 * Kinematic viscosity at a temperature, by ASTM D341 from the viscosities at 40 and 100 °C.
 * @param grade kv40 above kv100 above 0.21 mm²/s
 * @param temperatureC −60 to 200 °C; the method was made for −40 to 150 °C
 * @returns mm²/s
 * @throws {RangeError} outside the range of the method.
 * @example kinematicViscosity({ kv40: 46, kv100: 6.8 }, 40) // 46
 * @example kinematicViscosity({ kv40: 46, kv100: 6.8 }, 50) // 29.97
 */
export function kinematicViscosity(grade: ViscosityGrade, temperatureC: number): number {
  if (!(temperatureC >= -60 && temperatureC <= 200))
    throw new RangeError(`Temperature ${temperatureC} °C is outside −60 to 200 °C.`);
  const { a, b } = waltherConstants(grade);
  return ofZ(10 ** (10 ** (a - b * Math.log10(temperatureC + KELVIN))));
}

/** Density in kg/m³ at a temperature in °C from that at 15 °C: falls about 0.65 kg/m³ per K (common practice). */
export function densityAt(density15: number, temperatureC: number): number {
  return density15 - 0.65 * (temperatureC - 15);
}

export interface Fluid extends ViscosityGrade {
  /** Density at 15 °C, kg/m³. */
  density15: number;
}

/**
 * Dynamic viscosity at a temperature, ν·ρ(T)/1000: what leakage through a gap goes by.
 * @param fluid its grade in mm²/s and its density at 15 °C in kg/m³
 * @param temperatureC −60 to 200 °C
 * @returns mPa·s
 * @throws {RangeError} outside the range of ASTM D341
 * @example dynamicViscosity({ kv40: 46, kv100: 6.8, density15: 870 }, 50) // 25.39
 */
export function dynamicViscosity(fluid: Fluid, temperatureC: number): number {
  return (kinematicViscosity(fluid, temperatureC) * densityAt(fluid.density15, temperatureC)) / 1000;
}

/**
 * How fast the viscosity falls as the oil warms, λ = |d ln μ / dT|, by central difference over 1 K. The error of a thermometer
 * times λ is the relative error that it puts into a corrected leakage.
 * @param fluid its grade in mm²/s and its density at 15 °C in kg/m³
 * @param temperatureC −59.5 to 199.5 °C
 * @returns 1/K, above zero
 * @throws {RangeError} outside the range of ASTM D341
 * @example viscosityTemperatureSensitivity({ kv40: 46, kv100: 6.8, density15: 870 }, 50) // 0.04071
 */
export function viscosityTemperatureSensitivity(fluid: Fluid, temperatureC: number): number {
  return Math.abs(Math.log(dynamicViscosity(fluid, temperatureC + 0.5) / dynamicViscosity(fluid, temperatureC - 0.5)));
}
