/** Spans of time in milliseconds, as moments are counted; a year is 365.25 days, a month its twelfth. */
export const HOUR = 3_600_000;
export const DAY = 24 * HOUR;
export const YEAR = 365.25 * DAY;
export const MONTH = YEAR / 12;
