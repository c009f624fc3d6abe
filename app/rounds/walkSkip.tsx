const reasons = ["Machine stands", "Oil too cold", "Cannot be reached", "Instrument missing"];

export function WalkSkip({ onSkip, onStay }: { onSkip(reason: string): void; onStay(): void }) {
  return (
    <div className="mb-2 border-l-4 border-line-2 bg-sheet px-3.5 py-2">
      <p>Why is it passed over?</p>
      <p className="mt-1.5 flex flex-wrap gap-2">
        {reasons.map((r) => (
          <button
            key={r}
            type="button"
            onClick={() => onSkip(r)}
            className="min-h-11 rounded-[3px] border border-line-2 bg-paper px-3 text-sm"
          >
            {r}
          </button>
        ))}
        <button type="button" onClick={onStay} className="min-h-11 px-3 text-sm text-ink-2">
          No, read it
        </button>
      </p>
    </div>
  );
}
