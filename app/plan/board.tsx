/** Pieces over time: the forecast's span, planned stops as columns, and where the plan puts each; a mark can be dragged. */
import { useRef, useState, type PointerEvent } from "react";
import { Link } from "react-router";
import { addMonths, startOfMonth } from "date-fns";
import { TZDate } from "@date-fns/tz";
import { lowerFirst, type PieceFacts, type PlanLine, type PlanProblem } from "@core";
import { shortMonth } from "~/ui/calendarNames";
import { dayText, useSite } from "~/ui/site";
import { stateTone } from "~/ui/state";
import { SteppedSelect } from "~/ui/steppedSelect";

export interface BoardRow {
  facts: PieceFacts;
  line: PlanLine | null;
  pinned: boolean;
  reason: string;
  /** Stops that it must not take. */
  forbidden: readonly string[];
  /** Pieces that it goes together with, by what they are called. */
  goesWith: readonly string[];
  /** Other pieces that it could go with: those of its own machine first. */
  companions: readonly { id: string; label: string }[];
  /** Where it can be put: id and label. */
  ways: { id: string; label: string; at: number }[];
}

/** Before the id of a way that a piece is kept away from, or let go to again. */
export const NOT_AT = "not:";
/** Before the id of a piece that it goes together with; and alone again. */
export const WITH = "with:";
export const APART = "apart";
const HEIGHT = 34;
const TOP = 30;

/** Time across, in percent. */
function useScale(months: number) {
  const site = useSite();
  const start = startOfMonth(new TZDate(site.now, site.timeZone));
  const from = start.getTime();
  const to = addMonths(start, months).getTime();
  const share = (ms: number) => Math.min(100, Math.max(0, ((ms - from) / (to - from)) * 100));
  return { start, from, to, share, x: (ms: number) => `${share(ms).toFixed(2)}%` };
}

type Scale = ReturnType<typeof useScale>;

function Months({ scale, months, stops }: { scale: Scale; months: number; stops: PlanProblem["stops"] }) {
  const site = useSite();
  const step = months > 18 ? 3 : months > 9 ? 2 : 1;
  return (
    <svg height={TOP} className="w-full overflow-visible" aria-hidden="true">
      {Array.from({ length: Math.ceil(months / step) }, (_, i) => {
        const month = addMonths(scale.start, i * step);
        return (
          <text key={i} x={scale.x(month.getTime())} dx={3} y={10} fontSize="11" fill="var(--ink-2)">
            {shortMonth(month)}
            {month.getMonth() === 0 ? ` ’${String(month.getFullYear()).slice(2)}` : ""}
          </text>
        );
      })}
      {stops
        .filter((s) => s.at < scale.to)
        .map((s) => (
          <text
            key={s.id}
            x={`${Math.min(95, Math.max(5, scale.share(s.at))).toFixed(2)}%`}
            y={26}
            fontSize="11.5"
            fontWeight="640"
            textAnchor="middle"
            fill="var(--sea)"
            data-stop={s.id}
          >
            {dayText(s.at, site).replace(/.\d{4}$/, "")}
          </text>
        ))}
    </svg>
  );
}

/** A row's span and its mark. Dragged, the mark goes to the way that lies nearest. */
function Lane({
  row,
  scale,
  stops,
  onMove,
}: {
  row: BoardRow;
  scale: Scale;
  stops: PlanProblem["stops"];
  onMove: (way: string) => void;
}) {
  const box = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<number | null>(null);
  const { facts, line } = row;
  const y = HEIGHT / 2;
  const timeAt = (event: PointerEvent) => {
    const { left, width } = box.current!.getBoundingClientRect();
    return scale.from + ((event.clientX - left) / width) * (scale.to - scale.from);
  };
  const nearest = (ms: number) =>
    row.ways.reduce<BoardRow["ways"][number] | null>(
      (best, w) => (best === null || Math.abs(w.at - ms) < Math.abs(best.at - ms) ? w : best),
      null,
    );
  const at = drag ?? line?.option.at ?? null;
  return (
    <svg ref={box} height={HEIGHT} className="w-full overflow-visible" aria-hidden="true">
      {stops
        .filter((s) => s.at < scale.to)
        .map((s) => (
          <rect
            key={s.id}
            x={scale.x(s.at)}
            width={9}
            y={0}
            height={HEIGHT}
            transform="translate(-4.5 0)"
            fill="var(--sea-soft)"
          />
        ))}
      {facts.p10 !== null && facts.p10 < scale.to ? (
        <g className={facts.state ? stateTone[facts.state] : ""}>
          <rect
            x={scale.x(facts.p10)}
            y={y - 3.5}
            width={`${Math.max(0.7, (facts.p90 === null ? 100 : scale.share(facts.p90)) - scale.share(facts.p10)).toFixed(2)}%`}
            height={7}
            fill="currentColor"
            opacity="0.32"
          />
          {facts.p50 !== null && facts.p50 < scale.to ? (
            <line
              x1={scale.x(facts.p50)}
              x2={scale.x(facts.p50)}
              y1={y - 7}
              y2={y + 7}
              stroke="currentColor"
              strokeWidth="2.2"
            />
          ) : null}
        </g>
      ) : null}
      <line x1={scale.x(scale.from)} x2="100%" y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} stroke="var(--line)" />
      {at !== null && line && (line.option.kind !== "wait" || drag !== null) && at < scale.to ? (
        <svg
          x={scale.x(at)}
          y={y}
          overflow="visible"
          className="cursor-grab touch-none"
          onPointerDown={(event) => {
            (event.currentTarget as Element).setPointerCapture(event.pointerId);
            setDrag(timeAt(event));
          }}
          onPointerMove={(event) => (drag === null ? undefined : setDrag(timeAt(event)))}
          onPointerUp={(event) => {
            const way = nearest(timeAt(event));
            setDrag(null);
            if (way && way.id !== line.option.id) onMove(way.id);
          }}
          onPointerCancel={() => setDrag(null)}
          data-mark={facts.id}
        >
          <rect x={-12} y={-15} width={24} height={30} fill="transparent" />
          {line.option.kind === "own" ? (
            <path d="M0 -8 L8 0 L0 8 L-8 0 Z" fill="var(--sea)" />
          ) : (
            <circle r="7" fill="var(--sea)" />
          )}
          {row.pinned ? <circle r="2.6" fill="var(--on-sea)" /> : null}
        </svg>
      ) : null}
    </svg>
  );
}

