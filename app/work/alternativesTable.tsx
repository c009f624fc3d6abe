/** Alternatives side by side: asked for at a press, since the whole plan of the site stands behind them. */
import { useFetcher } from "react-router";
import { moneyText } from "@core";
import type { loader } from "./alternatives";
import { Button } from "~/ui/form";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { alternativesTable as texts } from "./texts";

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
          {fetcher.state === "idle" ? texts.compareTheAlternatives : texts.pricingThem}
        </Button>
      </p>
    );
  return (
    <Section title={texts.alternativesTheCheapestFirst} aside={texts.expectedCostFailingBefore}>
      {!found ? (
        <p className="py-2 text-ink-2">{texts.noForecastFaultOr}</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
            <thead>
              <tr className="ruled">
                <th scope="col">{texts.way}</th>
                <th scope="col">{texts.when}</th>
                <th scope="col" className="text-right">
                  {texts.crewHours}
                </th>
                <th scope="col" className="text-right">
                  {texts.cost}
                </th>
                <th scope="col" className="text-right">
                  {texts.limitBefore}
                </th>
                <th scope="col" className="text-right">
                  {texts.failsBefore}
                </th>
                <th scope="col">{texts.cure}</th>
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
                    {w.interim ? texts.stopGapTheCause : w.id === "wait" ? texts.nothingIsDone : texts.cure}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="py-2 text-sm text-ink-2">
            {texts.estimatesForDecidingNot(found.assumed ? texts.hoursOrCostsAre : "")}
          </p>
        </div>
      )}
    </Section>
  );
}
