import { useMemo, useState } from "react";
import type { Route } from "./+types/clean";
import {
  DAY,
  cleanUpPlan,
  countAfter,
  countFor,
  countsOfCode,
  fitCleanUp,
  formatNumber,
  incomparable,
  ingressFrom,
  median,
  parseNumber,
  together,
  type CalculatorChart,
  type OilSample,
  type TankBalance,
} from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { calculatorChart } from "~/ui/charts/calculation";
import { ChartCanvas } from "~/ui/charts/canvas";
import { FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, quantityText, useSite } from "~/ui/site";
import { cleanUpPage } from "~/domain/oil/index.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Cleaning up ${loaderData?.page.machine ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params }) => {
  const page = await cleanUpPage(idParam(params));
  return { page, circuitId: page.circuitId };
});

/** Particles over 14 µm: what the target asks hardest, and what the element is stated for nearest. */
const SIZE = "over14";
/** Samples that follow each other within a day, one cleaner than the other, are a clean-up that was watched. */
const WATCH_MS = DAY;

interface Watched {
  start: OilSample;
  points: { minutes: number; count: number }[];
}

/** The newest run of at least four samples of one working day whose counts fall. */
function watchedCleanUp(samples: readonly OilSample[]): Watched | null {
  const counted = samples.filter((s) => !incomparable(s) && countFor(s, SIZE) !== null && s.hours !== null);
  for (let end = counted.length; end >= 4; end--) {
    const last = counted[end - 1]!;
    const run = counted.slice(0, end).filter((s) => last.at - s.at <= WATCH_MS);
    if (run.length < 4 || countFor(last, SIZE)! > 0.5 * countFor(run[0]!, SIZE)!) continue;
    return {
      start: run[0]!,
      points: run.map((s) => ({ minutes: (s.hours! - run[0]!.hours!) * 60, count: countFor(s, SIZE)! })),
    };
  }
  return null;
}

const hours = (minutes: number) =>
  minutes < 90
    ? `${formatNumber(Math.round(minutes), 0)} min`
    : `${formatNumber(minutes / 60, minutes < 600 ? 1 : 0)} h`;

