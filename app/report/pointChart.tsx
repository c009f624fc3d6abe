/** A point over time for print: readings, as new, limit, and the forecast's band. Plain lines, labelled where they end. */
import { MONTH } from "@core";
import { TZDate } from "@date-fns/tz";
import type { ConditionState, PointQuantityId } from "@core";
import type { ReportChart } from "~/domain/report/index.server";
import { shortMonth } from "~/ui/calendarNames";
import { dayText, useShow, useSite } from "~/ui/site";
import { stateTone } from "~/ui/state";
import { counted } from "~/ui/counted";

const lastOf = (value: string) => `last ${value}`;

const WIDTH = 640;
const HEIGHT = 150;
const [LEFT, RIGHT, TOP, BOTTOM] = [6, 150, 10, 20] as const;
/** Half of a label below: nearer to the edge than this it would be cut. */
const HALF_LABEL = 26;
/** A forecast is drawn as far ahead at most. */
const AHEAD = 18 * MONTH;
/** Lines labelled nearer to each other than this are moved apart. */
const APART = 13;

interface Props {
  chart: ReportChart;
  quantity: PointQuantityId;
  unit: string;
  state: ConditionState;
}

interface Label {
  y: number;
  text: string;
  tone: string;
}

/** Labels from the top down, none over another. */
export function spread(labels: readonly Label[]): Label[] {
  const sorted = labels.toSorted((a, b) => a.y - b.y);
  let last = -Infinity;
  return sorted.map((l) => {
    last = Math.max(l.y, last + APART);
    return { ...l, y: last };
  });
}

/** First days of a month, every so many months, between two moments. */
function monthsBetween(from: number, to: number, timeZone: string): TZDate[] {
  const months = (to - from) / MONTH;
  const step = [1, 2, 3, 6, 12, 24, 60].find((s) => months / s <= 9) ?? 120;
  const start = new TZDate(from, timeZone);
  const first = Math.ceil((start.getMonth() + 1) / step) * step;
  return Array.from(
    { length: Math.ceil(months / step) },
    (_, i) => new TZDate(start.getFullYear(), first + i * step, 1, timeZone),
  ).filter((d) => d.getTime() > from && d.getTime() < to);
}

export function PointChart({ chart, quantity, unit, state }: Props) {
  const site = useSite();
  const show = useShow();
  const { readings, asNew, limits } = chart;
  const [first, last] = [readings[0], readings.at(-1)];
  if (!first || !last) return null;
  const ahead = chart.ahead.filter((f) => f.at <= site.now + AHEAD);
  const lines = [
    ...[limits?.upper, limits?.lower].flatMap((v) =>
      typeof v === "number" ? [{ v, name: "limit", tone: "var(--verm)" }] : [],
    ),
    ...(asNew === null ? [] : [{ v: asNew, name: "as new", tone: "var(--ink-2)" }]),
  ];
  const from = first.at;
  const to = Math.max(site.now, last.at + MONTH, ahead.at(-1)?.at ?? 0);
  const values = [...readings.map((r) => r.value), ...lines.map((l) => l.v), ...ahead.flatMap((f) => [f.p10, f.p50])];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const span = high - low || Math.abs(high) || 1;
  const x = (at: number) => LEFT + ((at - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const y = (v: number) => TOP + (1 - Math.min(1.02, Math.max(-0.02, (v - low) / span))) * (HEIGHT - TOP - BOTTOM);
  const text = (v: number) => show(v, quantity, { unit });
  const labels = spread([
    ...lines.map((l) => ({ y: y(l.v), text: `${l.name} ${text(l.v)}`, tone: l.tone })),
    { y: y(last.value), text: lastOf(text(last.value)), tone: "currentColor" },
  ]);
  const band = [
    ...ahead.map((f) => `${x(f.at)} ${y(f.p90)}`),
    ...ahead.toReversed().map((f) => `${x(f.at)} ${y(f.p10)}`),
  ];
  const said = [
    `${counted(readings.length, "reading")} from ${dayText(first.at, site)} to ${dayText(last.at, site)}`,
    lastOf(text(last.value)),
    ...lines.map((l) => `${l.name} ${text(l.v)}`),
  ].join(", ");
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={said}
      className={`mt-1 w-full max-w-[44rem] break-inside-avoid ${stateTone[state]}`}
      fontSize="11"
    >
      {monthsBetween(from, to, site.timeZone).map((d) => (
        <g key={d.getTime()}>
          <path d={`M${x(d.getTime())} ${TOP}V${HEIGHT - BOTTOM}`} stroke="var(--line)" />
          {x(d.getTime()) < HALF_LABEL ? null : (
            <text x={x(d.getTime())} y={HEIGHT - 6} textAnchor="middle" fill="var(--ink-2)">
              {shortMonth(d)} {d.getFullYear()}
            </text>
          )}
        </g>
      ))}
      {band.length > 2 ? <path d={`M${band.join("L")}Z`} fill="currentColor" opacity="0.16" /> : null}
      {ahead.length > 1 ? (
        <path
          d={`M${ahead.map((f) => `${x(f.at)} ${y(f.p50)}`).join("L")}`}
          fill="none"
          stroke="currentColor"
          strokeDasharray="5 3"
        />
      ) : null}
      {lines.map((l) => (
        <path
          key={`${l.name} ${l.v}`}
          d={`M${LEFT} ${y(l.v)}H${WIDTH - RIGHT}`}
          stroke={l.tone}
          strokeWidth={l.name === "limit" ? 1.6 : 1}
          strokeDasharray={l.name === "limit" ? undefined : "2 3"}
        />
      ))}
      {readings.map((r) => (
        <circle
          key={r.at}
          cx={x(r.at)}
          cy={y(r.value)}
          r="2.3"
          fill={r.odd ? "none" : "currentColor"}
          stroke="currentColor"
        />
      ))}
      {labels.map((l) => (
        <text key={l.text} x={WIDTH - RIGHT + 6} y={l.y + 4} fill={l.tone}>
          {l.text}
        </text>
      ))}
    </svg>
  );
}
