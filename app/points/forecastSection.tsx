/** The forecast beside a point's trend: when the limit is reached, the chance before each stop, which wear models say so. */
import { formatNumber, pathLabel, type MoveCause } from "@core";
import type { PointPage } from "~/domain/readings/index.server";
import { Section } from "~/ui/page";
import { dayText, monthText, useShow, useSite } from "~/ui/site";

/** Below this share a life has left its peers. */
const LEFT = 0.35;

/** Whether its peers still say something of it. */
const likeText = (like: number) =>
  like < LEFT
    ? ` It does not go the way its peers went: they hardly count (${formatNumber(like * 100, 0)} %).`
    : ` Like its peers: ${formatNumber(like * 100, 0)} %.`;

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
      title="Forecast"
      aside={detail.noTrend ? (detail.noTrend.slow ? "too slow to date" : "no trend proved") : undefined}
    >
      {detail?.noTrend ? (
        <p className="pt-2 text-ink-2">
          {detail.noTrend.slow
            ? "It moves towards its limit, too slowly to be dated"
            : "No trend is proved, so no date is given"}
          {detail.noTrend.earliest ? (
            <>
              ; the earliest plausible is{" "}
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
              <th scope="col">limit reached</th>
              <th scope="col" className="text-right">
                hours on
              </th>
              <th scope="col" className="text-right">
                date
              </th>
            </tr>
          </thead>
          <tbody>
            {(["p10", "p50", "p90"] as const).map((p) => (
              <tr key={p} className="ruled">
                <th scope="row">{p.toUpperCase()}</th>
                <td className="text-right">
                  {forecast.hours[p] === null ? "beyond the horizon" : show(forecast.hours[p], "runningHours")}
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
              <th scope="col">chance of reaching it before the stop</th>
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
          ? `At the pace of its last ${detail.course} readings, each beyond the one before; the doubt is what so few leave open.`
          : `Wear models: ${forecast.paths
              .filter((p) => p.share >= 0.15)
              .map((p) => `${pathLabel(p.id)} ${formatNumber(p.share * 100, 0)} %`)
              .join(", ")}` +
            `.${forecast.like === null ? "" : likeText(forecast.like)}${
              forecast.change.probability > 0.5 && forecast.change.at
                ? ` The rate most likely changed about ${monthText(forecast.change.at, site)}.`
                : ""
            }`}
      </p>
    </Section>
  );
}
