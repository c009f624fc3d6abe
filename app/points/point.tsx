import { useMemo } from "react";
import { Link, redirect, useSearchParams } from "react-router";
import type { Route } from "./+types/point";
import { formatNumber, findUnit, fromCore, limitBases, quantityOf } from "@core";
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
import { useLetterKey } from "~/ui/letterKey";
import { Empty, PageHead } from "~/ui/page";
import { dayText, InZone, useShow, useSite } from "~/ui/site";
import { trendChart } from "./charts";
import { sameMonthChart } from "./sameMonthChart";
import { ForecastSection } from "./forecastSection";
import { PhotoSection } from "./photoSection";
import { WorkingsSection } from "./workingsSection";
import { LogHere } from "./logHere";
import { PointNotices, Readings, SameMonth, VerdictBand } from "./pointParts";

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
      <PointNotices data={data} saved={saved} mayEdit={mayEdit} />
      <VerdictBand data={data} mayEdit={mayEdit} />

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
          {view === "months" ? <SameMonth data={data} /> : null}
          {data.total.count > 0 ? <Readings data={data} superseded={superseded} mayCorrect={mayLog} /> : null}
        </div>

        <div className="min-w-0 max-lg:order-1">
          {mayLog && !data.retired ? <LogHere data={data} submission={submission} answer={actionData} /> : null}
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
