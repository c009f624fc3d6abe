/** The margin rule: a thin ruler with ticks at baseline and limit, the value as a notch, its doubt as a whisker. */
import { formatNumber, type Assessment, type ConditionState } from "@core";
import { stateTone } from "./state";

const LIMIT_AT = 0.78;
const FARTHEST = 0.965;

/** Place of a margin on the ruler, 0 to 1: the limit stands at 78 %, so that what lies beyond it is seen. */
function place(margin: number): number {
  return Math.min(FARTHEST, Math.max(0, margin * LIMIT_AT));
}

/** The figure under a margin rule. */
export function marginText(margin: Assessment["margin"], state: ConditionState): string {
  if (!margin || state === "unproven") return "not yet known";
  const percent = Math.round(margin.value * 100);
  if (percent > 999) return "far beyond the limit";
  return `${formatNumber(Math.max(0, percent), 0)} % of margin used`;
}

export function MarginRule({
  margin,
  state,
  width = 142,
  label = true,
  of,
}: {
  margin: Assessment["margin"];
  state: ConditionState;
  width?: number;
  label?: boolean;
  /** What the margin is of, where it is not plain. */ of?: string | undefined;
}) {
  const text = `${of ? `${of}: ` : ""}${marginText(margin, state)}`;
  const x = (share: number) => 6 + share * (width - 8);
  const known = margin !== null && state !== "unproven";
  const low = known ? x(place(margin.low)) : x(0);
  const high = known ? x(place(margin.high)) : x(LIMIT_AT);
  const value = margin ? x(place(margin.value)) : undefined;
  return (
    <span className="inline-flex flex-col items-end gap-0.5">
      <svg
        width={width}
        height={22}
        viewBox={`0 0 ${width} 22`}
        role="img"
        aria-label={text}
        className={stateTone[state]}
      >
        <path d={`M1 15H${width - 1}`} stroke="var(--line-2)" strokeWidth="1" />
        <path d={`M${x(0)} 9.5v10M${x(LIMIT_AT)} 5v14.5`} stroke="var(--ink-2)" strokeWidth="1.6" />
        <rect
          x={low}
          y={13.2}
          width={Math.max(1.5, high - low)}
          height={3.6}
          fill="currentColor"
          opacity={known ? 0.32 : 0.18}
        />
        {known && margin.before !== null ? (
          <path d={`M${x(place(margin.before))} 11v4`} stroke="currentColor" strokeWidth="1.4" opacity="0.7" />
        ) : null}
        {value !== undefined ? <path d={`M${value - 5} 3.5h10l-5 9z`} fill="currentColor" /> : null}
      </svg>
      {label ? (
        <span className="text-xs text-ink-2" aria-hidden="true">
          {text}
        </span>
      ) : null}
    </span>
  );
}
