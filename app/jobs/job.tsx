import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/job";
import { closeJob, reopenJob } from "~/domain/jobs/index.server";
import { jobPage, type JobPage } from "~/domain/bookings/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { InZone, momentText, useSite } from "~/ui/site";
import { Stages } from "./stages";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Job ${loaderData?.page.number ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const mayWork = mayAct(user.role, "technician");
  return { page: await jobPage(idParam(params), mayWork), mayWork, mayBook: mayAct(user.role, "engineer") };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const done = fields.intent === "reopen" ? await reopenJob(id, user) : await closeJob(id, fields, user);
  return done.ok ? redirect(`/jobs/${id}`) : refused(done);
});

export default function Job(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <JobScreen {...props} />
    </InZone>
  );
}

/** A heading holds a line or two; the whole stands under "Noticed". */
const LONGEST = 80;
const titled = (noticed: string) =>
  noticed.length > LONGEST ? `${noticed.slice(0, LONGEST - 1).trimEnd()}…` : noticed.replace(/\.$/, "") || "a job";

/** What to do next, and the way there. */
function Next({ page, mayWork, mayBook }: { page: JobPage; mayWork: boolean; mayBook: boolean }) {
  const live = page.works.filter((w) => !w.cancelled);
  const open = page.causes.find((c) => !c.closed);
  const undone = live.find((w) => !w.done);
  const unsigned = live.find((w) => !w.signed);
  const run = undone?.runs.find((r) => r.closed < r.of);
  const isolate = `/isolate/new?circuit=${page.circuitId}&job=${page.id}`;
  const book = page.foundAt
    ? `/work/book?component=${page.foundAt.id}&from=isolation&of=${page.foundAt.isolation}`
    : page.componentId
      ? `/work/book?component=${page.componentId}&from=job&of=${page.id}`
      : null;
  switch (page.stand.here) {
    case null:
      return <p className="py-2">{page.closedAt ? "Closed by hand." : "Done, proven and signed."}</p>;
    case "cause":
      return open ? (
        <Way to={`/isolate/${open.id}`} text="The isolation proposes the next test." act="Go on isolating" may />
      ) : (
        <>
          <Way
            to={isolate}
            text="The cause is not looked for yet. What the machine’s readings say is taken in by itself."
            act="Find the cause"
            may={mayWork}
          />
          {book && mayBook ? (
            <p>
              <Link to={book} className="way">
                The cause is plain: book the work
              </Link>
            </p>
          ) : null}
        </>
      );
    case "decided":
      return (
        <>
          <p className="py-2">
            {page.causes.map((c) => c.found).join("; ")}. Decide: now, at the next stop, or wait. Put right on the spot,
            it is closed below with what was done.
          </p>
          {mayBook && book ? (
            <Link to={book} className="act">
              Book the work
            </Link>
          ) : (
            <Link to={page.causes[0] ? `/isolate/${page.causes[0].id}` : "/fleet"} className="way">
              What was found, and how
            </Link>
          )}
        </>
      );
    case "done":
      return run ? (
        <Way
          to={run.to}
          text={`${run.title}: ${run.closed} of ${run.of} steps.`}
          act={mayWork ? "Go on with the steps" : "Look at the record"}
          may
        />
      ) : (
        <Way
          to={`/work/${undone!.id}`}
          text="Begin its procedure, or record it as done."
          act="Carry it out"
          may={mayWork}
        />
      );
    case "proven":
      return (
        <Way
          to={unsigned!.pointId ? `/points/${unsigned!.pointId}` : `/work/${unsigned!.id}`}
          text="Repeat the reading that condemned the part, at the same conditions."
          act={unsigned!.pointId ? "Log the reading" : "Say why no reading proves it"}
          may={mayWork}
        />
      );
    default:
      return <Way to={`/work/${unsigned!.id}`} text="A reading proves it." act="Sign the record" may={mayBook} />;
  }
}

function Way({ to, text, act, may }: { to: string; text: string; act: string; may: boolean }) {
  return (
    <>
      <p className="py-2">{text}</p>
      {may ? (
        <Link to={to} className="act">
          {act}
        </Link>
      ) : null}
    </>
  );
}

function JobScreen({ loaderData: { page, mayWork, mayBook }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const problems = actionData?.problems;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: "Jobs", to: "/jobs" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={`${page.machine}: ${titled(page.noticed)}`}
      >
        {`Job ${page.number} · begun by ${page.openedBy}, ${momentText(page.openedAt, site)} · ${page.circuit}` +
          (page.component ? `, ${page.component}` : "")}
      </PageHead>
      {page.closedAt && problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[270px_minmax(0,1fr)]">
        <div className="max-lg:order-2">
          <Section title="The job">
            <div className="pt-3">
              <Stages job={page} />
            </div>
          </Section>
        </div>
        <div className="min-w-0 max-lg:order-1">
          <Section title="Next">
            <div className="border-l-2 border-sea pt-1 pb-2 pl-3">
              <Next page={page} mayWork={mayWork} mayBook={mayBook} />
            </div>
          </Section>
          <Section title="What happened" aside="oldest first">
            <ol>
              {page.events.map((e, i) => (
                <li key={i} className="ruled grid gap-x-4 py-1.5 sm:grid-cols-[9.5rem_minmax(0,1fr)]">
                  <span className="text-sm text-ink-2">{momentText(e.at, site)}</span>
                  <span className="[overflow-wrap:anywhere]">
                    {e.to ? (
                      <Link to={e.to} className="hover:underline">
                        {e.text}
                      </Link>
                    ) : (
                      e.text
                    )}
                    {e.by ? <span className="text-sm text-ink-2">{` ${e.by}`}</span> : null}
                  </span>
                </li>
              ))}
            </ol>
          </Section>
          {mayWork && page.closedAt ? (
            <Form method="post">
              <Button name="intent" value="reopen" tone="plain">
                Open it again
              </Button>
            </Form>
          ) : mayWork && page.stand.here !== null ? (
            <details open={problems ? true : undefined}>
              <summary className="cursor-pointer py-2 text-ink-2">Nothing more is to be done?</summary>
              <Form method="post" noValidate className="mt-2 max-w-xl">
                <FormProblemsProvider problems={problems}>
                  <TextField
                    name="because"
                    label="Why it is closed"
                    placeholder="Union tightened on the spot, 6 L filled; or: the gauge was wrong"
                    maxLength={500}
                  />
                  <p className="mt-3">
                    <Button name="intent" value="close" tone="plain">
                      Close the job
                    </Button>
                  </p>
                </FormProblemsProvider>
              </Form>
            </details>
          ) : null}
        </div>
      </div>
    </>
  );
}
