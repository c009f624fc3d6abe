/** A verdict sentence: parts from the core, with dates and quantities written for this reader. */
import { Fragment } from "react";
import type { VerdictPart } from "@core";
import { dayText, monthText, together, quantityText, useSite, type SiteContext } from "./site";

export function partText(part: VerdictPart, site: SiteContext): string {
  if ("text" in part) return together(part.text);
  if ("date" in part) return part.precision === "day" ? dayText(part.date, site) : monthText(part.date, site);
  return quantityText(part.value, part.quantity, site, part.digits === undefined ? {} : { digits: part.digits });
}

export function Verdict({ parts }: { parts: readonly VerdictPart[] }) {
  const site = useSite();
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
