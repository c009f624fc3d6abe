import { Form, Link } from "react-router";
import type { Route } from "./+types/report";
import { type ConditionState, BEYOND, lowerFirst, dayStart, moneyText, readingStates, stateWords } from "@core";
import type { ReportChart } from "~/domain/report/charts.server";
import { report, reportAsked, type Report, type ReportPoint } from "~/domain/report/report.server";
import { interventionLabels } from "~/domain/work/form";
import type { InterventionKind } from "~/domain/work/form";
import { guard } from "~/platform/guard.server";
import { Button, fieldClass } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { oddsText } from "~/ui/odds";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, momentText, useShow, useSite } from "~/ui/site";
import { Spark } from "~/ui/spark";
import { stateTone } from "~/ui/state";
import { PointChart } from "./pointChart";
import { Verdict } from "~/ui/verdict";
import { report as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: texts.reportJuncteral(
      (loaderData as Report | undefined)?.machine?.name ?? (loaderData as Report | undefined)?.site.name ?? "",
    ),
  },
];

export const loader = guard("viewer", async ({ request }) => report(reportAsked(request)));

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

export default function ReportPage({ loaderData }: Route.ComponentProps) {
  return (
    <InZone timeZone={loaderData.site.timeZone} years>
      <Sheet r={loaderData} />
    </InZone>
  );
}

