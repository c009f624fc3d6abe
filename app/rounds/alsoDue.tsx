/** What else falls due at a machine of the round: seen where it stands; a valve that was moved is kept like a reading. */
import type { DueItem } from "~/domain/bookings/index.server";
import { Button } from "~/ui/form";
import { Due } from "~/ui/due";

interface Props {
  items: readonly DueItem[];
  moved: readonly string[];
  onMoved(componentId: string): void;
}

export function AlsoDue({ items, moved, onMoved }: Props) {
  if (items.length === 0) return null;
  return (
    <section className="mt-5">
      <h2 className="ruled pb-1">Also due at this machine</h2>
      <ul>
        {items.map((d) => (
          <li key={d.kind + d.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              {d.what}
              <span className="text-ink-2">
                : {d.why}, <Due at={d.dueAt} />
              </span>
            </span>
            {d.kind !== "exercise" ? null : moved.includes(d.id) ? (
              <span className="text-sea">moved</span>
            ) : (
              <Button type="button" tone="plain" aria-label={`It was moved: ${d.what}`} onClick={() => onMoved(d.id)}>
                It was moved
              </Button>
            )}
          </li>
        ))}
      </ul>
      {items.some((d) => d.kind === "exercise") ? (
        <p className="py-1.5 text-sm text-ink-2">
          Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.
        </p>
      ) : null}
    </section>
  );
}
