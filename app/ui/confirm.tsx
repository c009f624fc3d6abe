/** Asks before something that cannot simply be undone. The button submits the form that it stands in. */
import { AlertDialog } from "radix-ui";
import { useRef } from "react";
import { Button } from "./form";

export function ConfirmButton({
  intent,
  label,
  question,
  explain,
}: {
  intent: string;
  label: string;
  question: string;
  explain: string;
}) {
  const submit = useRef<HTMLButtonElement>(null);
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <Button type="button" tone="danger">
          {label}
        </Button>
      </AlertDialog.Trigger>
      <button ref={submit} type="submit" name="intent" value={intent} hidden tabIndex={-1}>
        {label}
      </button>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-40 w-[min(92vw,26rem)] -translate-x-1/2 -translate-y-1/2 border border-line-2 bg-sheet p-5">
          <AlertDialog.Title className="text-lg font-semibold">{question}</AlertDialog.Title>
          <AlertDialog.Description className="mt-1 mb-4 text-ink-2">{explain}</AlertDialog.Description>
          <div className="flex justify-end gap-3">
            <AlertDialog.Cancel asChild>
              <Button type="button" tone="plain">
                No
              </Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button type="button" tone="danger" onClick={() => submit.current?.form?.requestSubmit(submit.current)}>
                {label}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
