import { useMemo, useState } from "react";
import type { Route } from "./+types/clean";
import { countFor, formatNumber, incomparable, median, parseNumber } from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { ChartCanvas } from "~/ui/charts/canvas";
import { FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { cleanUpPage } from "~/domain/oil/index.server";
import { cleanUpResult, SIZE, watchedCleanUp } from "./cleanUpModel";
import { hours, Measured, Ways } from "./cleanUpParts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Cleaning up ${loaderData?.page.machine ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params }) => {
  const page = await cleanUpPage(idParam(params));
  return { page, circuitId: page.circuitId };
});

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
    const [better, loopFlow, loopBeta] = [typed.better, typed.loopFlow, typed.loopBeta].map((t) =>
      parseNumber(t ?? ""),
    ) as [number, number, number];
    const given = { volume, flow, beta, settled, count, code, better, loopFlow, loopBeta };
    return cleanUpResult(given, watched, site.units);
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
              <Ways result={result} hoursPerDay={page.hoursPerDay} />
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
          <Measured watched={watched} result={result} />
        </div>
      </div>
    </>
  );
}
