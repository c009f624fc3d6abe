import { actorNamed } from "~/domain/access/testActor";
import { useMemo, useState } from "react";
import { Form, Link, data as answerWith, redirect, useNavigate } from "react-router";
import type { Route } from "./+types/test";
import { plantCheck, checkOf, runCalculator, type TesterSample } from "@core";
import { factsOf } from "~/domain/assets/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { GivenFields, OutcomeView } from "~/ui/calculation";
import { ComponentPicker } from "~/ui/componentPicker";
import { Button, Notice, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { typedFrom, type Typed } from "~/ui/typed";
import { Verdict } from "~/ui/verdict";
import { noteChange, recordTest, componentPlace, lastRecord, openChanges, testOf } from "~/domain/checks/index.server";
import { LivePanel } from "./live";
import { testerKnown } from "~/platform/tester.server";
import { TimeLimit } from "./timer";

export const meta: Route.MetaFunction = ({ loaderData }) => [{ title: `${loaderData?.title ?? "Test"} · Juncteral` }];

export const loader = guard("viewer", async ({ params, request, user }) => {
  const { check, plant } = await testOf(params.test ?? "");
  const id = new URL(request.url).searchParams.get("component");
  const place = isUuid(id) ? await componentPlace(id) : null;
  const [facts, last, changes] = place
    ? await Promise.all([factsOf(place.id), lastRecord(place.id, check.id), openChanges(place.machineId)])
    : [null, null, []];
  return {
    id: check.id,
    title: check.title,
    plant,
    place,
    facts: facts?.facts ?? {},
    last,
    changes,
    mayRecord: mayAct(user.role, "technician"),
    live: check.id === "load-test" && testerKnown(),
    submission: crypto.randomUUID(),
    noteSubmission: crypto.randomUUID(),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const { check } = await testOf(params.test ?? "");
  const id = new URL(request.url).searchParams.get("component");
  if (!isUuid(id)) return answerWith({ problems: { form: "Choose the component first." } }, { status: 422 });
  const place = await componentPlace(id);
  const fields = await formFields(request);
  if (fields.intent === "alter") {
    const noted = await noteChange(place, fields, actorNamed(user.name));
    return noted.ok ? redirect(`/tests/${check.id}?component=${place.id}`) : refused(noted);
  }
  const recorded = await recordTest(check, place, fields, actorNamed(user.name), user.units);
  return recorded.ok ? redirect(`/tests/records/${recorded.id}`) : refused(recorded);
});

export default function TestPage({ loaderData, actionData }: Route.ComponentProps) {
  // another component: another test, with the facts of that one
  return (
    <TestScreen
      key={`${loaderData.id} ${loaderData.place?.id ?? ""}`}
      loaderData={loaderData}
      actionData={actionData}
    />
  );
}

function TestScreen({ loaderData, actionData }: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const { id, plant, place, facts, last, changes, mayRecord, live, submission, noteSubmission } = loaderData;
  const check = useMemo(() => (plant ? plantCheck(id, plant) : checkOf(id)!), [plant, id]);
  const site = useSite();
  const navigate = useNavigate();
  const { calculation } = check;
  // only what the fleet knows stands there at first: nothing is measured yet
  const [typed, setTyped] = useState<Typed>(() =>
    typedFrom(calculation, new URLSearchParams(), facts, site.units, { example: false }),
  );
  const [ready, setReady] = useState<readonly number[]>([]);
  const result = useMemo(() => runCalculator(calculation, typed, site.units), [calculation, typed, site.units]);
  const allReady = ready.length === check.before.length;
  const told = result.ok
    ? {}
    : Object.fromEntries(
        Object.entries(result.problems).filter(([k]) => k === "form" || (typed[k] ?? "").trim() !== ""),
      );
  const line = (label: string | undefined) =>
    result.ok ? result.outcome.working.rows.find((r) => r.label === label)?.value : undefined;
  const [reached, bound] = [line(check.breakOff?.row), line(check.breakOff?.above)];
  const set = (name: string, value: string) => setTyped((t) => ({ ...t, [name]: value }));
  const addStep = (s: TesterSample) =>
    setTyped((t) => ({
      ...t,
      steps:
        `${(t.steps ?? "").trim()}\n${s.pressure.toFixed(1)}bar ${s.flow.toFixed(2)}L/min ${s.temperature.toFixed(1)}°C ${s.speed.toFixed(0)}r/min`.trim(),
    }));
  const problems: Record<string, string> | undefined = actionData?.problems;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Rounds", to: "/rounds" },
          { label: "Tests", to: "/tests" },
          { label: check.title },
          ...(place ? [{ label: `${place.machine}, ${place.name}`, to: `/fleet/machines/${place.machineId}` }] : []),
        ]}
        title={calculation.asks}
      />
      <Notice tone="ochre" live={false}>
        {check.caution}
      </Notice>
      {place === null ? (
        <div className="max-w-md">
          <p className="mb-2">On which component?</p>
          <ComponentPicker
            label="Component to test"
            placeholder="Machine or component"
            onPick={(c) => void navigate(`/tests/${id}?component=${c}`)}
          />
        </div>
      ) : (
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[320px_minmax(0,1fr)]">
          <div>
            <Section
              title="Before it starts"
              aside={allReady ? "all true" : `${ready.length} of ${check.before.length}`}
            >
              {check.before.map((b, i) => (
                <label key={b} className="ruled flex min-h-11 items-center gap-3 py-1">
                  <input
                    type="checkbox"
                    className="size-5 shrink-0 accent-sea"
                    checked={ready.includes(i)}
                    onChange={(e) => setReady((r) => (e.target.checked ? [...r, i] : r.filter((x) => x !== i)))}
                  />
                  <span>{b}</span>
                </label>
              ))}
            </Section>
            <Section title="How it is done">
              <p className="py-2 text-sm">
                <strong>The manufacturer's way first.</strong> {check.makersWay}
              </p>
              {check.notRecommended ? (
                <p className="border-l-2 border-verm pb-1 pl-2 text-sm text-verm">
                  {`Not recommended: ${check.notRecommended}`}
                </p>
              ) : null}
              <ol className="ml-4 list-decimal text-sm">
                {check.steps.map((s) => (
                  <li key={s} className="py-1">
                    {s}
                  </li>
                ))}
              </ol>
            </Section>
            {mayRecord ? (
              <Section title="Altered for it" aside={changes.length > 0 ? `${changes.length} not put back` : "nothing"}>
                {changes.map((c) => (
                  <p key={c.id} className="py-1 text-sm text-ochre">
                    {c.what}
                    {c.before ? ` (was ${c.before})` : ""}, {c.by}
                  </p>
                ))}
                <Form method="post" key={noteSubmission} className="mt-2 grid gap-2">
                  <input type="hidden" name="intent" value="alter" />
                  <input type="hidden" name="submission" value={noteSubmission} />
                  <TextField name="altered" label="What is altered" list="alters" maxLength={200} />
                  <datalist id="alters">
                    {check.alters.map((a) => (
                      <option key={a} value={a} />
                    ))}
                  </datalist>
                  <TextField
                    name="asItStood"
                    label="As it stood before"
                    placeholder="210 bar, three threads showing"
                    maxLength={200}
                  />
                  {problems?.altered ? <p className="text-sm font-medium text-verm">{problems.altered}</p> : null}
                  <Button tone="plain">Note it before altering it</Button>
                </Form>
              </Section>
            ) : null}
          </div>
          <div className="min-w-0">
            {!allReady ? (
              <p className="border-l-4 border-line-2 pl-4 text-ink-2">Tick what must be true; then the test opens.</p>
            ) : (
              <>
                {check.timeLimit ? (
                  <TimeLimit
                    {...check.timeLimit}
                    breakOff={reached !== undefined && bound !== undefined && reached > bound}
                  />
                ) : null}
                {live ? (
                  <LivePanel
                    onStep={addStep}
                    onClear={() => set("steps", "")}
                    steps={(typed.steps ?? "").split("\n").filter(Boolean).length}
                  />
                ) : null}
                <OutcomeView title={check.title} outcome={result.ok ? result.outcome : null} />
                {last ? (
                  <p className="mb-3 text-sm text-ink-2">
                    {`Last time, ${momentText(last.at, site)}, ${last.by}:`} <Verdict parts={last.answer} />{" "}
                    <Link to={`/tests/records/${last.id}`} className="way">
                      Look
                    </Link>
                  </p>
                ) : (
                  <p className="mb-3 text-sm text-ink-2">Never made on this component before.</p>
                )}
                <Form method="post" noValidate className="max-w-xl">
                  <input type="hidden" name="submission" value={submission} />
                  <GivenFields
                    fields={calculation.fields}
                    typed={typed}
                    examples
                    problems={problems ?? told}
                    onChange={set}
                  />
                  {mayRecord ? (
                    <div className="mt-3 grid gap-3">
                      <TextArea name="note" label="Note" rows={2} maxLength={1000} />
                      <Button>Keep this test</Button>
                    </div>
                  ) : null}
                </Form>
              </>
            )}
          </div>
        </div>
      )}
    </>
  );
}
