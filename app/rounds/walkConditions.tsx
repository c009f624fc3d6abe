/** The conditions that a point is read under, to be looked at and ticked. */
import { readingStates } from "@core";
import type { WalkPoint } from "~/domain/rounds/index.server";

/** What has to hold at a point: as its maker of rounds wrote it, its state, its instrument. */
export const conditionsOf = ({ conditions, readState, instrument }: WalkPoint): string[] => [
  ...conditions
    .split(",")
    .map((c) => c.trim())
    .filter(Boolean),
  `Read ${readingStates[readState]}`,
  ...(instrument ? [`With ${instrument.tag}`] : []),
];

interface Props {
  conditions: readonly string[];
  held: readonly string[];
  onHeld(held: readonly string[]): void;
}

export function WalkConditions({ conditions, held, onHeld }: Props) {
  return (
    <div className="mt-2.5 flex flex-wrap gap-2 max-sm:mt-1.5" role="group" aria-label="Look, and tick what holds">
      {conditions.map((c) => {
        const seen = held.includes(c);
        return (
          <button
            key={c}
            type="button"
            aria-pressed={seen}
            onClick={() => onHeld(seen ? held.filter((x) => x !== c) : [...held, c])}
            className={
              "min-h-11 flex-1 rounded-[3px] border px-3 text-sm " +
              `${seen ? "border-sea bg-sea-soft font-semibold text-sea" : "border-line-2 bg-sheet text-ink"}`
            }
          >
            {seen ? "✓ " : "○ "}
            {c}
          </button>
        );
      })}
    </div>
  );
}
