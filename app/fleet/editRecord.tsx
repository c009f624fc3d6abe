import { Form, redirect } from "react-router";
import type { Route } from "./+types/editRecord";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { PageHead } from "~/ui/page";
import { useShow } from "~/ui/site";
import { usualAt } from "~/domain/condition/index.server";
import { editRecord, afterEdit, choices, recordOf, presentLifeOf } from "~/domain/assets/index.server";
import { isRecordKind, recordSpecs } from "~/domain/assets/index";
import { LifeFields } from "./lifeFields";
import { RecordFields, fieldText } from "./recordFields";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Edit a ${params.kind} · Juncteral` }];

export const loader = guard("engineer", async ({ params, request, user }) => {
  if (!isRecordKind(params.kind)) throw notFound("kind of record");
  const spec = recordSpecs[params.kind];
  const record = await recordOf(params.kind, idParam(params));
  const usual = params.kind === "point" ? await usualAt(idParam(params)) : null;
  // the condition that it is usually read under, put into the form and saved by a person
  if (usual && new URL(request.url).searchParams.has("usual"))
    Object.assign(record, { referencePressure: usual.pressure, referenceTemperature: usual.temperature });
  return {
    kind: params.kind,
    name: String(record.name),
    version: record.version,
    usual,
    life: params.kind === "component" ? await presentLifeOf(idParam(params)) : null,
    retired: record.retiredAt !== null,
    values: Object.fromEntries(spec.fields.map((f) => [f.name, fieldText(f, record[f.name], user.units, record)])),
    choices: await choices(spec.fields.flatMap((f) => (f.from ? [f.from] : []))),
  };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  if (!isRecordKind(params.kind)) throw notFound("kind of record");
  const edited = await editRecord(params.kind, idParam(params), await formFields(request), user, user.units);
  if (!edited.ok) return refused(edited, { ...(edited.version !== undefined && { version: edited.version }) });
  return redirect(await afterEdit(params.kind, edited.id));
});

export default function EditRecord({ loaderData, actionData }: Route.ComponentProps) {
  const { kind, name, version, retired, values, choices, usual, life } = loaderData;
  const show = useShow();
  const theirs = actionData && "version" in actionData ? actionData.version : undefined;
  return (
    <div className="max-w-2xl">
      <PageHead
        crumbs={[{ label: kind === "stop" ? "Work" : "Fleet", to: kind === "stop" ? "/work" : "/fleet" }]}
        title={`${name}: edit the ${recordSpecs[kind].label}`}
      />
      {retired ? (
        <Notice tone="ochre" live={false}>
          Retired: its record stays. Bring it back to use it again.
        </Notice>
      ) : null}
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={theirs ?? version} />
        <FormProblemsProvider problems={actionData?.problems}>
          {usual ? (
            <p className="mb-3 text-ink-2">
              <>
                Usually read at{" "}
                {
                  <strong className="text-ink">
                    {show(usual.pressure, "loadPressure")}, {show(usual.temperature, "oilTemperature")}
                  </strong>
                }
                : a reference far from it carries the correction outside what it was learned on.
              </>
            </p>
          ) : null}
          <RecordFields kind={kind} values={values} choices={choices} />
          {kind === "component" && life ? <LifeFields life={life} /> : null}
          <div className="mt-5 flex flex-wrap justify-between gap-3">
            <Button>Save</Button>
            {retired ? (
              <Button name="intent" value="restore" tone="plain">
                Bring it back
              </Button>
            ) : (
              <ConfirmButton
                intent="retire"
                label={`Retire the ${recordSpecs[kind].label}`}
                question={`Retire ${name}?`}
                explain="It leaves Today, Fleet and the rounds. Its record stays, and you can bring it back."
              />
            )}
          </div>
        </FormProblemsProvider>
      </Form>
      <p className="mt-4 text-sm text-ink-2">Retiring hides it from Today, Fleet and rounds. Nothing is deleted.</p>
    </div>
  );
}
