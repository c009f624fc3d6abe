import { formatNumber } from "@core";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import type { CleanUpResult, Watched } from "./cleanUpModel";

/** Running time as people say it. */
export const hours = (minutes: number) =>
  minutes < 90
    ? `${formatNumber(Math.round(minutes), 0)} min`
    : `${formatNumber(minutes / 60, minutes < 600 ? 1 : 0)} h`;

/** Each way to clean: where it settles, how long it takes, what it costs the parts until then. */
export function Ways({ result, hoursPerDay }: { result: CleanUpResult; hoursPerDay: number }) {
  return (
    <>
      <table className="w-full text-sm [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
        <thead>
          <tr className="ruled">
            <th scope="col">way</th>
            <th scope="col" className="text-right">
              settles at, /mL
            </th>
            <th scope="col" className="text-right">
              running until clean
            </th>
            <th scope="col" className="text-right">
              days at its duty
            </th>
            <th scope="col" className="text-right">
              dirt carried until then
            </th>
          </tr>
        </thead>
        <tbody>
          {result.ways.map((w) => (
            <tr key={w.label} className="ruled">
              <td>{w.label}</td>
              <td className="text-right">{formatNumber(w.plan.steady, w.plan.steady < 10 ? 1 : 0)}</td>
              <td className="text-right font-semibold">
                {w.plan.minutes === null ? "never" : w.plan.minutes === 0 ? "clean" : hours(w.plan.minutes)}
              </td>
              <td className="text-right">
                {w.plan.minutes ? formatNumber(w.plan.minutes / 60 / hoursPerDay, 1) : "–"}
              </td>
              <td className="text-right">{w.plan.exposure ? `as in ${hours(w.plan.exposure)} at target` : "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-ink-2">
        “Never”: more comes in than the filter takes out at that count. Dirt carried: running time at the target in
        which the parts would meet as many particles; that is what the event costs them.
      </p>
    </>
  );
}

/** A clean-up that was watched beside the balance. */
export function Measured({ watched, result }: { watched: Watched | null; result: CleanUpResult | null }) {
  const site = useSite();
  return (
    <Section
      title="Measured beside predicted"
      className="mt-5"
      aside={watched ? dayText(watched.start.at, site) : undefined}
    >
      {!watched || !result?.fitChart ? (
        <p className="py-2 text-ink-2">
          No clean-up was watched: at least four samples of one day, with their machine hours, are needed.
        </p>
      ) : (
        <>
          <p className="py-2">
            {result.fit ? (
              <>
                <>
                  It cleared at{" "}
                  {
                    <strong className="font-semibold">
                      {formatNumber(result.fit.share * 100, result.fit.share < 0.1 ? 1 : 0)} %
                    </strong>
                  }{" "}
                  of the rate that flow and β promise ({formatNumber(result.fit.low * 100, 0)} to{" "}
                  {formatNumber(result.fit.high * 100, 0)} %).{" "}
                  {result.fit.high < 1
                    ? "Slower than predicted: less flow went through the filter than given, another filter did the work, or dirt " +
                      "kept coming off the walls."
                    : result.fit.low > 1
                      ? "Faster than predicted: another filter helped."
                      : "As predicted."}
                </>
              </>
            ) : (
              "Too little was cleaned to compare."
            )}
          </p>
          <ChartCanvas
            make={result.fitChart}
            height={230}
            label="Measured counts of one clean-up beside those predicted by the balance."
          />
        </>
      )}
    </Section>
  );
}
