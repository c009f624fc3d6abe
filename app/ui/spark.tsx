/** The margin used over a life as a small line: the dashed line is the limit. */
import { formatNumber } from "@core";
import type { ConditionState } from "@core";
import { stateTone } from "./state";

/** Share of the time from first to last, and of the margin. */
export type SparkPoint = [time: number, used: number];

const WIDTH = 84;
const HEIGHT = 22;
const LIMIT_Y = 5;
const NEW_Y = 19;

export function Spark({
  points,
  months,
  state,
}: {
  points: readonly SparkPoint[];
  months: number;
  state: ConditionState;
}) {
  if (points.length === 0) return null;
  const y = (used: number) => Math.min(HEIGHT - 1, Math.max(1, NEW_Y + (LIMIT_Y - NEW_Y) * used));
  const x = (time: number) => 1 + time * (WIDTH - 4);
  const percent = ([, used]: SparkPoint) => formatNumber(Math.round(100 * used), 0);
  const last = points.at(-1)!;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`Margin used over ${months} months: from ${percent(points[0]!)} % to ${percent(last)} %`}
      className={`inline-block ${stateTone[state]}`}
      fill="none"
    >
      <path d={`M0 ${LIMIT_Y}H${WIDTH}`} stroke="var(--ink-2)" strokeDasharray="3 3" opacity="0.7" />
      <path
        d={`M${points.map(([t, used]) => `${x(t).toFixed(1)} ${y(used).toFixed(1)}`).join("L")}`}
        stroke="currentColor"
        strokeWidth="1.5"
        strokeLinejoin="round"
      />
      <circle cx={x(last[0])} cy={y(last[1])} r="2" fill="currentColor" />
    </svg>
  );
}
