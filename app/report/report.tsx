import { Form, Link } from "react-router";
import type { Route } from "./+types/report";
import { type ConditionState, BEYOND, lowerFirst, dayStart, moneyText, readingStates, stateWords } from "@core";
import { type ReportChart, report, reportAsked, type Report, type ReportPoint } from "~/domain/report/index.server";
import { interventionLabels, type InterventionKind } from "~/domain/bookings/index";
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
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: `Report, ${(loaderData as Report | undefined)?.machine?.name ?? (loaderData as Report | undefined)?.site.name ?? ""} · Juncteral`,
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
            : [{ label: "Plan", to: "/plan" }]
        }
        title={`Condition of ${r.machine ? `${r.machine.name} (${r.machine.tag})` : r.site.name}, ${day(r.from)} to ${day(r.to)}`}
      >
        {`Made ${momentText(r.madeAt, site)}. Points: ${counts || "none"}.`}
      </PageHead>
      <Form method="get" className="mb-5 flex flex-wrap items-end gap-3 text-sm print:hidden">
        <input type="hidden" name={r.machine ? "machine" : "site"} value={r.machine?.id ?? r.site.id} />
        <label>
          <span className="block text-ink-2">From</span>
          <input className={fieldClass} type="date" name="from" defaultValue={r.from} />
        </label>
        <label>
          <span className="block text-ink-2">To</span>
          <input className={fieldClass} type="date" name="to" defaultValue={r.to} />
        </label>
        <Button tone="plain">Show this period</Button>
        <Button type="button" tone="plain" onClick={() => window.print()}>
          Print or save as PDF
        </Button>
        <a href={`/report.csv?${search}`} className="way" download>
          Figures as CSV
        </a>
        <a href={`/report.json?${search}`} className="way" download>
          as JSON
        </a>
      </Form>
      <Section title="Faults" aside={r.faults.length > 0 ? "named by the readings" : undefined}>
        {r.faults.length === 0 ? (
          <p className="py-2 text-ink-2">No fault is named by the readings.</p>
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
                  {f.since === null ? "" : `, since about ${dayText(f.since, site)}`}
                </span>
                <span className="block text-ink-2">{f.act}.</span>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title="What changed in the period">
        <ul className="py-1">
          <li className="py-0.5">
            {`${counted(
              r.points.reduce((sum, p) => sum + p.readings, 0),
              "reading",
            )} at ${counted(r.points.filter((p) => p.readings > 0).length, "point")}.`}
          </li>
          {crossed.map((p) => (
            <li key={p.pointId} className="py-0.5">
              {`${nameOf(p)} crossed its limit about ${dayText(p.crossedAt!, site)}.`}
            </li>
          ))}
          {beyond.map((p) => (
            <li key={p.pointId} className="py-0.5">
              {nameOf(p)} stands beyond its limit.
            </li>
          ))}
          {crossed.length + beyond.length === 0 ? <li className="py-0.5">No point crossed its limit.</li> : null}
        </ul>
      </Section>
      <Section
        title="Points that need attention"
        aside={Object.keys(r.charts).length > 0 ? "dots: readings; band: P10 to P90; dashed: P50" : undefined}
      >
        {attention.length === 0 ? (
          <p className="py-2 text-ink-2">None: every point is steady, or not known well enough yet.</p>
        ) : (
          <ul>
            {attention.map((p) => (
              <PointLine key={p.pointId} p={p} chart={r.charts[p.pointId]} />
            ))}
          </ul>
        )}
      </Section>
      <Section title="Work done">
        {r.done.length === 0 ? (
          <p className="py-2 text-ink-2">None in the period.</p>
        ) : (
          <ul>
            {r.done.map((w, i) => (
              <li key={i} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">
                  {w.machine}, {lowerFirst(w.component)}
                </strong>
                : {interventionLabels[w.kind as InterventionKind].toLowerCase()}, {dayText(w.doneAt!, site)}, {w.doneBy}
                {w.findings ? <span className="block text-ink-2">{`Found: ${w.findings}`}</span> : null}
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title="Work booked">
        {r.open.length === 0 ? (
          <p className="py-2 text-ink-2">None.</p>
        ) : (
          <ul>
            {r.open.map((w, i) => (
              <li key={i} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">
                  {w.machine}, {lowerFirst(w.component)}
                </strong>
                : {interventionLabels[w.kind as InterventionKind].toLowerCase()},{" "}
                {w.stop ? `${w.stop}, ${day(w.startsOn!)}` : "a stop of its own"}, {w.hours} h
              </li>
            ))}
          </ul>
        )}
      </Section>
      {r.plan ? (
        <Section title={`Plan: ${r.plan.name}`} aside={`${r.plan.madeBy}, ${dayText(r.plan.madeAt, site)}`}>
          <p className="py-1">
            {`Expected cost ${moneyText(r.plan.totals.expected, r.currency)}, one time in ten over ${moneyText(r.plan.totals.high, r.currency)}.`}
          </p>
          <ul>
            {r.plan.lines.map((l) => (
              <li key={l.piece} className="ruled break-inside-avoid py-1.5">
                <strong className="font-semibold">{l.label}</strong>:{" "}
                {l.kind === "wait" ? "wait" : `${l.name}, ${dayText(l.at, site)}`}
                <span className="block text-ink-2">{l.reason}</span>
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      {r.score ? (
        <Section title="How the forecasts held">
          <p className="py-1">
            {r.score.all.covered
              ? `${percent(r.score.all.covered.share)} of lives crossed between P10 and P90 ` +
                `(${percent(r.score.all.covered.low)} to ${percent(r.score.all.covered.high)}); 80 % should.`
              : `${counted(r.score.all.forecasts, "forecast")} of ${r.score.all.lives} ${r.score.all.lives === 1 ? "life" : "lives"}` +
                `; ${r.score.all.crossed} crossed: too few to judge.`}{" "}
            {r.score.notBefore.lives > 0
              ? `Of ${r.score.notBefore.lives} lives with an earliest date only, ${r.score.notBefore.before} crossed before it.`
              : ""}
          </p>
        </Section>
      ) : null}
      {r.machine ? (
        <Section title="All points">
          <AllPoints points={r.points} />
        </Section>
      ) : null}
      <p className="text-sm text-ink-2">
        Juncteral advises; the person responsible decides and signs. The manufacturer’s limits and local rules come
        first.
      </p>
      <p className="mt-10 hidden grid-cols-2 gap-12 print:grid">
        <span className="border-t border-ink pt-1">Made by, date</span>
        <span className="border-t border-ink pt-1">Seen by, date</span>
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
            {["Point", "State", "Last reading", "Margin used", "Readings", "P10, P50, P90"].map((h) => (
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
                  ? "none"
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
