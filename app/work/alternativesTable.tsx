/** Alternatives side by side: asked for at a press, since the whole plan of the site stands behind them. */
import { useFetcher } from "react-router";
import { moneyText } from "@core";
import type { loader } from "./alternatives";
import { Button } from "~/ui/form";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)}\u00a0%`;

export function AlternativesTable({ componentId }: { componentId: string }) {
  const site = useSite();
  const fetcher = useFetcher<typeof loader>();
  const found = fetcher.data?.alternatives;
  if (fetcher.data === undefined)
    return (
      <p className="mb-4">
        <Button
          type="button"
          tone="plain"
          onClick={() => void fetcher.load(`/work/alternatives?component=${componentId}`)}
        >
          {fetcher.state === "idle" ? "Compare the alternatives" : "Pricing them …"}
        </Button>
      </p>
    );
  return (
    <Section title="Alternatives, the cheapest first" aside="expected cost, failing before included">
      {!found ? (
        <p className="py-2 text-ink-2">No forecast, fault or booking asks for work here: there is nothing to price.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
            <thead>
              <tr className="ruled">
                <th scope="col">way</th>
                <th scope="col">when</th>
                <th scope="col" className="text-right">
                  crew hours
                </th>
                <th scope="col" className="text-right">
                  cost
                </th>
                <th scope="col" className="text-right">
                  limit before
                </th>
                <th scope="col" className="text-right">
                  fails before
                </th>
                <th scope="col">cure</th>
              </tr>
            </thead>
            <tbody>
              {found.ways.map((w) => (
                <tr key={w.id} className="ruled">
                  <th scope="row" className="text-left font-semibold">
                    {w.name}
                  </th>
                  <td>{dayText(w.at, { ...site, timeZone: found.timeZone })}</td>
                  <td className="text-right">{w.hours.toFixed(w.hours % 1 === 0 ? 0 : 1)}</td>
                  <td className="text-right whitespace-nowrap">{moneyText(w.cost, found.currency)}</td>
                  <td className="text-right">{percent(w.crossed)}</td>
                  <td className="text-right">{percent(w.fails)}</td>
                  <td className="text-ink-2">
                    {w.interim ? "stop-gap: the cause stays open" : w.id === "wait" ? "nothing is done" : "cure"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="py-2 text-sm text-ink-2">
            {`Estimates for deciding, not a promise${found.assumed ? "; hours or costs are usual ones of the kind" : ""}` +
              ". A stop-gap is priced as if it changed nothing of the wear."}
          </p>
        </div>
      )}
    </Section>
  );
}
