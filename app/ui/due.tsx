/** When something falls due, as people say it; what is late stands out. */
import { daysUntil, dueText, useSite } from "./site";

export function Due({ at }: { at: number }) {
  const site = useSite();
  return <span className={daysUntil(at, site) < 0 ? "font-medium text-verm" : ""}>{dueText(at, site)}</span>;
}
