import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/debris";
import { lowerFirst, sampleIso } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import {
  Button,
  CheckField,
  fieldClass,
  FormProblemsProvider,
  Notice,
  SelectField,
  TextArea,
  TextField,
} from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { CauseList } from "./chain";
import { answerTask, closeDebris, isClean, reopenDebris, debrisPage } from "~/domain/oil/index.server";
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Debris event, ${loaderData?.page.machine ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const page = await debrisPage(idParam(params));
  return {
    page,
    circuitId: page.event.circuitId,
    since: page.since.map((s) => ({
      id: s.id,
      number: s.number,
      at: s.at,
      code: sampleIso(s)?.text ?? null,
      clean: isClean(s, page.target),
    })),
    mayLog: mayAct(user.role, "technician"),
    mayClose: mayAct(user.role, "engineer"),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const decides = fields.intent === "close" || fields.intent === "reopen";
  if (decides && !mayAct(user.role, "engineer"))
    throw answerWith({ kind: "forbidden", needs: "engineer", has: user.role }, { status: 403 });
  const done =
    fields.intent === "close"
      ? await closeDebris(id, fields, user)
      : fields.intent === "reopen"
        ? await reopenDebris(id, fields, user)
        : await answerTask(id, fields, user);
  return done.ok ? redirect(`/oil/debris/${id}`) : refused(done, { intent: fields.intent ?? "task" });
});

type Task = Route.ComponentProps["loaderData"]["page"]["tasks"][number];

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

