import { useMemo } from "react";
import { Link, redirect, useSearchParams } from "react-router";
import type { Route } from "./+types/point";
import {
  dayStart,
  formatNumber,
  findUnit,
  fromCore,
  limitBases,
  quantityOf,
  readingStates,
  stateWords,
  cautionFor,
  readsTheOil,
} from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import {
  logReading,
  pointPlace,
  nextPointOf,
  pointPage,
  savedReading,
  supersededReadings,
} from "~/domain/readings/index.server";
import { formFields } from "~/platform/request.server";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Notice } from "~/ui/form";
import { useLetterKey } from "~/ui/letterKey";
import { MarginRule } from "~/ui/marginRule";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, useShow, useSite } from "~/ui/site";
import { StateGlyph, stateTone } from "~/ui/state";
import { Verdict } from "~/ui/verdict";
import { trendChart } from "./charts";
import { sameMonthChart } from "./sameMonthChart";
import { ForecastSection } from "./forecastSection";
import { PhotoSection } from "./photoSection";
import { ReadingForm } from "./readingForm";
import { ReadingTable } from "./table";
import { WorkingsSection } from "./workingsSection";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.data.place.name}, ${loaderData.data.place.component} · Juncteral` : "Juncteral" },
];

export const loader = guard("viewer", async ({ params, request, user }) => {
  const search = new URL(request.url).searchParams;
  const page = Math.min(10_000, Math.max(0, Number.parseInt(search.get("page") ?? "0", 10) || 0));
  const id = idParam(params);
  const [data, old, saved] = await Promise.all([
    pointPage(id, page, user.units),
    search.get("view") === "table" ? supersededReadings(id) : Promise.resolve([]),
    savedReading(search.get("saved")),
  ]);
  return {
    data,
    saved,
    submission: crypto.randomUUID(),
    mayLog: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
    superseded: old.map((r) => ({
      id: r.id,
      takenAt: r.takenAt.getTime(),
      entered: r.entered,
      by: r.supersededBy,
      why: r.supersededWhy,
    })),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const place = await pointPlace(idParam(params), user.units);
  const fields = await formFields(request);
  const saved = await logReading(place, fields, user);
  if (!saved.ok) return refused(saved, { ...(saved.question && { question: saved.question }) });
  const next = await nextPointOf(place.id);
  return redirect(`/points/${next ?? place.id}?saved=${saved.readingId}`);
});

const views = [
  { id: "trend", label: "corrected and as read" },
  { id: "months", label: "same month" },
  { id: "table", label: "table" },
] as const;

export default function Point(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.data.place.timeZone}>
      <PointScreen {...props} />
    </InZone>
  );
}

function PointScreen({ loaderData, actionData }: Route.ComponentProps) {
  const { data, saved, submission, mayLog, mayEdit, superseded } = loaderData;
  const { place, detail } = data;
  const site = useSite();
  const show = useShow();
  const [search, setSearch] = useSearchParams();
  const view = views.find((v) => v.id === search.get("view"))?.id ?? "trend";
  const quantity = quantityOf(data.quantity);
  const share = data.limit.basis === "shareOfFullFlow" && data.fullFlow;
  const unit = findUnit(data.unit, quantity.dimension)!;
  const shown = useMemo(
    () =>
      share
        ? { scale: (v: number) => (v / data.fullFlow!) * 100, unit: "% of full flow" }
        : { scale: (v: number) => fromCore(v, unit), unit: data.unit },
    [share, data.fullFlow, data.unit, unit],
  );
  const basisText = data.limit.basis ? limitBases[data.limit.basis] : "";
  const limitCore = detail?.limits?.upper ?? detail?.limits?.lower;
  const limitShown =
    limitCore === null || limitCore === undefined
      ? ""
      : share
        ? `${formatNumber(shown.scale(limitCore), 0)} %`
        : show(limitCore, data.quantity, { unit: data.unit });
  const limitSet = data.limit.setAt ? ` ${dayText(data.limit.setAt, site)}` : "";
  const limitLabel = [
    `limit ${limitShown} · ${basisText}`,
    ...(data.limit.reason ? [data.limit.reason.toLowerCase()] : []),
    ...(data.limit.setBy ? [`set by ${data.limit.setBy}${limitSet}`] : []),
  ].join(", ");
  const correctedTo = detail?.correction
    ? [
        show(detail.correction.reference.temperature, "oilTemperature"),
        ...(quantity.correction === "leakage" ? [show(detail.correction.reference.pressure, "loadPressure")] : []),
      ].join(", ") + (quantity.correction === "leakage" ? "" : " and the usual flow")
    : null;
  const legend = correctedTo === null ? "● as read" : `● corrected to ${correctedTo} · ○ as read`;
  const aboutReadings = [
    `${data.inLife.over ? "over " : ""}${data.inLife.count} in this life`,
    ...(data.marked ? [`${data.marked} marked`] : []),
    ...(data.superseded ? [`${data.superseded} corrected`] : []),
    ...(data.lifeStartedAt ? [`since ${dayText(data.lifeStartedAt, site)}`] : []),
  ].join(" · ");
  const make = useMemo(
    () =>
      view === "months"
        ? sameMonthChart(data, shown, site.timeZone)
        : trendChart(data, shown, site.timeZone, limitLabel, (ms) => dayText(ms, site)),
    [view, data, shown, site, limitLabel],
  );

  useLetterKey("t", () =>
    setSearch(
      (s) => {
        if (s.get("view") === "table") s.delete("view");
        else s.set("view", "table");
        return s;
      },
      { preventScrollReset: true },
    ),
  );

  const readingPoint = useMemo(
    () => ({
      machineId: place.machineId,
      quantity: data.quantity,
      unit: data.unit,
      state: data.readState,
      timeZone: place.timeZone,
      fluid: data.fluid,
      expectation: detail?.expectation ?? null,
      needsConditions: quantity.correction === "leakage",
      isOilTemperature: readsTheOil(data.quantity, place.name),
      last: data.last
        ? {
            raw: data.last.raw,
            at: data.last.at,
            temperature: data.table.find((r) => r.id === data.last!.id)?.temperature ?? null,
          }
        : null,
      instruments: data.instruments,
    }),
    [data, detail, place.machineId, place.timeZone, place.name, quantity.correction],
  );

  return (
    <>
      <PageHead
        crumbs={[
          { label: place.area || "Fleet", to: "/fleet" },
          { label: place.machine, to: `/fleet/machines/${place.machineId}` },
          { label: place.circuit },
          { label: `${place.component}${place.model ? `, ${place.model}` : ""}` },
        ]}
        title={place.name}
      />
      {saved ? (
        <Notice>
          {`Saved ${saved.entered} for ${saved.machine}, ${saved.component}.`}{" "}
          {saved.pointId !== place.id ? (
            <Link to={`/points/${saved.pointId}`} className="way">
              Look at it
            </Link>
          ) : null}
        </Notice>
      ) : null}
      {data.retired ? (
        <Notice tone="ochre" live={false}>
          This point is retired: its record stays, no reading is due.
        </Notice>
      ) : null}
      {data.farFrom && data.reference ? (
        <Notice tone="ochre" live={false}>
          {`The reference is far from how this point is read: ${show(data.reference.pressure, "loadPressure")}` +
            `${data.reference.temperature === null ? "" : `, ${show(data.reference.temperature, "oilTemperature")}`}` +
            ` against ${show(data.farFrom.pressure, "loadPressure")}, ${show(data.farFrom.temperature, "oilTemperature")}` +
            " usually. The correction extrapolates beyond the conditions it was fitted on, so this is less certain."}{" "}
          {mayEdit ? (
            <Link to={`/fleet/edit/point/${place.id}?usual`} className="way">
              Take the usual condition
            </Link>
          ) : (
            "An engineer can set the usual one."
          )}
        </Notice>
      ) : null}
      <div className="mb-4 grid grid-cols-[22px_minmax(0,1fr)] gap-x-3 border-y border-line py-3 sm:grid-cols-[22px_minmax(0,1fr)_170px]">
        <span className="pt-1">
          <StateGlyph state={data.state} size={20} />
        </span>
        <p className="text-[1.05rem] leading-relaxed text-ink-2">
          <span className={`font-semibold ${stateTone[data.state]}`}>{stateWords[data.state]}. </span>
          <Verdict parts={data.verdict} />
          {data.stale ? " (being assessed again)" : ""}
        </p>
        <div className="col-start-2 pt-1 sm:col-start-3 sm:text-right">
          <MarginRule margin={data.margin} state={data.state} width={160} />
        </div>
        <p className="col-start-2 mt-2 flex flex-wrap gap-x-5 gap-y-1 sm:col-span-2">
          {data.booked.map((b) => (
            <Link key={b.id} to={`/work/${b.id}`} className="way">
              {`Booked: ${b.kind}${b.startsOn ? `, ${dayText(dayStart(b.startsOn, site.timeZone), site)}` : ""}`}
            </Link>
          ))}
          {mayEdit && !data.retired ? (
            <>
              {data.booked.length === 0 ? (
                <Link to={`/work/book?point=${place.id}`} className={data.state === "steady" ? "way" : "act"}>
                  Book work into a stop
                </Link>
              ) : null}
              <Link to={`/points/${place.id}/limit`} className="way">
                Change the limit
              </Link>
              <Link to={`/instruments/fit/${place.id}`} className="way">
                Which instrument fits?
              </Link>
              <Link to={`/fleet/edit/point/${place.id}`} className="way">
                Edit the point
              </Link>
            </>
          ) : null}
        </p>
      </div>

      <div className="grid gap-x-6 lg:grid-cols-[minmax(0,1fr)_300px] lg:grid-rows-[auto_1fr]">
        <div className="min-w-0 max-lg:order-2 lg:row-span-2">
          <div className="ruled mb-2 flex flex-wrap items-baseline justify-between gap-x-4 pb-1.5">
            <nav aria-label="Views of the readings" className="flex gap-4">
              {views.map((v) => (
                <Link
                  key={v.id}
                  to={v.id === "trend" ? "?" : `?view=${v.id}`}
                  preventScrollReset
                  aria-current={view === v.id ? "page" : undefined}
                  className={view === v.id ? "font-semibold" : "text-ink-2 hover:text-ink"}
                >
                  {v.label}
                </Link>
              ))}
            </nav>
            <span className="text-sm text-ink-2">
              {view === "trend" ? `${legend} · ${shown.unit}` : <kbd title="press t">t</kbd>}
            </span>
          </div>
          {data.total.count === 0 ? (
            <Empty>
              No reading yet.{" "}
              {mayLog
                ? "Log the first one beside: a part that was measured when new can be judged later."
                : "A technician can log the first one."}
            </Empty>
          ) : view === "table" ? null : (
            <ChartCanvas
              make={make}
              height={view === "months" ? 330 : 340}
              label={
                view === "months"
                  ? "Readings of each year over the months"
                  : `Trend of ${place.name}, corrected and as read, with limit and forecast. The table has the same data.`
              }
            />
          )}
          {view === "months" ? (
            <p className="mt-2 mb-4 text-ink-2">
              {data.sameMonth && data.last ? (
                <>
                  <>
                    In the same month of earlier years, one month either side: median{" "}
                    {
                      <strong className="text-ink">
                        {show(data.sameMonth.median, data.quantity, { unit: data.unit })}
                      </strong>
                    }
                    , from {show(data.sameMonth.least, data.quantity, { unit: data.unit })} to{" "}
                    {show(data.sameMonth.greatest, data.quantity, { unit: data.unit })} ({data.sameMonth.readings}{" "}
                    readings). The latest: {show(data.last.raw, data.quantity, { unit: data.unit })}.
                  </>
                </>
              ) : (
                "Fewer than three readings in the same month of earlier years of this life: nothing to compare with yet."
              )}
            </p>
          ) : null}
          {data.total.count > 0 ? (
            <Section title="Readings" className="mt-4" aside={aboutReadings}>
              <ReadingTable data={data} mayCorrect={mayLog} />
              {superseded.length > 0 ? (
                <div className="mt-3 text-sm">
                  <h3>Corrected readings, kept in the record</h3>
                  <ul>
                    {superseded.map((r) => (
                      <li key={r.id} className="py-0.5 text-ink-2">
                        <s>{r.entered}</s> {`of ${dayText(r.takenAt, site)}: ${r.why ?? ""} (${r.by ?? ""})`}
                      </li>
                    ))}
                  </ul>
                </div>
              ) : null}
            </Section>
          ) : null}
        </div>

        <div className="min-w-0 max-lg:order-1">
          {mayLog && !data.retired ? (
            <Section
              title="Log a reading"
              aside={<kbd className="rounded-[2px] border border-line-2 px-1.5 text-xs">n</kbd>}
            >
              <p className="py-2 text-sm text-ink-2">{`Read ${readingStates[data.readState]}. ${data.conditions}`}</p>
              <ReadingForm
                key={submission}
                point={readingPoint}
                submission={submission}
                answer={actionData}
                takenAt={data.now}
                values={{ instrumentId: data.instrumentId ?? "" }}
              />
              <p className="mt-2 border-l-2 border-ochre pl-2 text-xs text-ink-2">{cautionFor(data.quantity)}</p>
            </Section>
          ) : null}
        </div>
        <aside className="min-w-0 max-lg:order-3">
          {detail ? <ForecastSection detail={detail} /> : null}
          {detail ? <WorkingsSection detail={detail} unit={unit} /> : null}
          <PhotoSection photos={data.photos} of={place.name} />
          <p className="text-xs text-ink-2">
            The tool advises; the person responsible decides and signs. The manufacturer's limits come first.
          </p>
        </aside>
      </div>
    </>
  );
}
