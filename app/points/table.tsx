/** Readings as a table: the same data as the chart. */
import { Link } from "react-router";
import { formatNumber, type ReadingMark } from "@core";
import { momentText, useShow, useSite } from "~/ui/site";
import type { PointPage } from "~/domain/readings/index.server";

const markText: Record<ReadingMark, string> = {
  outlier: "outlier, counts less",
  unconfirmed: "does not fit the readings before it, not used until a second reading confirms it",
  beforeRepair: "from before the repair, not used",
  recalled: "instrument recalled, not used",
  doubtful: "marked doubtful, counts less",
  noConditions: "oil or load not noted",
  offCondition: "conditions outside the learned range",
};

export function ReadingTable({ data, mayCorrect }: { data: PointPage; mayCorrect: boolean }) {
  const site = useSite();
  const show = useShow();
  const corrected = data.detail?.correction;
  const unit = data.unit;
  const pages = Math.ceil(data.total.count / data.rowsAtOnce);
  const older = data.page < pages - 1 || (data.total.over && data.table.length === data.rowsAtOnce);
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse text-sm [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">taken</th>
              <th scope="col" className="text-right">
                as read
              </th>
              <th scope="col" className="text-right">
                oil
              </th>
              <th scope="col" className="text-right">
                load
              </th>
              <th scope="col" className="text-right">
                hours
              </th>
              {corrected ? (
                <th scope="col" className="text-right">
                  corrected
                </th>
              ) : null}
              {data.fullFlow && corrected ? (
                <th scope="col" className="text-right">
                  share
                </th>
              ) : null}
              <th scope="col">by, with</th>
            </tr>
          </thead>
          <tbody>
            {data.table.map((r) => (
              <tr key={r.id} className="ruled">
                <td className="whitespace-nowrap">
                  {mayCorrect ? (
                    <Link
                      to={`/points/${data.place.id}/readings/${r.id}`}
                      className="hover:underline"
                      title="Correct this reading"
                    >
                      {momentText(r.at, site)}
                    </Link>
                  ) : (
                    momentText(r.at, site)
                  )}
                </td>
                <td className="text-right whitespace-nowrap">
                  {r.least !== null && r.least !== r.raw ? `${show(r.least, data.quantity, { unit })} to ` : ""}
                  {show(r.raw, data.quantity, { unit })}
                </td>
                <td className="text-right whitespace-nowrap">
                  {r.temperature === null ? "–" : show(r.temperature, "oilTemperature")}
                </td>
                <td className="text-right whitespace-nowrap">
                  {r.pressure === null ? "–" : show(r.pressure, "loadPressure")}
                </td>
                <td className="text-right whitespace-nowrap">
                  {r.noted === null ? "–" : show(r.noted, "runningHours")}
                </td>
                {corrected ? (
                  <td className="text-right whitespace-nowrap">{show(r.corrected, data.quantity, { unit })}</td>
                ) : null}
                {data.fullFlow && corrected ? (
                  <td className="text-right font-semibold whitespace-nowrap">
                    {formatNumber((r.corrected / data.fullFlow) * 100, 1)} %
                  </td>
                ) : null}
                <td className="min-w-40">
                  {r.by}
                  {r.instrument ? `, ${r.instrument}` : ""}
                  {r.mark ? <span className="block text-xs text-ochre">◇ {markText[r.mark]}</span> : null}
                  {r.keptBecause ? <span className="block text-xs text-ink-2">{`kept: ${r.keptBecause}`}</span> : null}
                  {r.note ? <span className="block text-xs text-ink-2 [overflow-wrap:anywhere]">{r.note}</span> : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {pages > 1 ? (
        <nav aria-label="Pages of readings" className="mt-2 flex items-center gap-4 text-sm">
          {data.page > 0 ? (
            <Link to={`?page=${data.page - 1}`} preventScrollReset className="way">
              newer
            </Link>
          ) : null}
          <span className="text-ink-2">{`page ${data.page + 1} of ${data.total.over ? "more than " : ""}${pages}`}</span>
          {older ? (
            <Link to={`?page=${data.page + 1}`} preventScrollReset className="way">
              older
            </Link>
          ) : null}
        </nav>
      ) : null}
    </>
  );
}
