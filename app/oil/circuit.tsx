import { useMemo, useState } from "react";
import { Link, redirect } from "react-router";
import type { Route } from "./+types/circuit";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Notice } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { SortedTable } from "~/ui/sortedTable";
import { StateWord } from "~/ui/state";
import { Verdict } from "~/ui/verdict";
import { codesChart, countsChart } from "./charts";
import { CauseList, FindingList, SuspectList } from "./chain";
import { FilterSection } from "./filters";
import { MetalSection } from "./metals";
import { renewElement, circuitPage, elementsIn, circuitPlace } from "~/domain/oil/index.server";
import { SizeSection } from "./sizes";
import { lineOf, SmallCharts } from "./smallCharts";
import { finding, saidText } from "./circuitWords";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Oil of ${loaderData?.page.machine ?? "a circuit"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user, request }) => {
  const id = idParam(params);
  const [page, elements] = await Promise.all([circuitPage(id), elementsIn(id)]);
  return {
    page,
    circuitId: id,
    elements: elements.map((e) => ({ ...e, since: e.since?.getTime() ?? null, submission: crypto.randomUUID() })),
    mayLog: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
    said: new URL(request.url).searchParams.get("said"),
  };
});

export const action = guardAction("technician", async ({ params, request }) => {
  const id = idParam(params);
  const place = await circuitPlace(id);
  const fields = await formFields(request);
  const done = isUuid(fields.componentId)
    ? await renewElement(id, fields.componentId, fields, place.timeZone)
    : ({ ok: false, problems: { form: "Choose a filter." } } as const);
  return done.ok ? redirect(`/oil/${id}?said=element`) : refused(done, { componentId: fields.componentId });
});

