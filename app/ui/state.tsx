/** States: a word, a glyph and a tone; never colour alone. */
import { stateWords, type ConditionState } from "@core";

export const stateTone: Record<ConditionState, string> = {
  unread: "text-ink-2",
  unproven: "text-ink-2",
  steady: "text-ink-2",
  drifting: "text-ink",
  alert: "text-ochre",
  alarm: "text-verm",
};

/** A line against a limit tick: dotted short of it, flat, rising, touching, through. */
export function StateGlyph({ state, size = 18 }: { state: ConditionState; size?: number }) {
  const line = {
    unread: null,
    unproven: <path d="M1 9h9" strokeDasharray="1.6 2.2" />,
    steady: <path d="M1 12h11" />,
    drifting: <path d="M1 14l10-6" />,
    alert: <path d="M1 14l13-9" />,
    alarm: <path d="M1 14l16-11" />,
  }[state];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 18 18"
      aria-hidden="true"
      className={`shrink-0 ${stateTone[state]}`}
      fill="none"
      stroke="currentColor"
      strokeWidth={state === "alarm" ? 2.2 : 1.8}
    >
      {line}
      <path d="M14 2v14" strokeWidth="1.4" className={state === "alarm" || state === "alert" ? "" : "opacity-70"} />
    </svg>
  );
}

/** Glyph and word together. */
export function StateWord({ state }: { state: ConditionState }) {
  return (
    <span className={`inline-flex items-center gap-1 ${stateTone[state]}`}>
      <StateGlyph state={state} size={15} />
      <span className={state === "alert" || state === "alarm" || state === "drifting" ? "font-semibold" : ""}>
        {stateWords[state]}
      </span>
    </span>
  );
}
