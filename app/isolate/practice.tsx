import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/practice";
import { lowerFirst, practiceLevels } from "@core";
import { beginPractice, practiceOf } from "~/domain/isolation/practice.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { practice as texts } from "./texts";

export const meta = () => [{ title: texts.practiceBenchJuncteral }];

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
      <PageHead crumbs={[{ label: texts.isolate, to: "/isolate" }]} title={texts.practiceBench}>
        {texts.aFaultIsHidden}
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
        <Section title={texts.aNewCase}>
          <Form method="post" noValidate className="max-w-md pt-2">
            <input type="hidden" name="submission" value={submission} />
            <FormProblemsProvider problems={problems}>
              <div className="grid gap-3">
                <SelectField
                  name="level"
                  label={texts.level}
                  options={Object.entries(practiceLevels).map(([value, l]) => ({
                    value,
                    label: `${l.label}: ${lowerFirst(l.says)}`,
                  }))}
                />
                <TextField name="seed" label={texts.numberOfTheCase} inputMode="numeric" hint={texts.aClassThatTypes} />
                <p>
                  <Button>{texts.begin}</Button>
                </p>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
        <Section title={texts.yourCases} aside={runs.length > 0 ? texts.newestFirst : undefined}>
          {runs.length === 0 ? (
            <Empty>{texts.noneYetWhatYou}</Empty>
          ) : (
            <ul>
              {runs.map((r) => (
                <li key={r.id} className="ruled flex items-baseline justify-between gap-3 py-2">
                  <span className="min-w-0">
                    <Link to={`/isolate/practice/${r.id}`} className="font-semibold hover:underline">
                      {r.symptom}
                    </Link>
                    <span className="block text-sm text-ink-2">
                      {texts.number(r.level, r.seed, r.tests, dayText(r.startedAt, site))}
                    </span>
                  </span>
                  <span className="whitespace-nowrap">{r.score === null ? texts.open : texts.of100(r.score)}</span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
    </>
  );
}
