/** How a point's verdict was worked out: the last reading, the baseline, the forecast, the trend. */
import { formatNumber, fromCore, stateWords, type Unit } from "@core";
import type { PointPage } from "~/domain/readings/pointPage.server";
import { Section } from "~/ui/page";
import { WorkingTable } from "~/ui/working";
import { workingsSection as texts } from "./texts";

export function WorkingsSection({ detail, unit }: { detail: NonNullable<PointPage["detail"]>; unit: Unit }) {
  return (
    <Section title={texts.howThisWasWorked}>
      {detail.workings.last ? (
        <details open>
          <summary className="pt-2 text-sea">{texts.theLastReading}</summary>
          <WorkingTable working={detail.workings.last} />
        </details>
      ) : null}
      {detail.workings.baseline ? (
        <details>
          <summary className="pt-2 text-sea">{texts.theBaseline}</summary>
          <WorkingTable working={detail.workings.baseline} />
        </details>
      ) : null}
      {detail.workings.forecast ? (
        <details>
          <summary className="pt-2 text-sea">{texts.theForecast}</summary>
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
        <summary className="pt-2 text-sea">{texts.theTrend}</summary>
        <dl className="text-sm">
          {detail.trend.mannKendall.corrected === null ? (
            <p className="text-ink-2">{texts.fewerThanFourReadings}</p>
          ) : (
            <>
              <div className="flex justify-between py-0.5">
                <dt className="text-ink-2">{texts.mannKendallPAs}</dt>
                <dd>{formatNumber(detail.trend.mannKendall.raw!, 4)}</dd>
              </div>
              <div className="flex justify-between py-0.5">
                <dt className="text-ink-2">{texts.mannKendallPCorrected}</dt>
                <dd>{formatNumber(detail.trend.mannKendall.corrected, 4)}</dd>
              </div>
              {detail.trend.slope ? (
                <div className="flex justify-between py-0.5">
                  <dt className="text-ink-2">{texts.theilSenAMonth(unit.symbol)}</dt>
                  <dd>
                    {texts.to(
                      formatNumber(fromCore(detail.trend.slope.perMonth, unit) - fromCore(0, unit), 3),
                      formatNumber(fromCore(detail.trend.slope.low, unit) - fromCore(0, unit), 3),
                      formatNumber(fromCore(detail.trend.slope.high, unit) - fromCore(0, unit), 3),
                    )}
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
