import { Form, Link, redirect, useSearchParams } from "react-router";
import type { Route } from "./+types/practiceCase";
import { formatNumber, lowerFirst, moneyText } from "@core";
import { practiceName, practicePage, practiceTest } from "~/domain/isolation/practice.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { CircuitDiagram, type DiagramPoint } from "~/ui/circuit/diagram";
import { Button, FormProblemsProvider, Notice, SelectField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { practiceCase as texts } from "./texts";

export const meta = () => [{ title: texts.aCaseToPractise }];

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
    <Section title={texts.debrief} aside={texts.of100(over.score)}>
      <p className="pt-2">
        {texts.itWasWhatIt(
          <strong className="font-semibold">{over.truth}</strong>,
          over.right
            ? texts.youNamedIt
            : over.rightAct
              ? texts.youNamedAnotherCause(over.named)
              : texts.youNamed(over.named),
          over.act,
        )}
      </p>
      <p className="mt-1">
        {texts.yourWayTookMin(
          minutes,
          over.best.minutes,
          moneyText(over.cost, currency),
          moneyText(over.best.cost, currency),
        )}
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
        <p className="mt-1 text-ink-2">{texts.nothingUnsafeWasDone}</p>
      )}
      <h3 className="mt-4 text-sm text-ink-2">{texts.theBestPath}</h3>
      {over.best.tests.length === 0 ? (
        <p className="text-sm text-ink-2">{texts.theSymptomAloneWas}</p>
      ) : (
        <ol className="list-decimal pl-5 text-sm">
          {over.best.tests.map((t) => (
            <li key={t.text} className="py-0.5">
              {texts.min(t.text, <strong className="font-semibold">{t.result.toLowerCase()}</strong>, t.minutes)}
            </li>
          ))}
        </ol>
      )}
      <p className="mt-3">
        <Link to="/isolate/practice" className="act">
          {texts.anotherCase}
        </Link>
      </p>
    </Section>
  );
}

const riskText = { none: "", care: "", deadhead: texts.closesAnOutlet, opens: texts.opensTheCircuit } as const;

const NOTHING: ReadonlyMap<string, DiagramPoint> = new Map();

/** The circuit; a part that is pressed shows its tests alone. */
function Circuit({ page, at }: { page: Page; at: string }) {
  return (
    <Section title={texts.theCircuit} aside={page.over ? undefined : texts.pressAPartFor}>
      <CircuitDiagram
        netlist={page.netlist}
        drawing={page.drawing}
        points={NOTHING}
        label={texts.theCircuitOfThis}
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
    <Section title={name ? texts.testsAt(lowerFirst(name)) : texts.tests} aside={texts.minutesAndWhatHas}>
      {name ? (
        <p className="pt-2">
          <Link to="?" preventScrollReset className="act">
            {texts.allTests}
          </Link>
        </p>
      ) : null}
      <ul>
        {tests.map((t) => (
          <li key={t.id} className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1.5">
            <span className="min-w-0 [overflow-wrap:anywhere]">
              {t.text}
              <span className="block text-xs text-ink-2">
                {texts.minWhatItTakes(
                  t.minutes,
                  t.prepare === "nothing" ? "" : `; ${t.prepare}`,
                  riskText[t.risk] ? `; ${riskText[t.risk]}` : "",
                  t.outsideBook ? texts.notInMostManufacturers : "",
                )}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="test" value={t.id} />
              <Button tone="plain" aria-label={texts.make(t.text)}>
                {texts.makeIt}
              </Button>
            </Form>
          </li>
        ))}
        {renewal ? (
          <li className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1.5">
            <span className="min-w-0 [overflow-wrap:anywhere]">
              {texts.renewAndSee(lowerFirst(renewal.name))}
              <span className="block text-xs text-ink-2">
                {texts.minWithThePart(renewal.minutes, moneyText(renewal.cost, page.currency))}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="test" value={renewal.id} />
              <Button tone="plain">{texts.renewIt}</Button>
            </Form>
          </li>
        ) : null}
      </ul>
      {name && tests.length === 0 ? <Empty>{texts.noTestIsLeft}</Empty> : null}
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
          { label: texts.isolate, to: "/isolate" },
          { label: texts.practiceBench, to: "/isolate/practice" },
        ]}
        title={page.symptom.label}
      >
        {texts.number(page.symptom.seen, page.level.label, page.seed)}
      </PageHead>
      {problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <div>
          {page.over ? <Debrief over={page.over} minutes={page.minutes} currency={page.currency} /> : null}
          <Section title={texts.whatYouKnow} aside={texts.minInAll(page.minutes)}>
            {page.made.length === 0 ? (
              <Empty>{texts.theSymptomAndNo}</Empty>
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
                        {texts.theInstrumentTimesAs(formatNumber(m.times, 2))}
                      </span>
                    )}
                  </li>
                ))}
              </ol>
            )}
          </Section>
          {page.over ? null : (
            <Section title={texts.whatIsIt}>
              <Form method="post" noValidate className="max-w-md pt-2">
                <input type="hidden" name="intent" value="name" />
                <FormProblemsProvider problems={problems}>
                  <div className="grid gap-3">
                    <SelectField
                      name="named"
                      label={texts.theCause}
                      options={[
                        { value: "", label: texts.notYet },
                        ...page.suspects.map((s) => ({ value: s.id, label: s.text })),
                      ]}
                    />
                    <p>
                      <Button>{texts.nameItAndSee}</Button>
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