export default function OilCircuit({ loaderData: { page, elements, mayLog, mayEdit, said } }: Route.ComponentProps) {
  const site = useSite();
  const { detail } = page;
  const [view, setView] = useState<"counts" | "codes">("counts");
  const axis = useMemo(
    () => ({ timeZone: site.timeZone, now: page.now, dayOf: (ms: number) => dayText(ms, site) }),
    [site, page.now],
  );
  const make = useMemo(
    () => (detail ? (view === "codes" ? codesChart : countsChart)(page.picture, detail, axis) : null),
    [detail, page.picture, view, axis],
  );
  const ways = [
    { to: `/oil/${page.circuitId}/fluid`, label: "Fluid and fills" },
    { to: `/oil/${page.circuitId}/clean`, label: "Cleaning up" },
    ...(mayEdit ? [{ to: `/oil/${page.circuitId}/settings`, label: "Target and materials" }] : []),
    { to: `/fleet/machines/${page.machineId}`, label: "The machine" },
  ];
  return (
    <>
      <PageHead
        crumbs={[{ label: "Oil", to: "/oil" }, { label: page.area || page.machine }]}
        title={finding(page.machine, detail, page.picture.length)}
      >
        {page.name}, {page.volume ? `${page.volume} L of ` : ""}
        {page.fluid ?? "fluid not stated"}.
      </PageHead>
      {said && Object.hasOwn(saidText, said) ? <Notice>{saidText[said]}</Notice> : null}
      {page.stale && detail ? (
        <Notice tone="ochre" live={false}>
          Something changed since this assessment; it is being assessed again.
        </Notice>
      ) : null}
      {detail ? (
        <div className="mb-5 grid gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_auto]">
          <div>
            <p>
              <StateWord state={detail.state} />
            </p>
            <p className="text-[1.02rem] leading-relaxed text-ink-2">
              <Verdict parts={detail.verdict} />
            </p>
          </div>
          {page.picture.length > 0 ? (
            <MarginRule margin={detail.margin} state={detail.state} width={160} of={detail.margin?.of} />
          ) : null}
        </div>
      ) : null}
      <p className="mb-5 flex flex-wrap gap-x-5 gap-y-1">
        {mayLog ? (
          <>
            <Link to={`/oil/${page.circuitId}/sample`} className="act">
              Enter a sample
            </Link>
            <Link to={`/oil/${page.circuitId}/debris`} className="way">
              Open a debris event
            </Link>
          </>
        ) : null}
        {ways.map((w) => (
          <Link key={w.to} to={w.to} className="way">
            {w.label}
          </Link>
        ))}
      </p>
      {page.events.length > 0 ? (
        <p className="mb-5 text-sm text-ink-2">
          {page.events.map((e) => (
            <span key={e.id} className="mr-4">
              <Link to={`/oil/debris/${e.id}`} className="way">
                {`Debris event of ${dayText(e.openedAt, site)}`}
              </Link>
              {e.closedAt ? `, closed ${dayText(e.closedAt, site)}` : ", open"}
            </span>
          ))}
        </p>
      ) : null}
      {page.picture.length === 0 ? (
        <Empty>
          No sample yet: cleanliness, water and wear metals of this oil are unknown.{" "}
          {mayLog ? (
            <>
              Take a bottle from a live line, warm and at work, and{" "}
              <Link to={`/oil/${page.circuitId}/sample`} className="act">
                enter what the laboratory finds
              </Link>
              .
            </>
          ) : (
            "A technician can enter a sample."
          )}
        </Empty>
      ) : null}
      {detail && detail.findings.length > 0 ? (
        <div className="grid gap-x-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <Section title="What happened, in order">
            <FindingList findings={detail.findings} />
            {detail.agreement ? (
              <p className="mt-2 border-l-4 border-line-2 pl-3">
                <Verdict parts={detail.agreement} />
              </p>
            ) : null}
          </Section>
          <div>
            {detail.causes.length > 0 ? (
              <Section title="What made it dirty, likeliest first">
                <CauseList causes={detail.causes} />
              </Section>
            ) : null}
            {detail.suspects.length > 0 ? (
              <Section
                title="Where the metal comes from"
                aside={
                  detail.suspectsNone >= 0.02 ? `none of these: ${Math.round(detail.suspectsNone * 100)} %` : undefined
                }
              >
                <SuspectList suspects={detail.suspects} />
              </Section>
            ) : null}
          </div>
        </div>
      ) : null}
      {detail && !detail.findings.length && detail.agreement ? (
        <p className="mb-5 border-l-4 border-line-2 pl-3">
          <Verdict parts={detail.agreement} />
        </p>
      ) : null}
      {make && page.picture.length > 1 ? (
        <Section
          title="Particles over time"
          aside={
            <span role="group" aria-label="Show as" className="inline-flex gap-4">
              {(["counts", "codes"] as const).map((v) => (
                <button
                  key={v}
                  type="button"
                  aria-pressed={view === v}
                  onClick={() => setView(v)}
                  className={view === v ? "font-semibold text-ink" : "text-ink-2 hover:text-ink"}
                >
                  {v}
                </button>
              ))}
            </span>
          }
        >
          <div className="mt-2">
            <ChartCanvas
              make={make}
              height={300}
              label={
                `${view === "codes" ? "ISO 4406 numbers" : "Particles per mL over 4, 6 and 14 µm on a log scale"} ` +
                "over time, with the target. The list of samples has the numbers."
              }
            />
          </div>
          <p className="text-sm text-ink-2">
            ● over 4 µm ■ over 6 µm ▲ over 14 µm; hollow: cannot be compared.
            {view === "codes" ? " A number is a doubling: within it twice the particles do not show." : null}
          </p>
        </Section>
      ) : null}
      {page.latest ? (
        <SizeSection sample={page.latest} target={detail?.target ?? null} over={detail?.over ?? []} />
      ) : null}
      {detail && page.metal ? (
        <MetalSection
          key={page.circuitId}
          metals={detail.metals}
          first={page.metal}
          circuitId={page.circuitId}
          axis={axis}
        />
      ) : null}
      <SmallCharts
        charts={page.series.map((s) => ({ ...s, line: lineOf(s.id, detail?.metals ?? [], page.kv40) }))}
        changes={page.changes}
        now={page.now}
      />
      <FilterSection
        circuitId={page.circuitId}
        filters={detail?.filters ?? []}
        elements={elements}
        points={page.elementPoints}
        strainers={page.strainers}
        mayLog={mayLog}
        now={page.now}
      />
      {page.listed.length > 0 ? (
        <Section title="Samples" aside={`the newest ${page.listed.length}`}>
          <SortedTable
            label="Samples"
            small
            rows={page.listed}
            rowClass={(s) => (s.remark ? "text-ink-2" : "")}
            columns={[
              {
                id: "number",
                label: "number",
                by: (s) => s.number,
                className: "whitespace-nowrap",
                cell: (s) => (
                  <Link to={`/oil/samples/${s.id}`} className="way">
                    {s.number}
                  </Link>
                ),
              },
              {
                id: "taken",
                label: "taken",
                by: (s) => s.at,
                className: "whitespace-nowrap",
                cell: (s) => dayText(s.at, site),
              },
              { id: "code", label: "code", by: (s) => s.code, cell: (s) => s.code ?? "–" },
              {
                id: "water",
                label: "water",
                by: (s) => s.water || null,
                className: "whitespace-nowrap",
                cell: (s) => (s.water ? `${s.water} ppm` : "–"),
              },
              { id: "kv40", label: "40 °C", by: (s) => s.kv40, cell: (s) => s.kv40 ?? "–" },
              { id: "iron", label: "iron", by: (s) => s.iron || null, cell: (s) => s.iron || "–" },
              { id: "remark", label: "remark", cell: (s) => s.remark },
            ]}
          />
        </Section>
      ) : null}
    </>
  );
}
