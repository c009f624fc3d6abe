/** Samples out: under headings that the import of a laboratory's file reads again. */
import { analyteIds, analytes, quantityOf } from "@core";
import { safeCell } from "~/platform/csv.server";

/** One result as a laboratory writes it: "< 5". The names are constants of ours. */
const result = (id: string) =>
  `case when s.results -> '${id}' ->> 'below' = 'true' then '< ' when s.results -> '${id}' ->> 'above' = 'true'
    then '> ' else '' end || (s.results -> '${id}' ->> 'value')`;

/** Every sample that is not withdrawn, values in core units. */
export function samplesQuery(): string {
  const columns = analyteIds.map(
    (id) => `${result(id)} as "${analytes[id].label} [${quantityOf(analytes[id].quantity).unit}]"`,
  );
  return `
    select ${safeCell("s.number")} as "sample number", ${safeCell("m.tag || '/' || k.name")} as machine,
      to_char(s.taken_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "taken at", s.hours, s.place, s.state,
      ${safeCell("s.code")} as "iso code", ${columns.join(", ")},
           ${safeCell("s.colour")} as colour, ${safeCell("s.laboratory")} as laboratory, ${safeCell("s.taken_by")} as "taken by", ${safeCell("s.note")} as note
    from samples s join circuits k on k.id = s.circuit_id join machines m on m.id = k.machine_id where s.withdrawn_at is null order by m.tag, s.taken_at`;
}
