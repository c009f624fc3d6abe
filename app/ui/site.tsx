/** What every screen needs to write dates and numbers: the site's time zone, the present, the reader's units. */
import { DAY, dayOf, daysBetween, formatQuantity, preferredUnit, type QuantityId, type UnitPreference } from "@core";
import { TZDate } from "@date-fns/tz";
import { lightFormat } from "date-fns";
import { createContext, use, useMemo, type ReactNode } from "react";
import { monthName, shortMonth, weekday } from "./calendarNames";
import { counted } from "./counted";

export interface SiteContext {
  timeZone: string;
  now: number;
  /** The reader's preferred units. */
  units: UnitPreference;
  /** Every day with its year: on pages that are printed and kept. */
  years?: boolean;
}

const Site = createContext<SiteContext>({ timeZone: "UTC", now: 0, units: {} });
export const SiteProvider = Site.Provider;
export const useSite = () => use(Site);

/** Dates within are those of the site where the machine stands, whatever site the reader sits at. */
export function InZone({
  timeZone,
  years = false,
  children,
}: Pick<SiteContext, "timeZone" | "years"> & { children: ReactNode }) {
  const site = useSite();
  const value = useMemo(() => ({ ...site, timeZone, years }), [site, timeZone, years]);
  return <SiteProvider value={value}>{children}</SiteProvider>;
}

/** A core value in the reader's unit; where they have none, in `unit` or the quantity's usual one. */
export function quantityText(
  value: number,
  id: QuantityId,
  { units }: Pick<SiteContext, "units">,
  { unit, digits }: { unit?: string; digits?: number } = {},
): string {
  return formatQuantity(value, id, { unit: preferredUnit(id, units, unit), ...(digits !== undefined && { digits }) });
}

/** Writes core values in the reader's units. */
export function useShow(): (value: number, id: QuantityId, options?: { unit?: string; digits?: number }) => string {
  const site = useSite();
  return (value, id, options) => quantityText(value, id, site, options);
}

export const HALF_YEAR = 200 * DAY;

/** A day as people say it: "12 Jan", with the year when it is not near; it never breaks at the end of a line. */
export function dayText(ms: number, { timeZone, now, years = false }: SiteContext): string {
  const date = new TZDate(ms, timeZone);
  const day = `${date.getDate()}\u00a0${shortMonth(date)}`;
  return years || Math.abs(ms - now) > HALF_YEAR ? `${day}\u00a0${date.getFullYear()}` : day;
}

/** Figures keep their unit beside them at the end of a line: "74 %", "0.3 % a month". */
export const together = (text: string) =>
  text.replace(
    /(\d) (%)( a month\b)?/g,
    (_all, digit: string, unit: string, rate = "") =>
      `${digit}\u00a0${unit}${(rate as string).replaceAll(" ", "\u00a0")}`,
  );

export function monthText(ms: number, { timeZone }: SiteContext): string {
  const date = new TZDate(ms, timeZone);
  return `${monthName(date)} ${date.getFullYear()}`;
}

/** Day and time of a reading: "20 Nov, 10:40". */
export function momentText(ms: number, site: SiteContext): string {
  return `${dayText(ms, site)}, ${lightFormat(new TZDate(ms, site.timeZone), "HH:mm")}`;
}

/** The value of a datetime-local field in the site's time zone. */
export function localInput(ms: number, timeZone: string): string {
  return lightFormat(new TZDate(ms, timeZone), "yyyy-MM-dd'T'HH:mm");
}

/** Days of the site's calendar until a moment; below zero: past. */
export const daysUntil = (ms: number, { now, timeZone }: SiteContext): number =>
  daysBetween(dayOf(now, timeZone), dayOf(ms, timeZone));

/** "in 9 days", "2 days late", "today", and the weekday within a week. */
export function dueText(ms: number, site: SiteContext): string {
  const days = daysUntil(ms, site);
  if (days < 0) return `${counted(-days, "day")} late`;
  if (days === 0) return "today";
  if (days < 7) return weekday(new TZDate(ms, site.timeZone));
  return `in ${days} days`;
}
