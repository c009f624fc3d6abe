/**
 * Operational clocks: how far a part has aged after so many running hours. At the time scale a clock shows
 * about the time scale, so that rates on different clocks can be compared.
 */
import { lastPace, shapeAt } from "./shape";

export interface Clock {
  /** What the clock shows after running hours since new. */
  at(hours: number, timeScale: number): number;
  /** The running hours at which it shows `u`. */
  hours(u: number, timeScale: number): number;
  /** Clock hours per running hour. */
  pace(hours: number, timeScale: number): number;
}

/** A fading clock is held back at its start, where its pace would be infinite. */
const EARLIEST = 0.01;

/** u = T·(h/T)^m: m below 1 slows down with age, above 1 hastens. */
export function powerClock(m: number): Clock {
  return {
    at: (hours, T) => (m === 1 ? hours : T * (Math.max(0, hours) / T) ** m),
    hours: (u, T) => (m === 1 ? u : T * (Math.max(0, u) / T) ** (1 / m)),
    pace: (hours, T) => (m === 1 ? 1 : m * Math.max(EARLIEST, hours / T) ** (m - 1)),
  };
}

/**
 * Bedding in: u = (h + B·T·(1 − e^(−h/(τ·T))))/(1 + B), fast at first and even afterwards.
 */
export function runInClock(share: number, settle: number): Clock {
  const at = (hours: number, T: number) =>
    (Math.max(0, hours) + share * T * (1 - Math.exp(-Math.max(0, hours) / (settle * T)))) / (1 + share);
  return {
    at,
    pace: (hours, T) => (1 + (share / settle) * Math.exp(-Math.max(0, hours) / (settle * T))) / (1 + share),
    hours(u, T) {
      // between what an even clock says and that less the whole run-in
      let low = Math.max(0, (1 + share) * u - share * T);
      let high = (1 + share) * u;
      for (let i = 0; i < 50 && high - low > 1e-9 * T; i++) {
        const middle = (low + high) / 2;
        if (at(middle, T) < u) low = middle;
        else high = middle;
      }
      return (low + high) / 2;
    },
  };
}

/** After so many time scales a saturating clock goes on evenly: it never stands still. */
const EVEN_FROM = 2;

/** Saturating: u = T·(1 − e^(−c·h/T))/(1 − e^(−c)), so that its pace falls by e^c over a time scale. c above 0. */
export function saturatingClock(c: number): Clock {
  const whole = -Math.expm1(-c);
  const lastPace = (c * Math.exp(-c * EVEN_FROM)) / whole;
  const lastAt = -Math.expm1(-c * EVEN_FROM) / whole;
  return {
    at(hours, T) {
      const x = Math.max(0, hours) / T;
      return T * (x <= EVEN_FROM ? -Math.expm1(-c * x) / whole : lastAt + lastPace * (x - EVEN_FROM));
    },
    hours(u, T) {
      const y = Math.max(0, u) / T;
      return T * (y <= lastAt ? -Math.log1p(-y * whole) / c : EVEN_FROM + (y - lastAt) / lastPace);
    },
    pace: (hours, T) => (c * Math.exp(-c * Math.min(EVEN_FROM, hours / T))) / whole,
  };
}

/** The clock of a shape that lives share: u = T·f(h/T). It may start below zero, where parts are worn when they are first read. */
export function courseClock(shape: readonly number[]): Clock {
  const cells = shape.length - 1;
  const last = lastPace(shape);
  return {
    at: (hours, T) => T * shapeAt(shape, hours / T),
    hours(u, T) {
      const y = u / T;
      if (y >= 1) return T * (1 + (y - 1) / last);
      let i = 0;
      while (i < cells - 1 && shape[i + 1]! < y) i++;
      return (T * (i + Math.max(0, y - shape[i]!) / (shape[i + 1]! - shape[i]!))) / cells;
    },
    pace(hours, T) {
      if (hours > T) return last;
      const i = Math.min(cells - 1, Math.floor(Math.max(0, hours / T) * cells));
      return (shape[i + 1]! - shape[i]!) * cells;
    },
  };
}
