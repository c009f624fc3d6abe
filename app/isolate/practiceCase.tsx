import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/practiceCase";
import { formatNumber } from "@core";
import { practiceName, practicePage, practiceTest } from "~/domain/isolation/practice.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, SelectField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";

export const meta = () => [{ title: "A case to practise on · Juncteral" }];

export const loader = guard("viewer", async ({ params, user }) => practicePage(idParam(params), user.id));

export const action = guardAction("viewer", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const done =
    fields.intent === "name"
      ? await practiceName(id, fields.named ?? "", user)
      : await practiceTest(id, fields.test ?? "", user);
  return done.ok ? redirect(`/isolate/practice/${id}`) : refused(done);
});

type Page = Route.ComponentProps["loaderData"];

function Debrief({ over, minutes }: { over: NonNullable<Page["over"]>; minutes: number }) {
  return (
    <Section title="Debrief" aside={`${over.score} of 100`}>
      <p className="pt-2">
        It was <strong className="font-semibold">{over.truth}</strong>.{" "}
        {over.right
          ? "You named it."
          : over.rightAct
            ? `You named ${over.named}: another cause, the same thing to do.`
            : `You named ${over.named}.`}{" "}
        What it asks for: {over.act}.
      </p>
      <p className="mt-1">
        Your tests took {minutes} min, the best path {over.best.minutes} min.
      </p>
      {over.unsafe.length > 0 ? (
        <ul className="mt-2">
          {over.unsafe.map((u) => (
            <li key={u} className="text-verm">
              {u}.
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-1 text-ink-2">Nothing unsafe was done.</p>
      )}
      <h3 className="mt-4 text-sm text-ink-2">The best path</h3>
      {over.best.tests.length === 0 ? (
        <p className="text-sm text-ink-2">The symptom alone was enough.</p>
      ) : (
        <ol className="list-decimal pl-5 text-sm">
          {over.best.tests.map((t) => (
            <li key={t.text} className="py-0.5">
              {t.text} <strong className="font-semibold">{t.result.toLowerCase()}</strong>, {t.minutes} min
            </li>
          ))}
        </ol>
      )}
      <p className="mt-3">
        <Link to="/isolate/practice" className="act">
          Another case
        </Link>
      </p>
    </Section>
  );
}

const riskText = { none: "", care: "", deadhead: "closes an outlet", opens: "opens the circuit" } as const;

export default function PracticeCase({ loaderData: page, actionData }: Route.ComponentProps) {
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Isolate", to: "/isolate" },
          { label: "Practice bench", to: "/isolate/practice" },
        ]}
        title={page.symptom.label}
      >
        {page.symptom.seen} {page.level.label}, number {page.seed}. The circuit: {page.parts.join(", ").toLowerCase()}.
      </PageHead>
      {problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
        <div>
          {page.over ? <Debrief over={page.over} minutes={page.minutes} /> : null}
          <Section title="What you know" aside={`${page.minutes} min`}>
            {page.made.length === 0 ? (
              <Empty>The symptom, and no test yet.</Empty>
            ) : (
              <ol>
                {page.made.map((m) => (
                  <li key={m.id} className="ruled py-2">
                    {m.text}
                    {m.text.endsWith("?") ? " " : ": "}
                    <strong className="font-semibold">{m.result.toLowerCase()}</strong>
                    {m.times === null ? null : (
                      <span className="text-sm text-ink-2">
                        {" "}
                        (the instrument: {formatNumber(m.times, 2)} times as usual)
                      </span>
                    )}
                  </li>
                ))}
              </ol>
            )}
          </Section>
          {page.over ? null : (
            <Section title="What is it?">
              <Form method="post" noValidate className="max-w-md pt-2">
                <input type="hidden" name="intent" value="name" />
                <FormProblemsProvider problems={problems}>
                  <div className="grid gap-3">
                    <SelectField
                      name="named"
                      label="The cause"
                      options={[
                        { value: "", label: "not yet" },
                        ...page.suspects.map((s) => ({ value: s.id, label: s.text })),
                      ]}
                    />
                    <p>
                      <Button>Name it and see the debrief</Button>
                    </p>
                  </div>
                </FormProblemsProvider>
              </Form>
            </Section>
          )}
        </div>
        {page.over ? null : (
          <Section title="Tests" aside="minutes, and what has to be ready">
            <ul>
              {page.tests.map((t) => (
                <li key={t.id} className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1.5">
                  <span className="min-w-0 [overflow-wrap:anywhere]">
                    {t.text}
                    <span className="block text-xs text-ink-2">
                      {t.minutes} min{t.prepare === "nothing" ? "" : `; ${t.prepare}`}
                      {riskText[t.risk] ? `; ${riskText[t.risk]}` : ""}
                      {t.outsideBook ? "; not in most manufacturers' books" : ""}
                    </span>
                  </span>
                  <Form method="post" preventScrollReset>
                    <input type="hidden" name="test" value={t.id} />
                    <Button tone="plain" aria-label={`Make: ${t.text}`}>
                      Make it
                    </Button>
                  </Form>
                </li>
              ))}
            </ul>
          </Section>
        )}
      </div>
    </>
  );
}
