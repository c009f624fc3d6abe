/** Water, acid, viscosity and each metal over time, side by side: drawn by the server, so that they cost the browser nothing. */
import { analytes, type AnalyteId, type SampleSeries } from "@core";
import { Section } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";

const WIDTH = 220;
const HEIGHT = 64;
const PAD = 5;
/** A dashed line beyond so many times the greatest reading is not drawn. */
const FAR = 1.6;

export interface SmallChart extends SampleSeries {
  /** Drawn dashed: a fixed limit of a metal, the stated viscosity; null: none. */
  line: { value: number; label: string } | null;
}

function Small({ chart, changes, now }: { chart: SmallChart; changes: readonly number[]; now: number }) {
  const site = useSite();
  const show = useShow();
  const { label, quantity } = analytes[chart.id];
  const { points, line } = chart;
  const [first, last] = [points[0]!, points.at(-1)!];
  const most = Math.max(...points.map((p) => p.value));
  // a line far away would press the readings flat: it is told in words below
  const near = line !== null && line.value <= FAR * most;
  const values = [...points.map((p) => p.value), ...(near ? [line.value] : [])];
  const [least, greatest] = [Math.min(...values), Math.max(...values)];
  const span = greatest - least || greatest || 1;
  const until = Math.max(now, last.at);
  const x = (at: number) => PAD + ((at - first.at) / (until - first.at || 1)) * (WIDTH - 2 * PAD);
  const y = (value: number) => HEIGHT - PAD - ((value - least) / span) * (HEIGHT - 2 * PAD);
  const text = (value: number, below = false) => `${below ? "< " : ""}${show(below ? 2 * value : value, quantity)}`;
  // a line is joined within a fill: new oil begins anew
  const path = points.map((p, i) => {
    const renewed = i > 0 && changes.some((c) => c > points[i - 1]!.at && c <= p.at);
    return `${i === 0 || renewed ? "M" : "L"}${x(p.at).toFixed(1)} ${y(p.value).toFixed(1)}`;
  });
  return (
    <figure className="min-w-0">
      <figcaption className="flex justify-between gap-2 text-sm">
        <span>{label}</span>
        <strong className="font-semibold">{text(last.value, last.below)}</strong>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        className="w-full text-sea"
        fill="none"
        aria-label={
          `${label}, ${points.length} samples: ${text(first.value, first.below)} on ${dayText(first.at, site)}, ` +
          `${text(last.value, last.below)} on ${dayText(last.at, site)}` +
          (line ? `; ${line.label} ${show(line.value, quantity)}` : "")
        }
      >
        {changes
          .filter((c) => c > first.at)
          .map((c) => (
            <path key={c} d={`M${x(c).toFixed(1)} 0V${HEIGHT}`} stroke="var(--line-2)" strokeDasharray="2 3" />
          ))}
        {near ? (
          <path d={`M0 ${y(line.value).toFixed(1)}H${WIDTH}`} stroke="var(--ink-2)" strokeDasharray="5 4" />
        ) : null}
        <path d={path.join("")} stroke="currentColor" strokeWidth="1.5" strokeLinejoin="round" />
        {points.map((p) => (
          <circle
            key={p.at}
            cx={x(p.at)}
            cy={y(p.value)}
            r="2.2"
            fill={p.below ? "var(--sheet)" : "currentColor"}
            stroke="currentColor"
          />
        ))}
      </svg>
      <p className="text-xs text-ink-2">
        since {dayText(first.at, site)}, {text(least)} to {text(most)}
        {line ? `, ${line.label} ${show(line.value, quantity)}` : ""}
      </p>
    </figure>
  );
}

/** `changes`: when the oil was filled anew, epoch ms. */
export function SmallCharts({
  charts,
  changes,
  now,
}: {
  charts: readonly SmallChart[];
  changes: readonly number[];
  now: number;
}) {
  if (charts.length === 0) return null;
  return (
    <Section
      title="What the laboratory found, over time"
      aside={changes.length > 0 ? "dotted: oil changed" : undefined}
    >
      <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-4 md:grid-cols-3 xl:grid-cols-4">
        {charts.map((chart) => (
          <Small key={chart.id} chart={chart} changes={changes} now={now} />
        ))}
      </div>
    </Section>
  );
}

/** The dashed line of a series. */
export function lineOf(
  id: AnalyteId,
  limits: readonly { id: AnalyteId; fixed: number | null }[],
  kv40: number | null,
): SmallChart["line"] {
  if (id === "kv40") return kv40 === null ? null : { value: kv40, label: "stated" };
  const limit = limits.find((m) => m.id === id)?.fixed ?? null;
  return limit === null ? null : { value: limit, label: "limit" };
}
