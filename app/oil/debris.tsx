import { Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/debris";
import { lowerFirst, sampleIso } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { CauseList } from "./chain";
import { answerTask, closeDebris, isClean, reopenDebris, debrisPage } from "~/domain/oil/index.server";
import { counted } from "~/ui/counted";
import { CloseDebris, ReopenDebris, SamplesSince } from "./debrisParts";
import { TaskRow, type DebrisTask } from "./debrisTask";

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

export default function Debris({ loaderData: { page, since, mayLog, mayClose }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const { event } = page;
  const answer = actionData && "intent" in actionData ? actionData : undefined;
  const open = event.closedAt === null;
  const bookOn = (part: string) => `/work/book?component=${part}&kind=inspection&from=debris&of=${page.event.id}`;
  const of = (kind: DebrisTask["kind"]) => page.tasks.filter((t) => t.kind === kind);
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
        <SamplesSince page={page} since={since} mayLog={mayLog} />
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
        <CloseDebris page={page} problems={answer?.intent === "close" ? answer.problems : undefined} />
      ) : null}
      {!open && mayClose ? <ReopenDebris problems={answer?.intent === "reopen" ? answer.problems : undefined} /> : null}
    </>
  );
}
