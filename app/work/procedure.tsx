import { Form, redirect } from "react-router";
import type { Route } from "./+types/procedure";
import { stepsOf } from "@core";
import { choices } from "~/domain/assets/index.server";
import { procedureText } from "~/domain/runs/index";
import { keepCopy, procedureBy, retireCopy } from "~/domain/runs/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { ConfirmButton } from "~/ui/confirm";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.procedure.title ?? "Procedure"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const procedure = await procedureBy(params.id ?? "");
  const mayEdit = mayAct(user.role, "engineer");
  const { machines = [] } = mayEdit ? await choices(["machines"]) : {};
  return { procedure, text: procedureText(procedure), mayEdit, machines, submission: crypto.randomUUID() };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const fields = await formFields(request);
  const id = params.id ?? "";
  const done = fields.intent === "retire" ? await retireCopy(id, user) : await keepCopy(id, fields, user);
  if (!done.ok) return refused(done);
  return redirect(fields.intent === "retire" ? "/work/procedures" : `/work/procedures/${done.id}`);
});

export default function Procedure({ loaderData, actionData }: Route.ComponentProps) {
  const { procedure, text, mayEdit, machines, submission } = loaderData;
  const holds = stepsOf(procedure).filter((s) => s.hold);
  const numbers = new Map(stepsOf(procedure).map((s, i) => [s.id, i + 1]));
  return (
    <div className="max-w-4xl">
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: "Procedures", to: "/work/procedures" },
          { label: procedure.title },
        ]}
        title={procedure.title}
      >
        {`${procedure.purpose} ${
          procedure.copyId
            ? `${procedure.machine ?? "The plant’s own"}, version ${procedure.version} by ${procedure.madeBy}.`
            : "As it ships: common practice; the manufacturer’s document goes first."
        } ${counted(stepsOf(procedure).length, "step")}, ${counted(holds.length, "hold point")}.`}
      </PageHead>
      <Notice tone="ochre" live={false}>
        <ul className="list-disc pl-4">
          {procedure.cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      </Notice>
      {procedure.renew.length > 0 ? (
        <p className="mb-3">
          <strong className="font-semibold">Always renewed:</strong> {procedure.renew.join(", ")}.
        </p>
      ) : null}
      {procedure.phases.map((phase) => (
        <Section key={phase.title} title={phase.title}>
          <ol>
            {phase.steps.map((s) => (
              <li key={s.id} className="ruled break-inside-avoid py-1.5">
                {numbers.get(s.id)}. {s.hold ? <strong className="text-verm">HOLD </strong> : null}
                {s.text}
                {s.hold ? (
                  <span className="block text-sm text-ink-2">{`Nobody goes on without it: ${s.hold}.`}</span>
                ) : null}
                {s.caution ? <span className="block text-sm text-ochre">{s.caution}</span> : null}
              </li>
            ))}
          </ol>
        </Section>
      ))}
      {procedure.notRecommended ? (
        <Notice tone="ochre" live={false}>
          {`Not recommended: ${procedure.notRecommended}`}
        </Notice>
      ) : null}
      {mayEdit ? (
        <Section title={procedure.copyId ? "Change it: a new version" : "Make it the plant’s own"}>
          <details className="mt-2" open={actionData?.problems !== undefined}>
            <summary className="way cursor-pointer">Edit the steps as text</summary>
            <Form method="post" noValidate className="mt-3">
              <FormProblemsProvider problems={actionData?.problems}>
                <input type="hidden" name="submission" value={submission} />
                <input type="hidden" name="version" value={procedure.version} />
                <div className="grid gap-4 sm:grid-cols-2">
                  <TextField name="title" label="Title" defaultValue={procedure.title} maxLength={100} />
                  <SelectField
                    name="machineId"
                    label="For"
                    defaultValue={procedure.machineId ?? ""}
                    options={[{ value: "", label: "all machines" }, ...machines]}
                  />
                </div>
                <div className="mt-3">
                  <TextArea
                    name="steps"
                    label="Steps"
                    rows={24}
                    defaultValue={text}
                    hint={
                      "# begins a part. ! marks a hold point, its reason after |. What stands in [ ] ties a line to what " +
                      "it asks for: leave it on lines that you only reword, leave it out on new ones. A new line may ask " +
                      "for something itself, at its end: => pressure: At the test port, => text: Serial, => torque."
                    }
                  />
                </div>
                <div className="mt-3">
                  <TextArea name="renew" label="Always renewed, one a line" defaultValue={procedure.renew.join("\n")} />
                </div>
                {actionData?.problems?.without ? (
                  <div className="mt-3">
                    <CheckField name="without" label="These hold points are left out on purpose" />
                  </div>
                ) : null}
                <p className="my-3 text-sm text-ink-2">
                  Work that is under way goes on with the version it began with, and records keep it.
                </p>
                <Button>{procedure.copyId ? "Keep as the next version" : "Keep as the plant’s own"}</Button>
              </FormProblemsProvider>
            </Form>
          </details>
          {procedure.copyId ? (
            <Form method="post" className="mt-4">
              <ConfirmButton
                intent="retire"
                label="Take it out of use"
                question="Take this copy out of use?"
                explain="The procedure as it ships is offered again. Records keep the version they were done with."
              />
            </Form>
          ) : null}
        </Section>
      ) : null}
    </div>
  );
}
