import { DAY, lowerFirst } from "@core";
import { Link } from "react-router";
import type { Route } from "./+types/scorecard";
import type { Scorecard } from "@core";
import { scorecardPage, type LifeEnd, type ScoreGroup } from "~/domain/plan/scorecard.server";
import { guard } from "~/platform/guard.server";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { scorecard as texts } from "./texts";

export const meta = () => [{ title: texts.scorecardJuncteral }];

export const loader = guard("viewer", scorecardPage);

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

const lateText = (late: number | null) =>
  late === null
    ? ""
    : Math.abs(late) < 0.05
      ? texts.onTime
      : late > 0
        ? texts.late(percent(late))
        : texts.early(percent(-late));

/** P10 to P90 as it should hold, and as it held: a ruler from 0 to 100 %. */
function Held({ card }: { card: Scorecard }) {
  if (!card.covered) return <span className="text-ink-2">{texts.tooFewCame}</span>;
  const { share, low, high } = card.covered;
  const x = (v: number) => `${(v * 100).toFixed(1)}%`;
  return (
    <span className="flex items-center gap-2">
      <span className="w-12 shrink-0 text-right">{percent(share)}</span>
      <svg width="140" height="16" aria-hidden="true" className="shrink-0 text-sea">
        <line x1="0" x2="100%" y1="8" y2="8" stroke="var(--line-2)" />
        <line x1={x(0.8)} x2={x(0.8)} y1="2" y2="14" stroke="var(--ink-2)" strokeDasharray="2 2" />
        <line x1={x(low)} x2={x(high)} y1="8" y2="8" stroke="currentColor" strokeWidth="2" />
        <circle cx={x(share)} cy="8" r="4" fill="currentColor" />
      </svg>
      <span className="text-ink-2">{texts.to(percent(low), percent(high))}</span>
    </span>
  );
}

function Groups({ title, groups }: { title: string; groups: readonly ScoreGroup[] }) {
  return (
    <tbody>
      <tr className="ruled">
        <th scope="colgroup" colSpan={6} className="pt-4 pb-1 text-left">
          {title}
        </th>
      </tr>
      {groups.map(({ name, card }) => (
        <tr key={name} className="ruled">
          <th scope="row" className="py-1 pr-3 text-left font-normal">
            {name}
          </th>
          <td className="py-1 pr-3 text-right">{texts.of(card.crossed, card.lives)}</td>
          <td className="py-1 pr-3">
            <Held card={card} />
          </td>
          <td className="py-1 pr-3 text-right">{card.before === null ? "" : percent(card.before)}</td>
          <td className="py-1 pr-3 text-right">{card.after === null ? "" : percent(card.after)}</td>
          <td className="py-1 text-right">{lateText(card.late)}</td>
        </tr>
      ))}
    </tbody>
  );
}

