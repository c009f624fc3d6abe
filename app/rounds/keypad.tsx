const keys = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"] as const;
const names: Record<string, string> = { ".": "point", "⌫": "delete the last digit" };

const key =
  "min-h-[60px] max-sm:min-h-12 rounded-[3px] border border-line-2 bg-sheet text-[1.55rem] active:bg-sea-soft";
const side =
  "min-h-[60px] max-sm:min-h-12 rounded-[3px] border border-line-2 bg-sheet px-2 active:bg-sea-soft max-sm:text-sm";
const still = (e: React.PointerEvent) => e.preventDefault();

export interface KeypadProps {
  onKey(key: string): void;
  /** Turn the sign of the figure. */
  onSign(): void;
  /** Take the next unit of the field; its symbol stands on the key. */
  onUnit(): void;
  unit: string;
  actions: { label: string; onPress(): void; disabled?: boolean }[];
  main: { label: string; onPress(): void };
}

export function Keypad({ onKey, onSign, onUnit, unit, actions, main }: KeypadProps) {
  return (
    <div className="grid grid-cols-[3fr_1fr] gap-2.5 max-sm:gap-1.5">
      <div className="grid grid-cols-3 gap-2.5 max-sm:gap-1.5">
        {keys.map((k) => (
          <button
            key={k}
            type="button"
            aria-label={names[k] ?? k}
            className={key}
            onPointerDown={still}
            onClick={() => onKey(k)}
          >
            {k}
          </button>
        ))}
        <button type="button" aria-label="plus or minus" className={key} onPointerDown={still} onClick={onSign}>
          ±
        </button>
        <button
          type="button"
          aria-label={`unit: ${unit}, take the next`}
          className={`${side} col-span-2`}
          onPointerDown={still}
          onClick={onUnit}
        >
          {`in ${unit}`}
        </button>
      </div>
      <div className="grid auto-rows-fr gap-2.5 max-sm:gap-1.5">
        {actions.map((a) => (
          <button
            key={a.label}
            type="button"
            className={`${side} disabled:opacity-50`}
            disabled={a.disabled}
            onClick={a.onPress}
          >
            {a.label}
          </button>
        ))}
        <button
          type="button"
          className="row-span-2 min-h-[60px] rounded-[3px] border border-sea bg-sea px-2 text-[1.05rem] font-semibold text-on-sea max-sm:min-h-12"
          onClick={main.onPress}
        >
          {main.label}
        </button>
      </div>
    </div>
  );
}
