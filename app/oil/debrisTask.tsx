/** One task of a debris event: what to look at, and what was found. */
import { Form, Link } from "react-router";
import type { Route } from "./+types/debris";
import { Button, fieldClass } from "~/ui/form";
import { dayText, useSite } from "~/ui/site";

export type DebrisTask = Route.ComponentProps["loaderData"]["page"]["tasks"][number];

const results = {
  clean: "clean",
  dirtFound: "contamination found, cleaned out",
  stuckFreed: "stuck, freed",
  renewed: "renewed",
  left: "left alone",
  done: "done",
} as const;
const checkOptions = [
  { value: "", label: "what was found?" },
  ...(["clean", "dirtFound", "stuckFreed", "renewed", "left"] as const).map((value) => ({
    value,
    label: results[value],
  })),
];

export function TaskRow({
  task,
  open,
  problems,
  book,
}: {
  task: DebrisTask;
  open: boolean;
  problems: Record<string, string>;
  /** Address at which work on its part is booked; null: not by this reader. */
  book: string | null;
}) {
  const site = useSite();
  const wrong = problems[`result-${task.id}`] ?? problems[`note-${task.id}`];
  const late = task.dueOn !== null && task.doneAt === null && Date.parse(`${task.dueOn}T23:59:59Z`) < site.now;
  return (
    <li
      className={`ruled grid gap-x-5 gap-y-1 py-2 ${task.kind === "sample" ? "" : "md:grid-cols-[minmax(0,1fr)_330px]"}`}
    >
      <div className="min-w-0">
        <span className={task.doneAt ? "text-ink-2" : "font-semibold"}>{task.title}</span>
        {task.dueOn ? (
          <span className={`text-sm ${late ? "text-verm" : "text-ink-2"}`}>
            {" "}
            {`due ${dayText(Date.parse(`${task.dueOn}T12:00:00Z`), site)}`}
          </span>
        ) : null}
        <span className="block text-sm text-ink-2">
          {task.detail}{" "}
          {book ? (
            <Link to={book} className="way">
              Book work on it
            </Link>
          ) : null}
        </span>
      </div>
      <div className="text-sm">
        {task.doneAt ? (
          <p className="pb-1">
            <strong className="font-semibold">{results[task.result!]}</strong>
            {task.note ? `: ${task.note}` : ""}{" "}
            <span className="text-ink-2">
              {task.doneBy}, {dayText(task.doneAt, site)}
            </span>
          </p>
        ) : null}
        {open && !task.doneAt ? (
          <Form
            method="post"
            preventScrollReset
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2"
            aria-label={task.title}
          >
            <input type="hidden" name="task" value={task.id} />
            {task.kind === "check" ? (
              <select
                name="result"
                aria-label={`Found at ${task.title}`}
                aria-invalid={wrong ? true : undefined}
                className={`${fieldClass} !py-1`}
                defaultValue=""
              >
                {checkOptions.map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
              </select>
            ) : (
              <input type="hidden" name="result" value="done" />
            )}
            <input
              name="note"
              aria-label={`Remark on ${task.title}`}
              placeholder="remark"
              maxLength={500}
              className={`${fieldClass} !py-1 ${task.kind === "check" ? "" : "col-span-2"}`}
            />
            <Button tone="plain" className="!min-h-8 !px-3 !py-1 max-lg:!min-h-11">
              {task.kind === "check" ? "Note" : "Done"}
            </Button>
            {wrong ? <p className="col-span-3 font-medium text-verm">{wrong}</p> : null}
          </Form>
        ) : null}
      </div>
    </li>
  );
}
