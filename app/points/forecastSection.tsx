/** The forecast beside a point's trend: when the limit is reached, the chance before each stop, which wear models say so. */
import { formatNumber, pathLabel, type MoveCause } from "@core";
import type { PointPage } from "~/domain/readings/pointPage.server";
import { Section } from "~/ui/page";
import { dayText, monthText, useShow, useSite } from "~/ui/site";
import { forecastSection as texts } from "./texts";

/** Below this share a life has left its peers. */
const LEFT = 0.35;

/** Whether its peers still say something of it. */
const likeText = (like: number) =>
  like < LEFT ? texts.itDoesNotGo(formatNumber(like * 100, 0)) : texts.likeItsPeers(formatNumber(like * 100, 0));

const causeText: Record<MoveCause, string> = {
  readings: "readings of it were corrected or recalled",
  peers: "its peers tell something else since",
  oil: "its oil was sampled or changed",
  duty: "the hours of its machine or part were put right",
  point: "its limit, reference or plate was changed",
  time: "days went by and nobody read it",
};

/** Why the date moved though nobody read the point. */
function Moved({ moved }: { moved: NonNullable<NonNullable<PointPage["detail"]>["memory"]["moved"]> }) {
  const site = useSite();
  const date = (at: number | null) => (at === null ? "beyond the horizon" : dayText(at, site));
  return (
    <p className="mt-2 text-sm text-ink-2">
      P50 moved from {date(moved.from)} (told on {dayText(moved.toldAt, site)}) to {date(moved.to)} without a new
      reading: {moved.because.map((c) => causeText[c]).join("; ")}.
    </p>
  );
}

export function ForecastSection({ detail }: { detail: NonNullable<PointPage["detail"]> }) {
  const site = useSite();
  const show = useShow();
  const { forecast } = detail;
  if (!forecast) return null;
  return (
    <Section
      title={texts.forecast}
      aside={detail.noTrend ? (detail.noTrend.slow ? "too slow to date" : texts.noTrendProved) : undefined}
    >
      {detail?.noTrend ? (
        <p className="pt-2 text-ink-2">
          {detail.noTrend.slow ? "It moves towards its limit, too slowly to be dated" : texts.noTrendIsProved}
          {detail.noTrend.earliest ? (
            <>
              {texts.theEarliestPlausibleIs}{" "}
              <strong className="text-ink">{monthText(detail.noTrend.earliest, site)}</strong>
            </>
          ) : (
            ""
          )}
          .
        </p>
      ) : (
        <table className="w-full text-sm [&_td]:py-1 [&_th]:py-1">
          <thead>
            <tr className="ruled">
              <th scope="col">{texts.limitReached}</th>
              <th scope="col" className="text-right">
                {texts.hoursOn}
              </th>
              <th scope="col" className="text-right">
                {texts.date}
              </th>
            </tr>
          </thead>
          <tbody>
            {(["p10", "p50", "p90"] as const).map((p) => (
              <tr key={p} className="ruled">
                <th scope="row">{p.toUpperCase()}</th>
                <td className="text-right">
                  {forecast.hours[p] === null ? texts.beyondTheHorizon : show(forecast.hours[p], "runningHours")}
                </td>
                <td className="text-right">{forecast.dates[p] === null ? "–" : dayText(forecast.dates[p], site)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {detail.memory.moved ? <Moved moved={detail.memory.moved} /> : null}
      {forecast.beforeStops.length > 0 ? (
        <table className="mt-2 w-full text-sm [&_td]:py-1 [&_th]:py-1">
          <thead>
            <tr className="ruled">
              <th scope="col">{texts.chanceOfReachingIt}</th>
              <th scope="col" className="text-right">
                %
              </th>
            </tr>
          </thead>
          <tbody>
            {forecast.beforeStops.slice(0, 4).map((s) => (
              <tr key={s.stopId} className="ruled">
                <td>{dayText(s.at, site)}</td>
                <td className="text-right font-semibold">
                  {s.probability < 0.01 ? "< 1" : s.probability > 0.99 ? "> 99" : formatNumber(s.probability * 100, 0)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <p className="mt-2 text-sm text-ink-2">
        {detail.course > 0
          ? texts.atThePaceOf(detail.course)
          : texts.wearModels(
              forecast.paths
                .filter((p) => p.share >= 0.15)
                .map((p) => `${pathLabel(p.id)} ${formatNumber(p.share * 100, 0)} %`)
                .join(", "),
              forecast.like === null ? "" : likeText(forecast.like),
              forecast.change.probability > 0.5 && forecast.change.at
                ? texts.theRateMostLikely(monthText(forecast.change.at, site))
                : "",
            )}
      </p>
    </Section>
  );
}