export function Board({
  rows,
  months,
  stops,
  onMove,
}: {
  rows: readonly BoardRow[];
  months: number;
  stops: PlanProblem["stops"];
  /** Empty: as the solver likes; with NOT_AT before it: kept away from there, or no longer. */
  onMove: (piece: string, way: string) => void;
}) {
  const scale = useScale(months);
  return (
    <div className="text-sm">
      <div className="grid grid-cols-[minmax(0,15rem)_minmax(0,1fr)_12.5rem] gap-x-3 max-md:hidden">
        <span />
        <Months scale={scale} months={months} stops={stops} />
        <span />
      </div>
      <ul>
        {rows.map((row) => {
          const { facts } = row;
          return (
            <li
              key={facts.id}
              className="ruled grid gap-x-3 py-1.5 md:grid-cols-[minmax(0,15rem)_minmax(0,1fr)_12.5rem]"
            >
              <span className="min-w-0 [overflow-wrap:anywhere]">
                <Link
                  to={
                    facts.faultOf
                      ? `/isolate/faults/${facts.faultOf.split("/")[0]}`
                      : facts.pointId
                        ? `/points/${facts.pointId}`
                        : `/work/${facts.workId}`
                  }
                  className="font-semibold hover:underline"
                >
                  {facts.machine}, {lowerFirst(facts.component)}
                </Link>
                <span className="block text-ink-2">
                  {facts.act}, {facts.hours} h{facts.assumed ? " (usual figures)" : ""}
                </span>
              </span>
              <span className="max-md:hidden">
                <Lane row={row} scale={scale} stops={stops} onMove={(way) => onMove(facts.id, way)} />
              </span>
              <span>
                <label className="sr-only" htmlFor={`way-${facts.id}`}>
                  {`When: ${facts.machine}, ${facts.component}`}
                </label>
                <SteppedSelect
                  id={`way-${facts.id}`}
                  className="w-full border border-line-2 bg-sheet px-1.5 py-1 max-md:min-h-11"
                  value={row.pinned ? (line(row) ?? "") : ""}
                  onTake={(way) => onMove(facts.id, way)}
                >
                  <option value="">{row.line ? wayLabel(row) : "…"}</option>
                  <optgroup label="Pin it to">
                    {row.ways.map((w) => (
                      <option key={w.id} value={w.id}>
                        {`Pin: ${w.label}`}
                      </option>
                    ))}
                  </optgroup>
                  <optgroup label="Keep it away from">
                    {row.ways
                      .filter((w) => w.id !== "wait" && !row.forbidden.includes(w.id))
                      .map((w) => (
                        <option key={w.id} value={`${NOT_AT}${w.id}`}>
                          {`Not at: ${w.label}`}
                        </option>
                      ))}
                  </optgroup>
                  {row.companions.length > 0 ? (
                    <optgroup label="Do it together with">
                      {row.companions.map((c) => (
                        <option key={c.id} value={`${WITH}${c.id}`}>
                          {`With: ${c.label}`}
                        </option>
                      ))}
                    </optgroup>
                  ) : null}
                </SteppedSelect>
              </span>
              <p className="mt-0.5 text-ink-2 md:col-span-3">
                {row.reason}
                {row.goesWith.length > 0 ? (
                  <>
                    {" "}
                    {`Goes together with ${row.goesWith.join(", ")}.`}
                    <button type="button" className="way ml-3" onClick={() => onMove(facts.id, APART)}>
                      Plan it for itself
                    </button>
                  </>
                ) : null}
                {row.forbidden.map((id) => (
                  <button
                    key={id}
                    type="button"
                    className="way ml-3"
                    onClick={() => onMove(facts.id, `${NOT_AT}${id}`)}
                  >
                    {`Let it go to: ${row.ways.find((w) => w.id === id)?.label ?? "a stop"}`}
                  </button>
                ))}
              </p>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

const line = (row: BoardRow) => {
  const id = row.line?.option.id;
  return row.ways.some((w) => w.id === id) ? id : row.ways.find((w) => w.id === "own" && id?.startsWith("own"))?.id;
};
const wayLabel = (row: BoardRow) => row.ways.find((w) => w.id === line(row))?.label ?? "";
