/** Parts of the page of a point. */
import { Link } from "react-router";
import type { Route } from "./+types/point";
import { dayStart, stateWords } from "@core";
import { Notice } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { Section } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";
import { StateGlyph, stateTone } from "~/ui/state";
import { Verdict } from "~/ui/verdict";
import { ReadingTable } from "./table";

type Loaded = Route.ComponentProps["loaderData"];

/** What was just saved, and what stands in the way of trusting the point. */
export function PointNotices({ data, saved, mayEdit }: Pick<Loaded, "data" | "saved" | "mayEdit">) {
  const { place } = data;
  const show = useShow();
  return (
    <>
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
    </>
  );
}

/** State, verdict and margin, with what can be done about it. */
export function VerdictBand({ data, mayEdit }: Pick<Loaded, "data" | "mayEdit">) {
  const { place } = data;
  const site = useSite();
  return (
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
  );
}

/** The newest reading beside the same month of earlier years. */
export function SameMonth({ data }: Pick<Loaded, "data">) {
  const show = useShow();
  return (
    <p className="mt-2 mb-4 text-ink-2">
      {data.sameMonth && data.last ? (
        <>
          <>
            In the same month of earlier years, one month either side: median{" "}
            {<strong className="text-ink">{show(data.sameMonth.median, data.quantity, { unit: data.unit })}</strong>},
            from {show(data.sameMonth.least, data.quantity, { unit: data.unit })} to{" "}
            {show(data.sameMonth.greatest, data.quantity, { unit: data.unit })} ({data.sameMonth.readings} readings).
            The latest: {show(data.last.raw, data.quantity, { unit: data.unit })}.
          </>
        </>
      ) : (
        "Fewer than three readings in the same month of earlier years of this life: nothing to compare with yet."
      )}
    </p>
  );
}

/** Readings of this life as a table; corrected ones stay in sight. */
export function Readings({
  data,
  superseded,
  mayCorrect,
}: Pick<Loaded, "data" | "superseded"> & { mayCorrect: boolean }) {
  const site = useSite();
  const aboutReadings = [
    `${data.inLife.over ? "over " : ""}${data.inLife.count} in this life`,
    ...(data.marked ? [`${data.marked} marked`] : []),
    ...(data.superseded ? [`${data.superseded} corrected`] : []),
    ...(data.lifeStartedAt ? [`since ${dayText(data.lifeStartedAt, site)}`] : []),
  ].join(" · ");
  return (
    <Section title="Readings" className="mt-4" aside={aboutReadings}>
      <ReadingTable data={data} mayCorrect={mayCorrect} />
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
  );
}
