/** That no planned stop comes before the limit, what is known of the part, and which way is the least bad. */
import { chance } from "@core";
import type { BookingContext } from "~/domain/bookings/index.server";
import { Notice } from "~/ui/form";
import { dayText, useSite } from "~/ui/site";

type About = Pick<BookingContext, "stops" | "leastBad" | "beyond" | "beforePart" | "part" | "partAt">;

export function NoStopInTime({ about }: { about: About }) {
  const site = useSite();
  const least = about.stops.find((s) => s.id === about.leastBad);
  const { part, beyond } = about;
  const partDay = dayText(about.partAt, site);
  const isKnown = part.orderedOn !== null || part.leadTimeDays !== null;
  return (
    <Notice tone="ochre" live={false}>
      {beyond ? "It is beyond its limit now" : "No planned stop comes in time"}, so none is chosen below.{" "}
      {!isKnown
        ? "How long its part takes is not on record: find that out first."
        : part.leadTimeDays === 0 && part.orderedOn === null
          ? "A spare is on hand."
          : `${part.orderedOn ? "The part is there" : "A part ordered today is there"} on ${partDay}.`}{" "}
      {!beyond && isKnown && about.beforePart !== null
        ? `A stop of its own then has ${chance(about.beforePart)} of the limit being reached before. `
        : null}
      {least
        ? `The ${least.name} on ${dayText(least.at, site)} is the least bad option.`
        : beyond
          ? "A stop of its own as soon as the part is there is the least bad option; until then run it as little and as " +
            "gently as the manufacturer allows, and read it often."
          : "It is the least bad option; getting the part sooner or reading more often would help more."}
    </Notice>
  );
}
