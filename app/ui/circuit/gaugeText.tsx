/** A gauge on a circuit: its name, what it shows, where that lies against its limit. */
import { Link } from "react-router";
import type { ConditionState, Assessment } from "@core";
import { StateGlyph, stateTone } from "../state";

export interface DiagramPoint {
  id: string;
  name: string;
  state: ConditionState;
  margin: Assessment["margin"];
  /** The last reading with its unit; empty: never read. */
  text: string;
  /** For hover and screen readers. */
  about: string;
}

/** What a what-if says of a point: the value, and its change from healthy. */
export interface GaugeChange {
  text: string;
  change: string;
  /** Sign of the change; 0: none worth a word. */
  sign: -1 | 0 | 1;
}

export const ROW = 38;
const RULE = 92;
const LIMIT_AT = 0.78;
const GLYPH = 11;

/** Cut where it would run into what stands beside it; its title has the whole. */
export const clipped = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The margin rule as small as it stays readable. */
function SmallRule({ margin, state }: { margin: Assessment["margin"]; state: ConditionState }) {
  if (!margin || state === "unproven") return <path d={`M0 0H${RULE}`} stroke="var(--line-2)" strokeDasharray="2 3" />;
  const x = (share: number) => Math.min(0.97, Math.max(0, share * LIMIT_AT)) * RULE;
  return (
    <>
      <path d={`M0 0H${RULE}`} stroke="var(--line-2)" />
      <path d={`M0 -3.500v6M${LIMIT_AT * RULE} -5v7.500`} stroke="var(--ink-2)" strokeWidth="1.4" />
      <path d={`M${x(margin.value)} -1l-4 -6h8z`} fill="currentColor" stroke="none" />
    </>
  );
}

/** Name, figure and rule of one gauge, leading to its point. */
export function GaugeText({
  pointId,
  point,
  change,
  x,
  y,
}: {
  pointId: string;
  point: DiagramPoint;
  change: GaugeChange | undefined;
  x: number;
  y: number;
}) {
  const tone = change
    ? change.sign === 0
      ? "text-ink-2"
      : change.sign > 0
        ? "text-verm"
        : "text-sea"
    : stateTone[point.state];
  return (
    <Link to={`/points/${pointId}`} aria-label={point.about} className="group">
      <title>{point.about}</title>
      <rect
        x={x - 4}
        y={y - 2}
        width="140"
        height={ROW - 2}
        fill="transparent"
        stroke="none"
        className="group-hover:fill-[var(--sea-soft)] group-focus-visible:stroke-[var(--sea)]"
      />
      <text x={x} y={y + 9} stroke="none" className="fill-[var(--ink-2)] text-[11px]">
        {clipped(point.name, 25)}
      </text>
      <g className={tone}>
        {change ? null : (
          <g transform={`translate(${x} ${y + 11})`}>
            <StateGlyph state={point.state} size={GLYPH} />
          </g>
        )}
        <text
          x={x + (change ? 0 : GLYPH + 3)}
          y={y + 21}
          stroke="none"
          fill="currentColor"
          className="text-[12px] font-semibold"
        >
          {change ? change.text : point.text || "not read yet"}
          {change?.change ? ` (${change.change})` : ""}
        </text>
        {change ? null : (
          <g transform={`translate(${x} ${y + 32})`}>
            <SmallRule margin={point.margin} state={point.state} />
          </g>
        )}
      </g>
    </Link>
  );
}
