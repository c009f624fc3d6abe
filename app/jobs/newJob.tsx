import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/newJob";
import { circuitNamed, circuitsNamed } from "~/domain/isolation/index.server";
import { complain, partsOfCircuit } from "~/domain/jobs/index.server";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { isUuid } from "~/platform/validate";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";

export const meta = () => [{ title: "A complaint · Juncteral" }];

export const loader = guard("technician", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const circuitId = search.get("circuit");
  const letters = (search.get("machine") ?? "").trim().slice(0, 80);
  const circuit = circuitId === null ? null : isUuid(circuitId) ? await circuitNamed(circuitId) : undefined;
  if (circuit === undefined) throw notFound("circuit");
  return {
    circuit,
    letters,
    circuits: circuit ? [] : await circuitsNamed(letters),
    parts: circuit ? await partsOfCircuit(circuit.id) : [],
    submission: crypto.randomUUID(),
  };
});

export const action = guardAction("technician", async ({ request, user }) => {
  const done = await complain(await formFields(request), user);
  return done.ok ? redirect(`/jobs/${done.id}`) : refused(done);
});

export default function NewJob({ loaderData: d, actionData }: Route.ComponentProps) {
  const problems = actionData?.problems;
  const { circuit } = d;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: "Jobs", to: "/jobs" },
        ]}
        title={circuit ? `${circuit.machine}: what was noticed?` : "Which machine is here with a complaint?"}
      >
        {circuit ? circuit.circuit : null}
      </PageHead>
      {circuit ? (
        <Form method="post" noValidate className="max-w-xl">
          <input type="hidden" name="submission" value={d.submission} />
          <input type="hidden" name="circuitId" value={circuit.id} />
          <FormProblemsProvider problems={problems}>
            {problems?.circuitId ? <Notice tone="verm">{problems.circuitId}</Notice> : null}
            <TextArea
              name="noticed"
              label="What was noticed"
              placeholder="Jacks slow since this morning, tank hot to the hand"
              maxLength={500}
              rows={3}
              autoFocus
            />
            <div className="mt-4">
              <SelectField
                name="componentId"
                label="At which part, where that is plain"
                options={[
                  { value: "", label: "not known yet" },
                  ...d.parts.map((p) => ({ value: p.id, label: p.name })),
                ]}
              />
            </div>
            <p className="mt-4">
              <Button>Begin the job</Button>
            </p>
          </FormProblemsProvider>
        </Form>
      ) : (
        <>
          <Form method="get" role="search" className="flex max-w-xl items-end gap-3">
            <span className="grow">
              <TextField name="machine" label="Machine, by name or tag" defaultValue={d.letters} autoFocus />
            </span>
            <Button>Find</Button>
          </Form>
          {d.circuits.length === 0 ? (
            <Empty>
              No machine is called so. <Link to="/fleet/begin">An engineer begins one from a template.</Link>
            </Empty>
          ) : (
            <ul className="mt-3 max-w-xl">
              {d.circuits.map((c) => (
                <li key={c.id} className="ruled">
                  <Link
                    to={`/jobs/new?circuit=${c.id}`}
                    className="flex min-h-11 items-center justify-between gap-3 py-1.5 hover:underline"
                  >
                    <span className="min-w-0 font-semibold [overflow-wrap:anywhere]">{c.machine}</span>
                    <span className="text-sm text-ink-2">{c.circuit}</span>
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </>
  );
}
