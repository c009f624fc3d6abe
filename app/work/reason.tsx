/** Why something is skipped or taken back: a few words, kept on the record. */
import { useState } from "react";
import { SHORTEST_REASON } from "~/domain/runs/index";
import { Button, fieldClass } from "~/ui/form";

interface Props {
  question: string;
  act: string;
  onNo(): void;
  onYes(reason: string): Promise<void>;
}

export function Reason({ question, act, onNo, onYes }: Props) {
  const [reason, setReason] = useState("");
  const [short, setShort] = useState(false);
  return (
    <div className="mt-2 border-l-4 border-line-2 bg-sheet px-3.5 py-2">
      <label className="block">
        {question}
        <input
          className={`${fieldClass} mt-1 min-h-12`}
          value={reason}
          maxLength={300}
          autoFocus
          aria-invalid={short ? true : undefined}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      {short ? (
        <p role="alert" className="mt-1 text-sm font-medium text-verm">
          Say why in a few words.
        </p>
      ) : null}
      <p className="mt-2 flex flex-wrap gap-4">
        <Button
          type="button"
          tone="danger"
          onClick={() => (reason.trim().length < SHORTEST_REASON ? setShort(true) : void onYes(reason.trim()))}
        >
          {act}
        </Button>
        <button type="button" className="min-h-11 text-ink-2" onClick={onNo}>
          No
        </button>
      </p>
    </div>
  );
}
