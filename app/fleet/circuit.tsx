import { useEffect, useMemo, useState } from "react";
import { useNavigation, useSearchParams } from "react-router";
import type { Route } from "./+types/circuit";
import {
  elementKinds,
  formatNumber,
  matchOf,
  oilAt,
  quantityOf,
  workCommands,
  type Circumstances,
  type QuantityId,
  type ReadingState,
} from "@core";
import { circuitPage } from "~/domain/circuits/index.server";
import { guard, idParam } from "~/platform/guard.server";
import { CircuitDiagram } from "~/ui/circuit/diagram";
import type { GaugeChange } from "~/ui/circuit/gaugeText";
import { Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { InZone, useShow } from "~/ui/site";
import { useDiagramPoints } from "./circuitPicture";
import { Explanations } from "./explanations";
import { InTime } from "./inTime";
import { useSolver } from "./useSolver";
import { askedOf, nothingAsked, over, searchOf, USUAL_OIL, type Asked } from "./whatIf";
import { WhatIfPanel } from "./whatIfPanel";
import { counted } from "~/ui/counted";
import { Gauges, Ports } from "./whatIfTables";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `What if, ${loaderData?.machine ?? "circuit"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params }) => circuitPage(idParam(params)));

/** The address changes with every question; the circuit does not. */
export const shouldRevalidate = ({ currentUrl, nextUrl }: { currentUrl: URL; nextUrl: URL }) =>
  currentUrl.pathname !== nextUrl.pathname;

/** Beyond this, °C, nobody lets oil get: the figure would be a fancy one. */
const HOTTEST = 120;
/** A change below this share of the value is none. */
const SAME = 0.005;

/** A difference with its sign, in the unit that the value itself is shown in. */
function changeText(show: ReturnType<typeof useShow>, change: number, id: QuantityId, unit: string): string {
  if (quantityOf(id).dimension === "temperature")
    return `${change > 0 ? "+" : "−"}${formatNumber(Math.abs(change), 1)} K`;
  return `${change > 0 ? "+" : "−"}${show(Math.abs(change), id, { unit })}`;
}

export default function WhatIf(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.timeZone}>
      <WhatIfScreen {...props} />
    </InZone>
  );
}

function WhatIfScreen({ loaderData: page }: Route.ComponentProps) {
  const { netlist, drawing, fit, fluid } = page.diagram;
  const [search, setSearch] = useSearchParams();
  // said once, on the way from the drawing board; the address goes on without it
  const [kept] = useState(() => search.has("kept"));
  const [asked, setAsked] = useState<Asked>(() => askedOf(search, netlist));
  const [readouts, setReadouts] = useState<ReadonlyMap<string, string> | null>(null);
  const show = useShow();
  const diagramPoints = useDiagramPoints([page]);

  // the address follows, a moment after the last move, so that it can be shared; never while somebody is leaving for
  // another page, which that would call back
  const idle = useNavigation().state === "idle";
  useEffect(() => {
    if (!idle) return;
    const timer = setTimeout(() => {
      const next = searchOf(asked, netlist);
      if (next.toString() !== search.toString()) setSearch(next, { replace: true, preventScrollReset: true });
    }, 400);
    return () => clearTimeout(timer);
  }, [asked, netlist, search, setSearch, idle]);

  const usual = useMemo(() => workCommands(netlist), [netlist]);
  const fitted = useMemo(() => fit?.data ?? {}, [fit]);
  const circumstances = useMemo(
    (): Circumstances => ({
      commands: { ...usual, ...asked.commands },
      data: over(fitted, asked.data),
      faults: asked.faults,
      ...oilAt(fluid, asked.oil ?? USUAL_OIL),
    }),
    [usual, asked, fitted, fluid],
  );
  const states = useMemo(() => page.points.map((p): [string, ReadingState] => [p.id, p.readState]), [page.points]);
  const healthyOnes = useMemo(
    (): Circumstances => ({ commands: usual, data: fitted, ...oilAt(fluid, USUAL_OIL) }),
    [usual, fitted, fluid],
  );
  const { answer, failed, course, start, explanations, explain } = useSolver(
    netlist,
    states,
    healthyOnes,
    circumstances,
  );

  const healthy = new Map(answer?.healthy ?? []);
  const so = new Map(answer?.asked ?? []);
  const changes = new Map<string, GaugeChange>();
  for (const p of page.points) {
    const [before, after] = [healthy.get(p.id) ?? null, so.get(p.id) ?? null];
    if (before === null || after === null) continue;
    const change = after - before;
    const worth = Math.abs(change) > Math.max(SAME * Math.abs(before), quantityOf(p.quantity).floor);
    const endless = p.quantity === "temperature" && after > HOTTEST;
    changes.set(p.id, {
      text: `${endless ? "over " : ""}${show(endless ? HOTTEST : after, p.quantity, { unit: p.unit })}`,
      change: endless
        ? `over +${formatNumber(HOTTEST - before, 0)} K`
        : worth
          ? changeText(show, change, p.quantity, p.unit)
          : "",
      sign: !worth ? 0 : change > 0 ? 1 : -1,
    });
  }
  const touched = searchOf(asked, netlist).toString() !== "";
  const marks = new Set(
    Object.entries(asked.faults).flatMap(([id, f]) => (Object.values(f).some((s) => s > 0) ? [id] : [])),
  );
  const moved = [...changes.values()].filter((c) => c.sign !== 0).length;
  const present = page.points.flatMap((p) => (p.now ? [p.now] : []));
  const readsOf = new Map(netlist.gauges.map((g) => [g.pointId, g.reads]));
  const modelled = (id: string, values: typeof so) => ({
    reads: readsOf.get(id) ?? ("other" as const),
    healthy: healthy.get(id),
    value: values.get(id),
  });
  const asHealthy = matchOf(present, (id) => modelled(id, healthy));
  const asAsked = matchOf(present, (id) => modelled(id, so));
  return (
    <>
      {kept ? <Notice tone="sea">The circuit is kept as drawn.</Notice> : null}
      <PageHead
        crumbs={[
          { label: page.area || "Fleet", to: "/fleet" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
          { label: page.name },
        ]}
        title={
          !touched
            ? `${page.machine}: what would the gauges show?`
            : moved === 0
              ? `${page.machine}: no gauge would show it`
              : `${page.machine}: ${moved} of ${changes.size} gauges would move`
        }
      />
      {failed || answer?.problem ? <Notice tone="verm">{failed ?? answer?.problem}</Notice> : null}
      {fit && !fit.fits ? (
        <Notice tone="ochre" live={false}>
          The model does not show what this circuit’s gauges showed when it was healthy: take it as a picture, not as a
          measure.
        </Notice>
      ) : null}
      <div className="grid gap-x-7 lg:grid-cols-[minmax(0,1fr)_310px]">
        <div className="min-w-0">
          <CircuitDiagram
            netlist={netlist}
            drawing={drawing}
            points={diagramPoints}
            changes={changes}
            marks={marks}
            readouts={readouts}
            label={`Circuit diagram of ${page.machine}, ${page.name}, as asked. The table has the same figures.`}
          />
          <InTime netlist={netlist} course={course} onPlay={start} onMoment={setReadouts} />
          <Ports ports={answer?.ports ?? []} netlist={netlist} />
        </div>
        <div className="min-w-0">
          <Section
            title="What if"
            aside={
              touched ? (
                <button type="button" className="way" onClick={() => setAsked(nothingAsked)}>
                  Reset
                </button>
              ) : undefined
            }
          >
            <WhatIfPanel netlist={netlist} fitted={fitted} commands={usual} asked={asked} onAsk={setAsked} />
          </Section>
          <Explanations
            netlist={netlist}
            gauges={present}
            fits={fit?.fits ?? null}
            names={new Map(page.points.map((p) => [p.id, `${p.name}, ${p.component}`]))}
            explanations={explanations}
            onExplain={explain}
            onTry={(element, fault, severity) =>
              setAsked({ ...nothingAsked, faults: { [element]: { [fault]: severity } } })
            }
          />
          <Section title="What the gauges would show" aside={answer || failed ? undefined : "computing …"}>
            {answer && asAsked.of > 0 ? (
              <p className="pt-2 text-sm" data-testid="match">
                {touched
                  ? `As asked, ${asAsked.agree} of ${asAsked.of} gauges stand where they do now; ` +
                    `a healthy circuit explains ${asHealthy.agree}.`
                  : `A healthy circuit explains ${asHealthy.agree} of ${asHealthy.of} gauges as they stand now.` +
                    (asHealthy.agree < asHealthy.of ? " Ask for a fault and see whether it explains more." : "")}
              </p>
            ) : null}
            <Gauges
              points={page.points}
              healthy={healthy}
              changes={changes}
              modelled={(id) => modelled(id, so)}
              computed={answer !== null}
            />
            <p className="mt-2 text-xs text-ink-2">
              {"Now: the level of the last readings at their reference condition; “does not fit” where it lies further " +
                `off than its uncertainty and the model’s explain. ${
                  fit
                    ? `Fitted to ${counted(fit.met.length, "baseline")} with ${counted(fit.free.length, "free figure")}` +
                      ": it says what would follow, it does not prove a cause. "
                    : "Not fitted: no baseline yet. "
                }${elementKinds.tank.label} at ${show(USUAL_OIL, "oilTemperature")} when healthy. ` +
                "Temperatures are those after hours of the machine’s usual day."}
            </p>
          </Section>
        </div>
      </div>
    </>
  );
}
