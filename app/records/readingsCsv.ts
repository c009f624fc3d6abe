import { createReadableStreamFromReadable } from "@react-router/node";
import { guard, isUuid, problems } from "~/platform/guard.server";
import { readingsCsv } from "./queries.server";

const day = (text: string | null) => (text && /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)) ? text : "");

/** Readings of a selection as a CSV file. */
export const loader = guard("viewer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const machineId = search.get("machine") ?? "";
  const pointId = search.get("point") ?? "";
  if ((machineId && !isUuid(machineId)) || (pointId && !isUuid(pointId))) throw problems({ form: "No such selection." }, 400);
  const stream = await readingsCsv({ machineId, pointId, from: day(search.get("from")), to: day(search.get("to")), withSuperseded: search.has("superseded") });
  return new Response(createReadableStreamFromReadable(stream), { headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="readings.csv"' } });
});
