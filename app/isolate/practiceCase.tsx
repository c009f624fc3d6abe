import { Form, Link, redirect, useSearchParams } from "react-router";
import type { Route } from "./+types/practiceCase";
import { formatNumber, lowerFirst, moneyText } from "@core";
import { practiceName, practicePage, practiceTest } from "~/domain/isolation/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { CircuitDiagram } from "~/ui/circuit/diagram";
import type { DiagramPoint } from "~/ui/circuit/gaugeText";
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
  return done.ok ? redirect(`/isolate/practice/${id}${new URL(request.url).search}`) : refused(done);
});

type Page = Route.ComponentProps["loaderData"];

function Debrief({ over, minutes, currency }: { over: NonNullable<Page["over"]>; minutes: number; currency: string }) {
  return (
    <Section title="Debrief" aside={`${over.score} of 100`}>
      <p className="pt-2">
        <>
          It was {<strong className="font-semibold">{over.truth}</strong>}.{" "}
          {over.right
            ? "You named it."
            : over.rightAct
              ? `You named ${over.named}: another cause, the same thing to do.`
              : `You named ${over.named}.`}{" "}
          What it asks for: {over.act}.
        </>
      </p>
      <p className="mt-1">
        {`Your way took ${minutes} min, the best path ${over.best.minutes} min. With the cure it cost ${moneyText(over.cost, currency)}, the ` +
          `best path ${moneyText(over.best.cost, currency)} (usual figures).`}
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
              <>
                {t.text} {<strong className="font-semibold">{t.result.toLowerCase()}</strong>}, {t.minutes} min
              </>
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

const NOTHING: ReadonlyMap<string, DiagramPoint> = new Map();

/** The circuit; a part that is pressed shows its tests alone. */
function Circuit({ page, at }: { page: Page; at: string }) {
  return (
    <Section title="The circuit" aside={page.over ? undefined : "press a part for its tests"}>
      <CircuitDiagram
        netlist={page.netlist}
        drawing={page.drawing}
        points={NOTHING}
        label="The circuit of this case"
        ways={page.over ? undefined : { to: (element) => (element === at ? "?" : `?at=${element}`), chosen: at }}
      />
    </Section>
  );
}

/** Tests of the part that was pressed, or all of them; and the part itself, renewed on a guess. */
function Tests({ page, at }: { page: Page; at: string }) {
  const name = page.netlist.elements.find((e) => e.id === at)?.name;
  const tests = name ? page.tests.filter((t) => t.element === at) : page.tests;
  const renewal = page.renewals.find((r) => r.element === at);
  return (
    <Section title={name ? `Tests at ${lowerFirst(name)}` : "Tests"} aside="minutes, and what has to be ready">
      {name ? (
        <p className="pt-2">
          <Link to="?" preventScrollReset className="act">
            All tests
          </Link>
        </p>
      ) : null}
      <ul>
        {tests.map((t) => (
          <li key={t.id} className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1.5">
            <span className="min-w-0 [overflow-wrap:anywhere]">
              {t.text}
              <span className="block text-xs text-ink-2">
                {`${t.minutes} min${t.prepare === "nothing" ? "" : `; ${t.prepare}`}${riskText[t.risk] ? `; ${riskText[t.risk]}` : ""}` +
                  `${t.outsideBook ? "; not in most manufacturers' books" : ""}`}
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
        {renewal ? (
          <li className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1.5">
            <span className="min-w-0 [overflow-wrap:anywhere]">
              {`Renew ${lowerFirst(renewal.name)} and see`}
              <span className="block text-xs text-ink-2">
                {`${renewal.minutes} min, ${moneyText(renewal.cost, page.currency)} with the part; opens the circuit`}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="test" value={renewal.id} />
              <Button tone="plain">Renew it</Button>
            </Form>
          </li>
        ) : null}
      </ul>
      {name && tests.length === 0 ? <Empty>No test is left at this part.</Empty> : null}
    </Section>
  );
}

export default function PracticeCase({ loaderData: page, actionData }: Route.ComponentProps) {
  const at = useSearchParams()[0].get("at") ?? "";
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
        {`${page.symptom.seen} ${page.level.label}, number ${page.seed}.`}
      </PageHead>
      {problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <div>
          {page.over ? <Debrief over={page.over} minutes={page.minutes} currency={page.currency} /> : null}
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
                        {`(the instrument: ${formatNumber(m.times, 2)} times as usual)`}
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
        <div>
          <Circuit page={page} at={at} />
          {page.over ? null : <Tests page={page} at={at} />}
        </div>
      </div>
    </>
  );
}
