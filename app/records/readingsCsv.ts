import { calendarDay } from "@core";
import { csvAnswer } from "~/platform/csv.server";
import { guard } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";

import { readingsQuery } from "~/domain/readings/index.server";

/** Readings of a selection as a CSV file. */
export const loader = guard("viewer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const [machineId, pointId, from, to] = ["machine", "point", "from", "to"].map((name) => search.get(name) ?? "") as [
    string,
    string,
    string,
    string,
  ];
  if ((machineId && !isUuid(machineId)) || (pointId && !isUuid(pointId)))
    return new Response("There is no such machine or point.", { status: 400 });
  if ([from, to].some((day) => day && !calendarDay(day)))
    return new Response("That is no day of the calendar. Write days as 2026-11-20.", { status: 400 });
  return csvAnswer(
    request,
    readingsQuery({ machineId, pointId, from, to, withSuperseded: search.has("superseded") }),
    "readings.csv",
  );
});
