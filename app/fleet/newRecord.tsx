import { Form, redirect } from "react-router";
import type { Route } from "./+types/newRecord";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { addRecord, afterEdit, choices } from "~/domain/assets/index.server";
import { isRecordKind, recordSpecs } from "~/domain/assets/index";
import { RecordFields } from "./recordFields";
import { LifeFields } from "./lifeFields";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Add a ${params.kind} · Juncteral` }];

export const loader = guard("engineer", async ({ params, request }) => {
  if (!isRecordKind(params.kind)) throw notFound("kind of record");
  const spec = recordSpecs[params.kind];
  const defaults: Record<string, string> = {
    hoursPerDay: "8",
    position: "0",
    runInHours: "50",
    intervalDays: "30",
    dutyDeviation: "0.15",
    days: "1",
    crewHours: "24",
    electricianHours: "0",
    sparesOnHand: "0",
    density15: "870",
    timeZone: "Europe/London",
  };
  for (const [name, value] of new URL(request.url).searchParams)
    if (spec.fields.some((f) => f.name === name)) defaults[name] = value.slice(0, 100);
  return { kind: params.kind, defaults, choices: await choices(spec.fields.flatMap((f) => (f.from ? [f.from] : []))) };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  if (!isRecordKind(params.kind)) throw notFound("kind of record");
  const added = await addRecord(params.kind, await formFields(request), user, user.units);
  if (!added.ok) return refused(added);
  return redirect(await afterEdit(params.kind, added.id));
});

export default function NewRecord({ loaderData: { kind, defaults, choices }, actionData }: Route.ComponentProps) {
  return (
    <div className="max-w-2xl">
      <PageHead
        crumbs={[{ label: kind === "stop" ? "Work" : "Fleet", to: kind === "stop" ? "/work" : "/fleet" }]}
        title={`Add a ${recordSpecs[kind].label}`}
      />
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <RecordFields kind={kind} values={defaults} choices={choices} />
          {kind === "component" ? <LifeFields /> : null}
          <div className="mt-5">
            <Button>{`Add the ${recordSpecs[kind].label}`}</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
