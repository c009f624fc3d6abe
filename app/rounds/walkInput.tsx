/** A field of a walk: large, for gloves; the keypad writes into it too. */
import type { EntryField } from "./entry";
import type { WalkEntry } from "./useWalkEntry";

interface Props {
  name: EntryField;
  label: string;
  unit: string;
  large?: boolean;
  typing: WalkEntry;
  onEnter(): void;
}

export function WalkInput({ name, label, unit, large = false, typing, onEnter }: Props) {
  const { entry, field, problems, hold, set, setField } = typing;
  const problem = problems[name];
  return (
    <div className="min-w-0">
      <label htmlFor={`w-${name}`} className="mb-0.5 block text-sm text-ink-2">
        {label}
      </label>
      <span className="relative block">
        <input
          id={`w-${name}`}
          ref={(e) => hold(name, e)}
          value={entry[name]}
          inputMode="none"
          autoComplete="off"
          maxLength={40}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? `p-w-${name}` : name === "value" ? "w-expected" : undefined}
          autoFocus={name === field}
          onFocus={() => setField(name)}
          onChange={(e) => set(name, e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              onEnter();
            }
          }}
          className={
            `w-full min-w-0 rounded-[3px] border bg-sheet px-3.5 ` +
            `${large ? "py-2.5 text-[2.3rem] leading-tight" : "min-h-14 text-[1.45rem]"} ` +
            `${problem ? "border-2 border-verm" : field === name ? "border-2 border-sea" : "border-line-2"}`
          }
        />
        <span className="pointer-events-none absolute top-1/2 right-3.5 -translate-y-1/2 text-ink-2">
          {/[a-z°µ"%]/i.test(entry[name]) ? "" : unit}
        </span>
      </span>
      {problem ? (
        <p id={`p-w-${name}`} className="mt-1 text-sm font-medium text-verm">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