function Sheet({ r }: { r: Report }) {
  const site = useSite();
  const day = (text: string) => dayText(dayStart(text, r.site.timeZone), site);
  const search = new URLSearchParams({
    ...(r.machine ? { machine: r.machine.id } : { site: r.site.id }),
    from: r.from,
    to: r.to,
  }).toString();
  const attention = r.points.filter((p) => ["alarm", "alert", "drifting"].includes(p.state));
  const crossed = r.points.filter((p) => p.crossedAt !== null);
  // first met broken, or beyond it since before the period: no crossing is dated in it, and it is no better for that
  const beyond = r.points.filter((p) => p.crossedAt === null && p.beyond !== null && p.beyond >= BEYOND);
  const counts = Object.entries(r.states)
    .filter(([, n]) => n > 0)
    .map(([state, n]) => `${n} ${stateWords[state as ConditionState]}`)
    .join(", ");
  return (
    <article className="report max-w-5xl">
      <PageHead
        crumbs={
          r.machine
            ? [{ label: r.machine.name, to: `/fleet/machines/${r.machine.id}` }]
            : [{ label: texts.plan, to: "/plan" }]
        }
        title={texts.conditionOfTo(
          r.machine ? `${r.machine.name} (${r.machine.tag})` : r.site.name,
          day(r.from),
          day(r.to),
        )}
      >
        {texts.madePoints(momentText(r.madeAt, site), counts || texts.none)}
      </PageHead>
      <Form method="get" className="mb-5 flex flex-wrap items-end gap-3 text-sm print:hidden">
        <input type="hidden" name={r.machine ? "machine" : "site"} value={r.machine?.id ?? r.site.id} />
        <label>
          <span className="block text-ink-2">{texts.from}</span>
          <input className={fieldClass} type="date" name="from" defaultValue={r.from} />
        </label>
        <label>
          <span className="block text-ink-2">{texts.to}</span>
          <input className={fieldClass} type="date" name="to" defaultValue={r.to} />
        </label>
        <Button tone="plain">{texts.showThisPeriod}</Button>
        <Button type="button" tone="plain" onClick={() => window.print()}>
          {texts.printOrSaveAs}
        </Button>
        <a href={`/report.csv?${search}`} className="way" download>
          {texts.figuresAsCsv}
        </a>
        <a href={`/report.json?${search}`} className="way" download>
          {texts.asJson}
        </a>
      </Form>
      <Section title={texts.faults} aside={r.faults.length > 0 ? texts.namedByTheReadings : undefined}>
        {r.faults.length === 0 ? (
          <p className="py-2 text-ink-2">{texts.noFaultIsNamed}</p>
        ) : (
          <ul>
            {r.faults.map((f) => (
              <li key={`${f.circuitId} ${f.text}`} className="ruled break-inside-avoid py-1.5">
                <Link to={`/isolate/faults/${f.circuitId}`} className="font-semibold hover:underline">
                  {f.machine}: {f.text}
                </Link>
                <span className="text-ink-2">
                  {" "}
                  · {oddsText(f.share)}
                  {f.since === null ? "" : texts.sinceAbout(dayText(f.since, site))}
                </span>
                <span className="block text-ink-2">{f.act}.</span>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title={texts.whatChangedInThe}>
        <ul className="py-1">
          <li className="py-0.5">
            {texts.readingsAtPoints(
              r.points.reduce((sum, p) => sum + p.readings, 0),
              r.points.filter((p) => p.readings > 0).length,
            )}
          </li>
          {crossed.map((p) => (
            <li key={p.pointId} className="py-0.5">
              {texts.crossedItsLimitAbout(nameOf(p), dayText(p.crossedAt!, site))}
            </li>
          ))}
          {beyond.map((p) => (
            <li key={p.pointId} className="py-0.5">
              {nameOf(p)} stands beyond its limit.
            </li>
          ))}
          {crossed.length + beyond.length === 0 ? <li className="py-0.5">{texts.noPointCrossedIts}</li> : null}
        </ul>
      </Section>
      <Section
        title={texts.pointsThatNeedAttention}
        aside={Object.keys(r.charts).length > 0 ? texts.dotsReadingsBandP10 : undefined}
      >
        {attention.length === 0 ? (
          <p className="py-2 text-ink-2">{texts.noneEveryPointIs}</p>
        ) : (
          <ul>
            {attention.map((p) => (
              <PointLine key={p.pointId} p={p} chart={r.charts[p.pointId]} />
            ))}
          </ul>
        )}
      </Section>
      <Section title={texts.workDone}>
        {r.done.length === 0 ? (
          <p className="py-2 text-ink-2">{texts.noneInThePeriod}</p>
        ) : (
          <ul>
            {r.done.map((w, i) => (
              <li key={i} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">
                  {w.machine}, {lowerFirst(w.component)}
                </strong>
                : {interventionLabels[w.kind as InterventionKind].toLowerCase()}, {dayText(w.doneAt!, site)}, {w.doneBy}
                {w.findings ? <span className="block text-ink-2">{texts.found(w.findings)}</span> : null}
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title={texts.workBooked}>
        {r.open.length === 0 ? (
          <p className="py-2 text-ink-2">{texts.noneBooked}</p>
        ) : (
          <ul>
            {r.open.map((w, i) => (
              <li key={i} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">
                  {w.machine}, {lowerFirst(w.component)}
                </strong>
                : {interventionLabels[w.kind as InterventionKind].toLowerCase()},{" "}
                {w.stop ? `${w.stop}, ${day(w.startsOn!)}` : texts.aStopOfIts}, {w.hours} h
              </li>
            ))}
          </ul>
        )}
      </Section>
      {r.plan ? (
        <Section title={texts.planName(r.plan.name)} aside={`${r.plan.madeBy}, ${dayText(r.plan.madeAt, site)}`}>
          <p className="py-1">
            {texts.expectedCostOneTime(
              moneyText(r.plan.totals.expected, r.currency),
              moneyText(r.plan.totals.high, r.currency),
            )}
          </p>
          <ul>
            {r.plan.lines.map((l) => (
              <li key={l.piece} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">{l.label}</strong>:{" "}
                {l.kind === "wait" ? texts.wait : `${l.name}, ${dayText(l.at, site)}`}
                <span className="block text-ink-2">{l.reason}</span>
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      {r.score ? (
        <Section title={texts.howTheForecastsHeld}>
          <p className="py-1">
            {r.score.all.covered
              ? texts.ofLivesCrossedBetween(percent(r.score.all.covered.share)) +
                texts.to80Should(percent(r.score.all.covered.low), percent(r.score.all.covered.high))
              : texts.forecastsOfLivesCrossed(r.score.all.forecasts, r.score.all.lives, r.score.all.crossed)}{" "}
            {r.score.notBefore.lives > 0 ? texts.ofLivesWithAn(r.score.notBefore.lives, r.score.notBefore.before) : ""}
          </p>
        </Section>
      ) : null}
      {r.machine ? (
        <Section title={texts.allPoints}>
          <AllPoints points={r.points} />
        </Section>
      ) : null}
      <p className="text-sm text-ink-2">{texts.juncteralAdvisesThePerson}</p>
      <p className="mt-10 hidden grid-cols-2 gap-12 print:grid">
        <span className="border-t border-ink pt-1">{texts.madeByDate}</span>
        <span className="border-t border-ink pt-1">{texts.seenByDate}</span>
      </p>
    </article>
  );
}

const nameOf = (p: ReportPoint) => `${p.machine}, ${lowerFirst(p.component)}: ${lowerFirst(p.point)}`;

function PointLine({ p, chart }: { p: ReportPoint; chart: ReportChart | undefined }) {
  return (
    <li className="ruled grid break-inside-avoid gap-x-4 py-2 sm:grid-cols-[minmax(0,1fr)_170px] print:grid-cols-[minmax(0,1fr)_170px]">
      <span className="min-w-0 [overflow-wrap:anywhere]">
        <Link to={`/points/${p.pointId}`} className="font-semibold hover:underline">
          {nameOf(p)}
        </Link>{" "}
        <span className={`text-sm ${stateTone[p.state]}`}>{stateWords[p.state]}</span>
        <span className="block text-ink-2">
          <Verdict parts={p.verdict} />
        </span>
      </span>
      <span className="sm:text-right">
        <MarginRule margin={p.margin} state={p.state} />
        {p.trend && !chart ? (
          <span className="block">
            <Spark {...p.trend} state={p.state} />
          </span>
        ) : null}
      </span>
      {chart ? (
        <span className="sm:col-span-2 print:col-span-2">
          <PointChart chart={chart} quantity={p.quantity} unit={p.unit} state={p.state} />
        </span>
      ) : null}
    </li>
  );
}

function AllPoints({ points }: { points: readonly ReportPoint[] }) {
  const site = useSite();
  const show = useShow();
  return (
    <div className="overflow-x-auto print:overflow-visible">
      <table className="w-full text-sm">
        <thead>
          <tr className="ruled text-left text-ink-2">
            {["Point", "State", texts.lastReading, texts.marginUsed, "Readings", "P10, P50, P90"].map((h) => (
              <th key={h} scope="col" className="py-1 pr-3 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {points.map((p) => (
            <tr key={p.pointId} className="ruled break-inside-avoid">
              <th scope="row" className="py-1 pr-3 text-left font-normal [overflow-wrap:anywhere]">
                {p.component}: {lowerFirst(p.point)}
                <span className="text-ink-2"> ({readingStates[p.readState].toLowerCase()})</span>
              </th>
              <td className={`py-1 pr-3 ${stateTone[p.state]}`}>{stateWords[p.state]}</td>
              <td className="py-1 pr-3">
                {p.lastRaw === null
                  ? texts.none
                  : `${show(p.lastRaw, p.quantity, { unit: p.unit })}, ${dayText(p.lastAt!, site)}`}
              </td>
              <td className="py-1 pr-3">{p.margin ? percent(p.margin.value) : ""}</td>
              <td className="py-1 pr-3">{p.readings}</td>
              <td className="py-1">
                {p.p10 === null
                  ? ""
                  : [p.p10, p.p50, p.p90].map((at) => (at === null ? "beyond" : dayText(at, site))).join(", ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
