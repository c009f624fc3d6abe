import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/practice";
import { lowerFirst, practiceLevels } from "@core";
import { beginPractice, practiceOf } from "~/domain/isolation/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

export const meta = () => [{ title: "Practice bench · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  runs: await practiceOf(user.id),
  submission: crypto.randomUUID(),
}));

export const action = guardAction("viewer", async ({ request, user }) => {
  const done = await beginPractice(await formFields(request), user);
  return done.ok ? redirect(`/isolate/practice/${done.id}`) : refused(done);
});

export default function Practice({ loaderData: { runs, submission }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead crumbs={[{ label: "Isolate", to: "/isolate" }]} title="Practice bench">
        A fault is hidden in a circuit. Take tests, name it, and see how it compares with the best path.
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
        <Section title="A new case">
          <Form method="post" noValidate className="max-w-md pt-2">
            <input type="hidden" name="submission" value={submission} />
            <FormProblemsProvider problems={problems}>
              <div className="grid gap-3">
                <SelectField
                  name="level"
                  label="Level"
                  options={Object.entries(practiceLevels).map(([value, l]) => ({
                    value,
                    label: `${l.label}: ${lowerFirst(l.says)}`,
                  }))}
                />
                <TextField
                  name="seed"
                  label="Number of the case"
                  inputMode="numeric"
                  hint="A class that types the same number gets the same fault. Empty: any."
                />
                <p>
                  <Button>Begin</Button>
                </p>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
        <Section title="Your cases" aside={runs.length > 0 ? "newest first" : undefined}>
          {runs.length === 0 ? (
            <Empty>None yet. What you did there is kept for you alone.</Empty>
          ) : (
            <ul>
              {runs.map((r) => (
                <li key={r.id} className="ruled flex items-baseline justify-between gap-3 py-2">
                  <span className="min-w-0">
                    <Link to={`/isolate/practice/${r.id}`} className="font-semibold hover:underline">
                      {r.symptom}
                    </Link>
                    <span className="block text-sm text-ink-2">
                      {`${r.level}, number ${r.seed}; ${r.tests} ${r.tests === 1 ? "test" : "tests"}; ${dayText(r.startedAt, site)}`}
                    </span>
                  </span>
                  <span className="whitespace-nowrap">{r.score === null ? "open" : `${r.score} of 100`}</span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
    </>
  );
}