function TaskRow({
  task,
  open,
  problems,
  book,
}: {
  task: Task;
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

export default function Debris({ loaderData: { page, since, mayLog, mayClose }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const { event } = page;
  const answer = actionData && "intent" in actionData ? actionData : undefined;
  const open = event.closedAt === null;
  const bookOn = (part: string) => `/work/book?component=${part}&kind=inspection&from=debris&of=${page.event.id}`;
  const of = (kind: Task["kind"]) => page.tasks.filter((t) => t.kind === kind);
  const left = of("check").filter((t) => t.doneAt === null).length;
  const found = page.parts.find((p) => p.id === event.foundAtId);
  const source = page.parts.find((p) => p.id === event.sourceComponentId);
  const taskProblems = answer?.intent === "task" ? answer.problems : {};
  const newest = since.find((s) => s.clean !== null);
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: page.machine, to: `/oil/${event.circuitId}` },
          { label: "Debris event" },
        ]}
        title={
          open
            ? `${page.machine}: ${left > 0 ? `${counted(left, "part")} to look at` : newest?.clean ? "ready to close" : "a clean sample is needed"}`
            : `${page.machine}: debris event, closed`
        }
      >
        {`${event.what}. Found ${dayText(event.openedAt, site)} by ${event.openedBy}${found ? `, at the ${lowerFirst(found.name)}` : ""}.`}{" "}
        {open && mayLog ? (
          <Link to={`/isolate/new?circuit=${event.circuitId}&symptom=dirtyOil`} className="way">
            Isolate where it comes from
          </Link>
        ) : null}
      </PageHead>
      {event.reopenedAt ? (
        <Notice tone="ochre" live={false}>
          {`It was closed once and opened again ${dayText(event.reopenedAt, site)} by`} {event.reopenedBy}:{" "}
          {event.reopenedWhy}.
        </Notice>
      ) : null}
      {!open ? (
        <Notice live={false}>
          <>
            Closed {dayText(event.closedAt!, site)} by {event.closedBy}. Source:{" "}
            {event.sourceNotFound
              ? `not found; looked at: ${event.sourceWords}`
              : [source?.name, event.sourceWords].filter(Boolean).join(", ")}
            .
          </>
          {event.cleanSampleId ? (
            <>
              {" "}
              Proved by{" "}
              <Link to={`/oil/samples/${event.cleanSampleId}`} className="way">
                a clean sample
              </Link>
              .
            </>
          ) : null}
        </Notice>
      ) : (
        <Notice tone="ochre" live={false}>
          Prop loads before a load-holding valve is touched. Release pressure, accumulators too, and prove zero at a
          gauge. Limits and torques come from the manufacturers’ manuals.
        </Notice>
      )}
      {taskProblems.form ? <Notice tone="verm">{taskProblems.form}</Notice> : null}
      <Section title="What it threatens" aside={`${of("check").length - left} of ${of("check").length} looked at`}>
        <ul>
          {of("check").map((t) => (
            <TaskRow
              key={t.id}
              task={t}
              open={open && mayLog}
              problems={taskProblems}
              book={open && mayClose && t.componentId ? bookOn(t.componentId) : null}
            />
          ))}
        </ul>
      </Section>
      <Section title="How it is flushed">
        <ol>
          {of("flush").map((t) => (
            <TaskRow key={t.id} task={t} open={open && mayLog} problems={taskProblems} book={null} />
          ))}
        </ol>
      </Section>
      <div className="grid gap-x-8 xl:grid-cols-2">
        <Section title="Samples that are due">
          <ul>
            {of("sample").map((t) => (
              <TaskRow key={t.id} task={t} open={open && mayLog} problems={taskProblems} book={null} />
            ))}
          </ul>
        </Section>
        <Section title="Samples since" aside={page.target ? `target ${page.target.text}` : undefined}>
          {since.length === 0 ? (
            <p className="py-2 text-ink-2">
              None yet.{" "}
              {mayLog && open ? (
                <Link to={`/oil/${event.circuitId}/sample`} className="way">
                  Enter a sample
                </Link>
              ) : null}
            </p>
          ) : (
            <ul>
              {since.map((s) => (
                <li key={s.id} className="ruled flex justify-between gap-3 py-1.5">
                  <Link to={`/oil/samples/${s.id}`} className="way">
                    {s.number}
                  </Link>
                  <span>{s.code ?? "no code"}</span>
                  <span className={s.clean ? "text-ink" : "text-ink-2"}>
                    {s.clean === null ? "not comparable" : s.clean ? "clean" : "not clean"}
                  </span>
                  <span className="text-ink-2">{dayText(s.at, site)}</span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
      {open && page.causes.length > 0 ? (
        <Section
          title="Where to look for the source"
          aside={
            <Link to={`/oil/${event.circuitId}`} className="way">
              the whole chain
            </Link>
          }
        >
          <CauseList causes={page.causes} />
        </Section>
      ) : null}
      {open && mayClose ? (
        <Section title="Close it">
          <Form method="post" noValidate className="mt-3 max-w-xl" preventScrollReset>
            <input type="hidden" name="intent" value="close" />
            <FormProblemsProvider problems={answer?.intent === "close" ? answer.problems : undefined}>
              <div className="grid gap-3">
                <SelectField
                  name="sourceComponentId"
                  label="The source"
                  options={[
                    { value: "", label: "not a component of the circuit" },
                    ...page.parts.map((p) => ({ value: p.id, label: p.name })),
                  ]}
                />
                <TextArea
                  name="source"
                  label="In words"
                  placeholder="Bypass valve of the return filter held open by a burr"
                  maxLength={500}
                />
                <CheckField name="notFound" label="It was not found; describe what was checked" />
                <p>
                  <Button>Close the event</Button>
                </p>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
      ) : null}
      {!open && mayClose ? (
        <Section title="Not finished after all?">
          <Form method="post" noValidate className="mt-3 max-w-xl" preventScrollReset>
            <input type="hidden" name="intent" value="reopen" />
            <FormProblemsProvider problems={answer?.intent === "reopen" ? answer.problems : undefined}>
              <div className="grid gap-3">
                <TextField
                  name="why"
                  label="Why it is opened again"
                  placeholder="Brass in the sample of 2 December"
                  maxLength={500}
                />
                <p>
                  <Button tone="plain">Open it again</Button>
                </p>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
      ) : null}
    </>
  );
}
