import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/newCase";
import { symptomGroups, symptoms } from "@core";
import { openIsolation, circuitNamed, circuitsNamed } from "~/domain/isolation/index.server";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, TextArea, TextField } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";

export const meta = () => [{ title: "Begin an isolation · Juncteral" }];

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
    symptom: search.get("symptom"),
    job: search.get("job") ?? "",
    submission: crypto.randomUUID(),
  };
});

export const action = guardAction("technician", async ({ request, user }) => {
  const done = await openIsolation(await formFields(request), user);
  return done.ok ? redirect(`/isolate/${done.id}`) : refused(done);
});

function Which({
  letters,
  circuits,
  symptom,
}: {
  letters: string;
  circuits: { id: string; machine: string; circuit: string }[];
  symptom: string | null;
}) {
  return (
    <>
      <Form method="get" role="search" className="flex max-w-xl items-end gap-3">
        {symptom ? <input type="hidden" name="symptom" value={symptom} /> : null}
        <span className="grow">
          <TextField name="machine" label="Machine, by name or tag" defaultValue={letters} autoFocus />
        </span>
        <Button>Find</Button>
      </Form>
      {circuits.length === 0 ? (
        <Empty>No machine is called so.</Empty>
      ) : (
        <ul className="mt-3 max-w-xl">
          {circuits.map((c) => (
            <li key={c.id} className="ruled">
              <Link
                to={`/isolate/new?circuit=${c.id}${symptom ? `&symptom=${encodeURIComponent(symptom)}` : ""}`}
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
  );
}

export default function NewCase({ loaderData: d, actionData }: Route.ComponentProps) {
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  const { circuit } = d;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Isolate", to: "/isolate" }]}
        title={circuit ? `What is wrong with ${circuit.machine}?` : "Which machine?"}
      >
        {circuit
          ? "What its readings say is taken in by itself, and can be taken out again."
          : "Choose it, then what was noticed."}
      </PageHead>
      {!circuit ? (
        <Which {...d} />
      ) : (
        <Form method="post" noValidate className="max-w-4xl">
          <input type="hidden" name="submission" value={d.submission} />
          <input type="hidden" name="circuitId" value={circuit.id} />
          <input type="hidden" name="job" value={d.job} />
          <FormProblemsProvider problems={problems}>
            {problems?.symptom ? <Notice tone="verm">{problems.symptom}</Notice> : null}
            <div className="grid gap-x-8 md:grid-cols-3">
              {symptomGroups.map((g) => (
                <fieldset key={g.title} className="min-w-0">
                  <legend className="pt-3 pb-1 text-sm font-semibold text-ink-2">{g.title}</legend>
                  {g.ids.map((id) => (
                    <label key={id} className="ruled flex min-h-11 items-start gap-2.5 py-2">
                      <input
                        type="radio"
                        name="symptom"
                        value={id}
                        defaultChecked={d.symptom === id}
                        className="mt-1 size-4 shrink-0 accent-sea"
                      />
                      <span>
                        {symptoms[id].label}
                        <span className="block text-xs text-ink-2">{symptoms[id].seen}</span>
                      </span>
                    </label>
                  ))}
                </fieldset>
              ))}
            </div>
            <div className="mt-4 max-w-xl">
              <TextArea name="note" label="What else was noticed" maxLength={500} rows={2} />
            </div>
            <p className="mt-3">
              <Button>Find the next best test</Button>
            </p>
          </FormProblemsProvider>
        </Form>
      )}
    </>
  );
}
