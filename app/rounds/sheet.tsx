import { Link } from "react-router";
import type { Route } from "./+types/sheet";
import { expectedReading, quantityOf, readingStates } from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { Button } from "~/ui/form";
import { dayText, useShow, useSite } from "~/ui/site";
import { roundRow, walkPoints, type WalkPoint } from "~/domain/rounds/index.server";

export const meta = () => [{ title: "Round sheet · Juncteral" }];

export const loader = guard("viewer", async ({ params, user }) => {
  const [round, points] = await Promise.all([roundRow(idParam(params)), walkPoints(idParam(params), user.units)]);
  return { round: { id: round.id, name: round.name }, points };
});

/** A sheet of paper, A4 across: last values, expected ranges at the usual conditions, boxes to fill. */
export default function Sheet({ loaderData: { round, points } }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const range = (p: WalkPoint) => {
    if (!p.expectation) return "–";
    const e = expectedReading(p.expectation, p.fluid, {
      pressure: p.expectation.reference?.pressure ?? null,
      temperature: p.expectation.reference?.temperature ?? null,
      at: site.now,
    });
    return `${show(Math.max(quantityOf(p.quantity).least, e.low), p.quantity, { unit: p.unit })} to ${show(e.high, p.quantity, { unit: p.unit })}`;
  };
  return (
    <div className="round-sheet print:text-black">
      <header className="mb-3 flex flex-wrap items-baseline justify-between gap-3 lg:pr-72 print:pr-0">
        <h1 className="min-w-0 [overflow-wrap:anywhere]">{round.name}</h1>
        <span className="flex gap-4 print:hidden">
          <Link to={`/rounds/${round.id}`} className="way">
            Back
          </Link>
          <Button type="button" tone="plain" onClick={() => window.print()}>
            Print
          </Button>
        </span>
        <p className="w-full text-sm text-ink-2">
          Read by ____________________ on ____________ . Oil under pressure pierces skin: never search for a leak with
          the hand. Expected ranges hold at the reference condition, or as it runs.
        </p>
      </header>
      <table
        className={
          "w-full table-fixed text-sm [&_td]:border [&_td]:break-words [&_td]:border-line-2 [&_td]:px-1.5 [&_td]:py-1 [&_th]:border " +
          "[&_th]:border-line-2 [&_th]:px-1.5 [&_th]:py-1"
        }
      >
        <thead>
          <tr>
            <th scope="col" className="w-[27%]">
              point
            </th>
            <th scope="col" className="w-[9%]">
              read
            </th>
            <th scope="col" className="w-[7%]">
              with
            </th>
            <th scope="col" className="w-[13%]">
              last
            </th>
            <th scope="col" className="w-[13%]">
              expected
            </th>
            <th scope="col" className="w-[7%]">
              oil
            </th>
            <th scope="col" className="w-[7%]">
              load
            </th>
            <th scope="col" className="w-[7%]">
              hours
            </th>
            <th scope="col" className="w-[10%]">
              reading
            </th>
          </tr>
        </thead>
        <tbody>
          {points.map((p) => (
            <tr key={p.id} className="break-inside-avoid">
              <td>
                {p.machine}, {p.component}: {p.name}
                <span className="block text-xs text-ink-2">{p.conditions}</span>
              </td>
              <td>{readingStates[p.readState]}</td>
              <td>{p.instrument?.tag ?? ""}</td>
              <td>{p.last ? `${show(p.last.raw, p.quantity, { unit: p.unit })}, ${dayText(p.last.at, site)}` : "–"}</td>
              <td>{range(p)}</td>
              <td />
              <td />
              <td />
              <td className="text-right text-ink-2">{p.unit}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
