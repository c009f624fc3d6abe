/** Odds as a number and a bar, with the place where they stood before the last result. */
import { formatNumber } from "@core";

/** A chance in words: never 0 or 100 %, which no evidence gives. */
export const oddsText = (share: number): string =>
  share > 0.99 ? "over 99 %" : share < 0.01 ? "under 1 %" : `${formatNumber(100 * share, 0)} %`;

export function OddsBar({ now, before }: { now: number; before: number | null }) {
  const moved = before !== null && Math.abs(before - now) >= 0.005;
  return (
    <span className="flex items-center gap-2 whitespace-nowrap">
      <svg viewBox="0 0 100 10" className="h-2.5 w-28 shrink-0" aria-hidden="true" preserveAspectRatio="none">
        <rect x="0" y="4" width="100" height="2" fill="var(--line-2)" />
        <rect x="0" y="2" width={100 * now} height="6" fill="var(--sea)" />
        {moved ? <rect x={Math.min(99, 100 * before)} y="0" width="1.4" height="10" fill="var(--ink)" /> : null}
      </svg>
      <span className="w-[4.5rem] text-right">{oddsText(now)}</span>
      <span className="sr-only">{moved ? `, was ${oddsText(before)}` : ""}</span>
    </span>
  );
}
