/** How a point's verdict was worked out: the last reading, the baseline, the forecast, the trend. */
import { formatNumber, fromCore, stateWords, type Unit } from "@core";
import type { PointPage } from "~/domain/readings/index.server";
import { Section } from "~/ui/page";
import { WorkingTable } from "~/ui/working";

export function WorkingsSection({ detail, unit }: { detail: NonNullable<PointPage["detail"]>; unit: Unit }) {
  // a difference of two values: an offset of the unit, as between degrees, falls out of it
  const rate = (perMonth: number) => formatNumber(fromCore(perMonth, unit) - fromCore(0, unit), 3);
  return (
    <Section title="How this was worked out">
      {detail.workings.last ? (
        <details open>
          <summary className="pt-2 text-sea">The last reading</summary>
          <WorkingTable working={detail.workings.last} />
        </details>
      ) : null}
      {detail.workings.baseline ? (
        <details>
          <summary className="pt-2 text-sea">The baseline</summary>
          <WorkingTable working={detail.workings.baseline} />
        </details>
      ) : null}
      {detail.workings.forecast ? (
        <details>
          <summary className="pt-2 text-sea">The forecast</summary>
          <WorkingTable working={detail.workings.forecast} />
        </details>
      ) : null}
      {detail.workings.word ? (
        <details>
          <summary className="pt-2 text-sea">Why it is {stateWords[detail.state]}</summary>
          <WorkingTable working={detail.workings.word} />
        </details>
      ) : null}
      <details>
        <summary className="pt-2 text-sea">The trend</summary>
        <dl className="text-sm">
          {detail.trend.mannKendall.corrected === null ? (
            <p className="text-ink-2">Fewer than four readings.</p>
          ) : (
            <>
              <div className="flex justify-between py-0.5">
                <dt className="text-ink-2">Mann-Kendall p, as read</dt>
                <dd>{formatNumber(detail.trend.mannKendall.raw!, 4)}</dd>
              </div>
              <div className="flex justify-between py-0.5">
                <dt className="text-ink-2">Mann-Kendall p, corrected</dt>
                <dd>{formatNumber(detail.trend.mannKendall.corrected, 4)}</dd>
              </div>
              {detail.trend.slope ? (
                <div className="flex justify-between py-0.5">
                  <dt className="text-ink-2">{`Theil-Sen, ${unit.symbol} a month`}</dt>
                  <dd>
                    {`${rate(detail.trend.slope.perMonth)} (${rate(detail.trend.slope.low)} to ${rate(detail.trend.slope.high)})`}
                  </dd>
                </div>
              ) : null}
            </>
          )}
        </dl>
      </details>
    </Section>
  );
}
