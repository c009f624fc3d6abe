import { DAY, lowerFirst } from "@core";
import { Link } from "react-router";
import type { Route } from "./+types/scorecard";
import type { Scorecard } from "@core";
import { scorecardPage, type LifeEnd, type ScoreGroup } from "~/domain/plan/index.server";
import { guard } from "~/platform/guard.server";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

export const meta = () => [{ title: "Scorecard · Juncteral" }];

export const loader = guard("viewer", scorecardPage);

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

const lateText = (late: number | null) =>
  late === null
    ? ""
    : Math.abs(late) < 0.05
      ? "on time"
      : late > 0
        ? `${percent(late)} late`
        : `${percent(-late)} early`;

/** P10 to P90 as it should hold, and as it held: a ruler from 0 to 100 %. */
function Held({ card }: { card: Scorecard }) {
  if (!card.covered) return <span className="text-ink-2">too few came</span>;
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
      <span className="text-ink-2">{`${percent(low)} to ${percent(high)}`}</span>
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
          <td className="py-1 pr-3 text-right">{`${card.crossed} of ${card.lives}`}</td>
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
        crumbs={[{ label: "Plan", to: "/plan" }, { label: "Scorecard" }]}
        title={
          all.covered
            ? `Of 100 lives, ${Math.round(all.covered.share * 100)} crossed their limit between P10 and P90; 80 should`
            : all.lives === 0
              ? "No forecast has come due yet"
              : "Too few lives have crossed their limit to judge the forecasts"
        }
      >
        <Link to="/plan/lives" className="way">
          Lives by kind
        </Link>
      </PageHead>
      {all.lives === 0 ? (
        <Empty>
          A forecast is kept when it is shown and says something new. It is scored when its life crosses the limit.
        </Empty>
      ) : (
        <>
          <p className="mb-4 max-w-3xl">
            {`${all.forecasts} forecasts of ${all.lives} lives, as they were issued; ${all.crossed === 0 ? "none" : all.crossed} crossed ` +
              `${all.crossed === 1 ? "its" : "their"} limit. Each life counts once. A part that was replaced ` +
              `before, or runs on, counts as long as it was seen.${
                page.unforeseen > 0
                  ? ` ${page.unforeseen} ${page.unforeseen === 1 ? "life" : "lives"} crossed before any forecast was issued.`
                  : " None crossed before a forecast was issued."
              }`}
          </p>
          {page.notBefore.lives > 0 ? (
            <p className="mb-4 max-w-3xl">
              {`Where no trend was proved, only the earliest date was given, for ${page.notBefore.lives} lives: ${page.notBefore.before}` +
                ` crossed before it (${percent(page.notBefore.before / page.notBefore.lives)}; each date by ` +
                "itself may be wrong one time in twenty)."}
            </p>
          ) : null}
          {page.narrow.length > 0 ? (
            <p className="mb-4 max-w-3xl font-medium text-ochre">
              {`Too narrow so far: ${page.narrow
                .map((n) => (n.widened > 1 ? `${n.name} (the plan draws them ${n.widened} times as wide)` : n.name))
                .join("; ")}. Allow for more on either side.`}
            </p>
          ) : null}
          {all.covered ? null : (
            <p className="mb-4 max-w-3xl text-ink-2">
              How often forecasts held is shown once three lives have crossed; until then only what came is listed.
            </p>
          )}
          <div className="overflow-x-auto">
            <table className="w-full text-sm">
              <thead>
                <tr className="text-left text-ink-2">
                  {["", "Crossed", "Came between P10 and P90", "Before P10", "After P90", "P50 was"].map((h, i) => (
                    <th
                      key={h || "name"}
                      scope="col"
                      className={`pr-3 font-normal ${i === 1 || i > 2 ? "text-right" : ""}`}
                    >
                      {h || <span className="sr-only">Group</span>}
                    </th>
                  ))}
                </tr>
              </thead>
              <Groups title="All" groups={[{ name: "All forecasts", card: all, widened: 1 }]} />
              {all.covered ? (
                <>
                  <Groups title="With and without peers" groups={page.byPeers} />
                  <Groups title="By readings at the time" groups={page.byReadings} />
                  <Groups title="By how far ahead" groups={page.byAhead} />
                </>
              ) : null}
              <Groups
                title={
                  page.kinds > page.byKind.length
                    ? `By kind, the first ${page.byKind.length} of ${page.kinds}`
                    : "By kind"
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
    if (!last)
      return crossedAt === null ? "replaced, no forecast three months before" : "not foreseen three months before";
    const at = crossedAt ?? endedAt!;
    if (crossedAt === null)
      return last.p50 !== null && last.p50 > at
        ? `replaced with about ${Math.round((last.p50 - at) / DAY)} days left`
        : "replaced before it crossed";
    if (last.p10 !== null && at < last.p10) return "came before P10";
    if (last.p90 !== null && at > last.p90) return "came after P90";
    return "as forecast";
  };
  return (
    <Section
      title="What came"
      className="mt-7"
      aside="the last forecast from at least three months before: P10, P50, P90"
    >
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
              {e.findings ? <span className="block text-ink-2">{`Found: ${e.findings}`}</span> : null}
            </span>
            <span>{e.crossedAt === null ? `replaced ${day(e.endedAt)}` : `crossed ${day(e.crossedAt)}`}</span>
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
