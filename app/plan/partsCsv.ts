import { ordersCsv, ordersOf, planSites } from "~/domain/plan/index.server";
import { guard, notFound } from "~/platform/guard.server";

/** The order list as a CSV file. */
export const loader = guard("viewer", async ({ request }) => {
  const { site } = await planSites(new URL(request.url).searchParams.get("site"));
  if (!site) throw notFound("site");
  return new Response(ordersCsv(await ordersOf(site)), {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": 'attachment; filename="parts.csv"',
    },
  });
});
