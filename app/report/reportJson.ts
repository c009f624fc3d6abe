import { report, reportAsked } from "~/domain/report/index.server";
import { guard } from "~/platform/guard.server";

/** All figures of a report as JSON: values in core units, moments as epoch ms. */
export const loader = guard("viewer", async ({ request }) => {
  const { sites: _, ...figures } = await report(reportAsked(request), { whole: true });
  return Response.json(figures, { headers: { "Content-Disposition": 'attachment; filename="report.json"' } });
});
