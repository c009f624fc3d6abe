/** The horizon: time runs to the right, a line a component, planned stops as columns. */
import { TZDate } from "@date-fns/tz";
import { addMonths, startOfMonth } from "date-fns";
import { Link } from "react-router";
import { dayStart } from "@core";
import { shortMonth } from "~/ui/calendarNames";
import { stateTone } from "~/ui/state";
import { dayText, HALF_YEAR, useSite } from "~/ui/site";
import type { HorizonLine } from "~/domain/overview/index.server";

const TOP = 24;
const ROW = 29;

export interface StopColumn {
  id: string;
  name: string;
  startsOn: string;
  days: number;
  timeZone?: string;
}

export function Horizon({
  lines,
  stops,
  months,
}: {
  lines: readonly HorizonLine[];
  stops: readonly StopColumn[];
  months: number;
}) {
  const site = useSite();
  const start = startOfMonth(new TZDate(site.now, site.timeZone));
  const from = start.getTime();
  const to = addMonths(start, months + 1).getTime();
  // in percent across and in pixels down, so that a bar stays beside its label at any width
  const share = (ms: number) => Math.min(100, Math.max(0, ((ms - from) / (to - from)) * 100));
  const percent = (value: number) => `${value.toFixed(2)}%`;
  const x = (ms: number) => percent(share(ms));
  const height = TOP + lines.length * ROW;
  const at = (day: string) => dayStart(day, site.timeZone);
  const columns = stops
    .map((s) => ({ ...s, at: dayStart(s.startsOn, s.timeZone ?? site.timeZone) }))
    .filter((s) => s.at < to);
  const describe = (l: HorizonLine) => {
    // where one date names its year all do: "5 Jun to 26 Feb 2028" would be read as one year
    const years = [l.p10, l.p50, l.p90].some((ms) => ms !== null && Math.abs(ms - site.now) > HALF_YEAR);
    const dated = (ms: number) => dayText(ms, { ...site, years });
    return [
      `${dated(l.p10)} to ${l.p90 === null ? "beyond the horizon" : dated(l.p90)}`,
      ...(l.p50 === null ? [] : [`P50 ${dated(l.p50)}`]),
      ...(l.bookedOn ? [`booked ${dayText(at(l.bookedOn), site)}`] : []),
    ].join(", ");
  };
  return (
    <div className="grid grid-cols-[minmax(0,11rem)_minmax(0,1fr)] gap-x-2 pt-2">
      <ul className="text-sm" style={{ paddingTop: TOP - 4 }}>
        {lines.map((l) => (
          <li key={l.pointId} className="truncate" style={{ height: ROW, lineHeight: `${ROW}px` }}>
            <Link
              to={l.faultOf ? `/isolate/faults/${l.faultOf.split("/")[0]}` : `/points/${l.pointId}`}
              className="hover:underline"
              title={l.label}
            >
              {l.label}
            </Link>
            <span className="sr-only">: {describe(l)}</span>
          </li>
        ))}
      </ul>
      <svg height={height + 22} className="w-full overflow-visible" aria-hidden="true">
        {Array.from({ length: months + 1 }, (_, i) => {
          const month = addMonths(start, i);
          return (
            <g key={i}>
              <line x1={x(month.getTime())} x2={x(month.getTime())} y1={TOP - 6} y2={height} stroke="var(--line)" />
              <text x={x(month.getTime())} dx={10} y={12} fontSize="11" fill="var(--ink-2)">
                {shortMonth(month).charAt(0)}
              </text>
            </g>
          );
        })}
        {columns.map((s) => (
          <g key={s.id}>
            <rect
              x={x(s.at)}
              width={10}
              y={TOP - 6}
              height={height - TOP + 6}
              transform="translate(-5 0)"
              fill="var(--sea-soft)"
            />
            <text
              x={percent(Math.min(94, Math.max(6, share(s.at))))}
              y={height + 15}
              fontSize="11.5"
              fontWeight="640"
              textAnchor="middle"
              fill="var(--sea)"
            >
              {dayText(s.at, site).replace(/ \d{4}$/, "")}
            </text>
          </g>
        ))}
        {lines.map((l, i) => {
          const y = TOP + i * ROW + ROW / 2 - 4;
          const end = l.p90 === null ? 100 : share(l.p90);
          return (
            <g key={l.pointId} className={stateTone[l.state]}>
              <rect
                x={x(l.p10)}
                y={y - 3.5}
                width={percent(Math.max(0.7, end - share(l.p10)))}
                height={7}
                fill="currentColor"
                opacity="0.32"
              />
              {l.p50 !== null && l.p50 < to ? (
                <line x1={x(l.p50)} x2={x(l.p50)} y1={y - 6.5} y2={y + 6.5} stroke="currentColor" strokeWidth="2.2" />
              ) : null}
              {l.bookedOn ? (
                <svg x={x(at(l.bookedOn))} y={y} overflow="visible">
                  <circle r="5.5" fill="var(--sea)" />
                  <path d="M-2.4 0l1.8 1.9 3-3.6" fill="none" stroke="var(--on-sea)" strokeWidth="1.4" />
                </svg>
              ) : null}
            </g>
          );
        })}
        <line x1={x(site.now)} x2={x(site.now)} y1={TOP - 6} y2={height} stroke="var(--ink-2)" strokeDasharray="2 3" />
      </svg>
    </div>
  );
}
