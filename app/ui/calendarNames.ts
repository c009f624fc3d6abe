/**
 * English names of months and weekdays, for the texts of every page: a formatter that knows all patterns and a locale
 * weighs 5 kB compressed on a first visit.
 */
const months = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;
const weekdays = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"] as const;

export const monthName = (date: Date): string => months[date.getMonth()]!;
/** The first three letters: "Sep". */
export const shortMonth = (date: Date): string => monthName(date).slice(0, 3);
export const weekday = (date: Date): string => weekdays[date.getDay()]!;
