import { dayOf, quantityOf } from "@core";
import { report, reportAsked } from "~/domain/report/index.server";
import { csvText } from "~/platform/csvRows";
import { guard } from "~/platform/guard.server";

const figure = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : Number(value.toPrecision(6));

/** The points of a report as CSV: values in core units, days as its page has them, those of its site. */
export const loader = guard("viewer", async ({ request }) => {
  const { points, site } = await report(reportAsked(request), { whole: true });
  const day = (at: number | null) => (at === null ? "" : dayOf(at, site.timeZone));
  const head = [
    "machine",
    "component",
    "point",
    "state",
    "last reading",
    "unit",
    "read on",
    "margin used",
    "margin low",
    "margin high",
    "readings in the period",
    "crossed on",
    "P10",
    "P50",
    "P90",
  ];
  const rows = points.map((p) => [
    p.machine,
    p.component,
    p.point,
    p.state,
    figure(p.lastRaw),
    quantityOf(p.quantity).unit,
    day(p.lastAt),
    figure(p.margin?.value),
    figure(p.margin?.low),
    figure(p.margin?.high),
    p.readings,
    day(p.crossedAt),
    day(p.p10),
    day(p.p50),
    day(p.p90),
  ]);
  return new Response(csvText([head, ...rows]), {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": 'attachment; filename="report.csv"',
    },
  });
});
