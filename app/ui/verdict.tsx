/** A verdict sentence: parts from the core, with dates and quantities written for this reader. */
import { Fragment } from "react";
import type { VerdictPart } from "@core";
import { dayText, HALF_YEAR, monthText, together, quantityText, useSite, type SiteContext } from "./site";

export function partText(part: VerdictPart, site: SiteContext): string {
  if ("text" in part) return together(part.text);
  if ("date" in part) return part.precision === "day" ? dayText(part.date, site) : monthText(part.date, site);
  return quantityText(part.value, part.quantity, site, part.digits === undefined ? {} : { digits: part.digits });
}

/** One date of a sentence that needs its year gives it to all: "between 14 Jun 2027 and 29 Apr 2028". */
const isFar = (part: VerdictPart, now: number) =>
  "date" in part && part.precision === "day" && Math.abs(part.date - now) > HALF_YEAR;

export function Verdict({ parts }: { parts: readonly VerdictPart[] }) {
  const own = useSite();
  const site = { ...own, years: own.years || parts.some((part) => isFar(part, own.now)) };
  return (
    <>
      {parts.map((part, i) =>
        part.strong ? (
          <strong key={i} className="font-semibold text-ink">
            {partText(part, site)}
          </strong>
        ) : (
          <Fragment key={i}>{partText(part, site)}</Fragment>
        ),
      )}
    </>
  );
}
