import { Link } from "react-router";
import type { Route } from "./+types/parts";
import { lowerFirst, dayOf, dayStart } from "@core";
import { ordersOf, type OrderLine, planSites } from "~/domain/plan/index.server";
import { guard, notFound } from "~/platform/guard.server";
import { Empty, PageHead } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Parts · Juncteral" }];

export const loader = guard("viewer", async ({ request }) => {
  const { site } = await planSites(new URL(request.url).searchParams.get("site"));
  if (!site) throw notFound("site");
  return { site, orders: await ordersOf(site) };
});

export default function Parts({ loaderData: { site, orders } }: Route.ComponentProps) {
  return (
    <InZone timeZone={site.timeZone}>
      <List site={site} orders={orders} />
    </InZone>
  );
}

const sourceOf = ({ from, fromName }: OrderLine) =>
  from === "booked"
    ? `Booked: ${fromName}`
    : from === "plan"
      ? fromName
      : from === "forecast"
        ? "earliest likely day of the limit"
        : "";

function List({ site, orders }: Route.ComponentProps["loaderData"]) {
  const here = useSite();
  const today = dayOf(here.now, site.timeZone);
  const day = (text: string | null) => (text === null ? "" : dayText(dayStart(text, site.timeZone), here));
  const due = orders.filter((o) => o.orderBy !== null && o.orderBy <= today).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Plan", to: `/plan?site=${site.id}` }, { label: site.name }]}
        title={
          orders.length === 0
            ? "No part is needed"
            : due > 0
              ? `${counted(due, "part")} to order now`
              : "No part has to be ordered today"
        }
      >
        {orders.length > 0 ? (
          <a href={`/plan/parts.csv?site=${site.id}`} className="way" download>
            Order list as CSV
          </a>
        ) : null}
      </PageHead>
      {orders.length === 0 ? (
        <Empty>Nothing in the plan of the next year needs a part.</Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full text-sm">
            <thead>
              <tr className="ruled text-left text-ink-2">
                {["Order by", "Part", "Needed by", "Lead time", "On hand", "Ordered", "Standing"].map((h) => (
                  <th key={h} scope="col" className="py-1.5 pr-3 font-normal">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {orders.map((o) => (
                <tr key={o.id} className="ruled align-top">
                  <td
                    className={`py-1.5 pr-3 whitespace-nowrap ${o.orderBy !== null && o.orderBy <= today ? "font-semibold text-verm" : ""}`}
                  >
                    {o.orderBy === null ? "–" : o.orderBy <= today ? `now (${day(o.orderBy)})` : day(o.orderBy)}
                  </td>
                  <td className="py-1.5 pr-3 [overflow-wrap:anywhere]">
                    <Link
                      to={o.workId ? `/work/${o.workId}` : o.pointId ? `/points/${o.pointId}` : "/work"}
                      className="font-semibold hover:underline"
                    >
                      {o.machine}, {lowerFirst(o.component)}
                    </Link>
                    <span className="block text-ink-2">{[o.model, o.tag].filter(Boolean).join(", ")}</span>
                  </td>
                  <td className="py-1.5 pr-3">
                    {day(o.neededBy)}
                    <span className="block text-ink-2">{sourceOf(o)}</span>
                  </td>
                  <td className="py-1.5 pr-3">{o.leadTimeDays === null ? "not stated" : `${o.leadTimeDays}\u00a0d`}</td>
                  <td className="py-1.5 pr-3">{o.spares}</td>
                  <td className="py-1.5 pr-3">{o.orderedOn ? day(o.orderedOn) : "no"}</td>
                  <td className={`py-1.5 ${o.late ? "font-medium text-ochre" : "text-ink-2"}`}>{o.text}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}