export default function CleanUp({ loaderData: { page } }: Route.ComponentProps) {
  const site = useSite();
  const filter = page.filters[0]?.filter ?? null;
  const counted = page.samples.filter((s) => !incomparable(s) && countFor(s, SIZE) !== null);
  const usual = (page.step ? counted.filter((s) => s.at <= page.step!.after) : counted)
    .slice(-12)
    .map((s) => countFor(s, SIZE)!);
  const newest = counted.at(-1);
  const plain = (value: number | null | undefined, digits = 4) =>
    value === null || value === undefined ? "" : String(Number(value.toPrecision(digits)));
  const [typed, setTyped] = useState<Record<string, string>>({
    volume: plain(page.volume),
    flow: plain(filter?.flow),
    beta: plain(filter?.beta),
    usual: plain(usual.length ? median(usual) : null, 3),
    now: plain(newest ? countFor(newest, SIZE) : null, 3),
    target: page.target ? String(page.target.codes[2]) : "13",
    better: plain(filter ? filter.beta * 5 : 1000),
    loopFlow: "15",
    loopBeta: "200",
  });
  const number = (name: string) => parseNumber(typed[name] ?? "");
  const field = (name: string, label: string, suffix = "", hint?: string) => (
    <TextField
      name={name}
      label={label}
      suffix={suffix}
      hint={hint}
      inputMode="decimal"
      maxLength={20}
      value={typed[name] ?? ""}
      onChange={(e) => setTyped((t) => ({ ...t, [name]: e.target.value }))}
    />
  );
  const [volume, flow, beta, settled, count, code] = ["volume", "flow", "beta", "usual", "now", "target"].map(
    number,
  ) as [number, number, number, number, number, number];
  const problems: Record<string, string> = {};
  if (!(volume > 0)) problems.volume = "Litres, above zero.";
  if (!(flow > 0)) problems.flow = "Litres a minute, above zero.";
  if (!(beta > 1)) problems.beta = "A ratio above 1.";
  if (!(settled >= 0)) problems.usual = "Particles per mL.";
  if (!(count >= 0)) problems.now = "Particles per mL.";
  if (!(Number.isInteger(code) && code >= 0 && code <= 28)) problems.target = "A number from 0 to 28.";
  const ready = Object.keys(problems).length === 0;
  const watched = useMemo(() => watchedCleanUp(page.samples), [page.samples]);

  const result = useMemo(() => {
    if (!ready) return null;
    const balance: TankBalance = { volume, flow, beta, ingress: ingressFrom(settled, flow, beta) };
    const target = countsOfCode(code).upTo;
    const [better, loopFlow, loopBeta] = [typed.better, typed.loopFlow, typed.loopBeta].map((t) =>
      parseNumber(t ?? ""),
    ) as [number, number, number];
    const ways = [
      { label: "as it is", balance },
      ...(better > 1 ? [{ label: `element β ${formatNumber(better, 0)}`, balance: { ...balance, beta: better } }] : []),
      ...(loopFlow > 0 && loopBeta > 1
        ? [
            {
              label: `with an off-line loop, ${quantityText(loopFlow, "flow", { units: site.units })}, β ${formatNumber(loopBeta, 0)}`,
              balance: { ...balance, ...together(balance, { flow: loopFlow, beta: loopBeta }) },
            },
          ]
        : []),
    ].map((w) => ({ ...w, plan: cleanUpPlan(w.balance, count, target) }));
    const reach = Math.max(10, ...ways.map((w) => w.plan.minutes ?? 0)) * 1.3;
    const lines = ways.map((w, i) => ({
      label: w.label,
      style: i === 0 ? ("line" as const) : ("dashed" as const),
      points: Array.from({ length: 41 }, (_, k): [number, number] => [
        (reach * k) / 40,
        Math.max(0.01, countAfter(w.balance, count, (reach * k) / 40)),
      ]),
    }));
    const chart: CalculatorChart = {
      x: { label: "running minutes", least: 0 },
      y: { label: "particles over 14 µm", quantity: "count", log: true },
      series: lines,
      marks: [{ axis: "y", at: target, label: `target ${code}`, tone: "limit" }],
    };
    const fit = watched ? fitCleanUp(balance, watched.points) : null;
    const fitChart: CalculatorChart | null = watched
      ? {
          x: { label: "running minutes since the first sample", least: 0 },
          y: { label: "particles over 14 µm", quantity: "count", log: true },
          series: [
            {
              label: "by the balance",
              style: "dashed",
              points: Array.from({ length: 61 }, (_, k): [number, number] => {
                const t = (watched.points.at(-1)!.minutes * k) / 60;
                return [t, Math.max(0.01, countAfter(balance, watched.points[0]!.count, t))];
              }),
            },
            ...(fit
              ? [
                  {
                    label: "as measured, fitted",
                    style: "line" as const,
                    points: Array.from({ length: 61 }, (_, k): [number, number] => {
                      const t = (watched.points.at(-1)!.minutes * k) / 60;
                      return [t, Math.max(0.01, fit.fitted(t))];
                    }),
                  },
                ]
              : []),
            {
              label: "samples",
              style: "points",
              points: watched.points.map((p): [number, number] => [p.minutes, p.count]),
            },
          ],
        }
      : null;
    return {
      ways,
      chart: calculatorChart(chart, site.units),
      fit,
      fitChart: fitChart ? calculatorChart(fitChart, site.units) : null,
      target,
    };
  }, [
    ready,
    volume,
    flow,
    beta,
    settled,
    count,
    code,
    typed.better,
    typed.loopFlow,
    typed.loopBeta,
    watched,
    site.units,
  ]);

  const first = result?.ways[0]?.plan;
  // what was measured outranks what is reckoned
  const stayedUp = page.step?.still && result && count > result.target ? page.step : null;
  const title = stayedUp
    ? `${page.machine}: counts have stayed up since ${dayText(stayedUp.by, site)}`
    : !result || !first
      ? "How long until it is clean?"
      : count <= result.target
        ? `${page.machine}: within its target over 14 µm`
        : first.minutes === null
          ? `${page.machine}: its filter never reaches the target`
          : `${page.machine}: clean after about ${hours(first.minutes)} of running`;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: "Cleaning up" },
        ]}
        title={title}
      >
        The tank as one well-mixed volume: what comes in against what the filter takes out. Real tanks have dead
        corners: measured clean-up stands below.
      </PageHead>
      <div className="grid gap-x-8 xl:grid-cols-[260px_minmax(0,1fr)]">
        <form onSubmit={(e) => e.preventDefault()} noValidate aria-label="Inputs">
          <FormProblemsProvider problems={problems} focus={false}>
            <div className="grid grid-cols-2 gap-3">
              {field("volume", "Volume", "L")}
              {page.filters.length > 1 ? (
                <SelectField
                  name="filter"
                  label="Filter"
                  options={page.filters.map((f) => ({ value: f.id, label: f.name }))}
                  onChange={(e) => {
                    const f = page.filters.find((x) => x.id === e.target.value)?.filter;
                    if (f) setTyped((t) => ({ ...t, flow: String(f.flow), beta: String(f.beta) }));
                  }}
                />
              ) : null}
              {field("flow", "Flow through it", "L/min")}
              {field("beta", "Filtration ratio β")}
              {field("usual", "Usual count", "/mL", "Over 14 µm, when nothing is wrong")}
              {field("now", "Count now", "/mL")}
              {field("target", "Target number", "", "Over 14 µm")}
              {field("better", "A better element β")}
              {field("loopFlow", "Off-line loop", "L/min")}
              {field("loopBeta", "its β")}
            </div>
          </FormProblemsProvider>
        </form>
        <div className="min-w-0">
          {result ? (
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
                        {w.plan.minutes ? formatNumber(w.plan.minutes / 60 / page.hoursPerDay, 1) : "–"}
                      </td>
                      <td className="text-right">
                        {w.plan.exposure ? `as in ${hours(w.plan.exposure)} at target` : "–"}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p className="mt-1 text-sm text-ink-2">
                “Never”: more comes in than the filter takes out at that count. Dirt carried: running time at the target
                in which the parts would meet as many particles; that is what the event costs them.
              </p>
              {count > result.target ? (
                <div className="mt-3">
                  <ChartCanvas
                    make={result.chart}
                    height={250}
                    label="Particles over 14 µm over running minutes, for each way, with the target. The table holds the times."
                  />
                </div>
              ) : null}
              {page.step?.still ? (
                <div className="mt-3">
                  <Notice tone="ochre" live={false}>
                    {`Counts have stayed up since ${dayText(page.step.by, site)}` +
                      (first?.minutes ? `, though the balance says ${hours(first.minutes)} of running` : "") +
                      `: this circuit does not clean itself as the balance says, so its filter takes far less than β ${formatNumber(beta, 0)}` +
                      ", or dirt keeps coming in."}
                  </Notice>
                </div>
              ) : null}
            </>
          ) : (
            <Empty>The result appears as soon as every field is filled in correctly.</Empty>
          )}
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
        </div>
      </div>
    </>
  );
}