export default function ScorecardPage({ loaderData: page }: Route.ComponentProps) {
  const { all } = page;
  return (
    <>
      <PageHead
        crumbs={[{ label: texts.plan, to: "/plan" }, { label: texts.scorecard }]}
        title={
          all.covered
            ? texts.of100LivesCrossed(Math.round(all.covered.share * 100))
            : all.lives === 0
              ? texts.noForecastHasCome
              : texts.tooFewLivesHave
        }
      >
        <Link to="/plan/lives" className="way">
          {texts.livesByKind}
        </Link>
      </PageHead>
      {all.lives === 0 ? (
        <Empty>{texts.aForecastIsKept}</Empty>
      ) : (
        <>
          <p className="mb-4 max-w-3xl">
            {texts.forecastsOfLivesAs(
              all.forecasts,
              all.lives,
              all.crossed === 0 ? texts.none : all.crossed,
              all.crossed,
              page.unforeseen > 0 ? texts.crossedBeforeAnyForecast(page.unforeseen) : texts.noneCrossedBeforeA,
            )}
          </p>
          {page.notBefore.lives > 0 ? (
            <p className="mb-4 max-w-3xl">
              {texts.whereNoTrendWas(
                page.notBefore.lives,
                page.notBefore.before,
                percent(page.notBefore.before / page.notBefore.lives),
              )}
            </p>
          ) : null}
          {page.narrow.length > 0 ? (
            <p className="mb-4 max-w-3xl font-medium text-ochre">
              {texts.tooNarrowSoFar(
                page.narrow.map((n) => (n.widened > 1 ? texts.thePlanDrawsThem(n.name, n.widened) : n.name)).join("; "),
              )}
            </p>
          ) : null}
          {all.covered ? null : <p className="mb-4 max-w-3xl text-ink-2">{texts.howOftenForecastsHeld}</p>}
          <div className="overflow-x-auto">
            <table className="w-full text-sm">
              <thead>
                <tr className="text-left text-ink-2">
                  {["", "Crossed", texts.cameBetweenP10And, texts.beforeP10, texts.afterP90, "P50 was"].map((h, i) => (
                    <th
                      key={h || "name"}
                      scope="col"
                      className={`pr-3 font-normal ${i === 1 || i > 2 ? "text-right" : ""}`}
                    >
                      {h || <span className="sr-only">{texts.group}</span>}
                    </th>
                  ))}
                </tr>
              </thead>
              <Groups title={texts.all} groups={[{ name: texts.allForecasts, card: all, widened: 1 }]} />
              {all.covered ? (
                <>
                  <Groups title={texts.withAndWithoutPeers} groups={page.byPeers} />
                  <Groups title={texts.byReadingsAtThe} groups={page.byReadings} />
                  <Groups title={texts.byHowFarAhead} groups={page.byAhead} />
                </>
              ) : null}
              <Groups
                title={
                  page.kinds > page.byKind.length ? texts.byKindTheFirst(page.byKind.length, page.kinds) : texts.byKind
                }
                groups={page.byKind}
              />
            </table>
          </div>
          <Ends ends={page.ends} />
        </>
      )}
    </>
  );
}

function Ends({ ends }: { ends: readonly LifeEnd[] }) {
  const site = useSite();
  const day = (at: number | null) => (at === null ? "beyond" : dayText(at, site));
  const verdict = ({ crossedAt, endedAt, last }: LifeEnd) => {
    if (!last) return crossedAt === null ? texts.replacedNoForecastThree : texts.notForeseenThreeMonths;
    const at = crossedAt ?? endedAt!;
    if (crossedAt === null)
      return last.p50 !== null && last.p50 > at
        ? texts.replacedWithAboutDays(Math.round((last.p50 - at) / DAY))
        : texts.replacedBeforeItCrossed;
    if (last.p10 !== null && at < last.p10) return texts.cameBeforeP10;
    if (last.p90 !== null && at > last.p90) return texts.cameAfterP90;
    return texts.asForecast;
  };
  return (
    <Section title={texts.whatCame} className="mt-7" aside={texts.theLastForecastFrom}>
      <ul>
        {ends.map((e) => (
          <li
            key={`${e.pointId} ${e.crossedAt ?? e.endedAt}`}
            className="ruled grid gap-x-4 py-1.5 text-sm md:grid-cols-[minmax(0,1fr)_9rem_17rem_14rem]"
          >
            <span className="min-w-0 [overflow-wrap:anywhere]">
              <Link to={`/points/${e.pointId}`} className="font-semibold hover:underline">
                {e.machine}, {lowerFirst(e.component)}
              </Link>
              <span className="text-ink-2">: {lowerFirst(e.point)}</span>
              {e.findings ? <span className="block text-ink-2">{texts.found(e.findings)}</span> : null}
            </span>
            <span>{e.crossedAt === null ? texts.replaced(day(e.endedAt)) : texts.crossed(day(e.crossedAt))}</span>
            <span className="text-ink-2">
              {e.last ? `${day(e.last.issuedAt)}: ${day(e.last.p10)}, ${day(e.last.p50)}, ${day(e.last.p90)}` : ""}
            </span>
            <span className={/before P10|not foreseen/.test(verdict(e)) ? "font-medium text-ochre" : ""}>
              {verdict(e)}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
