/** Keys large enough for gloves. */
const keys = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"] as const;
const names: Record<string, string> = { ".": "point", "⌫": "delete the last digit" };

const key = "min-h-[60px] rounded-[3px] border border-line-2 bg-sheet text-[1.55rem] active:bg-sea-soft";
const side = "min-h-[60px] rounded-[3px] border border-line-2 bg-sheet px-2 active:bg-sea-soft";

export function Keypad({ onKey, actions, main }: { onKey(key: string): void; actions: { label: string; onPress(): void; disabled?: boolean }[]; main: { label: string; onPress(): void } }) {
  return (
    <div className="grid grid-cols-[3fr_1fr] gap-2.5">
      <div className="grid grid-cols-3 gap-2.5">{keys.map((k) => <button key={k} type="button" aria-label={names[k] ?? k} className={key} onPointerDown={(e) => e.preventDefault()} onClick={() => onKey(k)}>{k}</button>)}</div>
      <div className="grid grid-rows-4 gap-2.5">
        {actions.map((a) => <button key={a.label} type="button" className={`${side} disabled:opacity-50`} disabled={a.disabled} onClick={a.onPress}>{a.label}</button>)}
        <button type="button" className="min-h-[60px] rounded-[3px] border border-sea bg-sea px-2 text-[1.05rem] font-semibold text-on-sea" onClick={main.onPress}>{main.label}</button>
      </div>
    </div>
  );
}
