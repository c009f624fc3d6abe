import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/begin";
import { machineTemplates, oilGrades, templateIds } from "@core";
import { machineFromTemplate, siteNames } from "~/domain/assets/template.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { begin as texts } from "./texts";

export const meta = () => [{ title: texts.aMachineFromA }];

export const loader = guard("engineer", async () => ({ sites: await siteNames() }));

export const action = guardAction("engineer", async ({ request, user }) => {
  const begun = await machineFromTemplate(await formFields(request), user);
  return begun.ok ? redirect(`/points/${begun.pointId}`) : refused(begun);
});

export default function Begin({ loaderData: { sites }, actionData }: Route.ComponentProps) {
  const [template, setTemplate] = useState<(typeof templateIds)[number]>(templateIds[0]!);
  const [site] = sites;
  return (
    <div className="max-w-3xl">
      <PageHead crumbs={[{ label: texts.fleet, to: "/fleet" }]} title={texts.aMachineFromATemplate}>
        {texts.circuitComponentsMeasuringPoints}
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <Section title={texts.whatItIsBuilt}>
            <fieldset className="mt-2 grid gap-x-6 sm:grid-cols-2">
              <legend className="sr-only">{texts.template}</legend>
              {templateIds.map((id) => (
                <label key={id} className="ruled flex min-h-11 items-start gap-3 py-2">
                  <input
                    type="radio"
                    name="template"
                    value={id}
                    checked={template === id}
                    onChange={() => setTemplate(id)}
                    className="mt-1 accent-[var(--sea)]"
                  />
                  <span>
                    <span className="block font-semibold">{machineTemplates[id].label}</span>
                    <span className="text-sm text-ink-2">{machineTemplates[id].says}</span>
                  </span>
                </label>
              ))}
            </fieldset>
          </Section>
          <Section title={texts.itsPlate} className="mt-5">
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField name="name" label={texts.machine} maxLength={100} placeholder={texts.forExampleAMachine} />
              <TextField name="tag" label={texts.tag} maxLength={40} placeholder={texts.forExampleATag} />
              <SelectField
                name="oil"
                label={texts.oil}
                defaultValue="VG 46"
                options={Object.keys(oilGrades).map((value) => ({ value, label: texts.mineralOil(value) }))}
              />
              <TextField name="displacement" label={texts.pumpCmATurn} defaultValue="28" inputMode="decimal" />
              <TextField name="speed" label={texts.speedRMin} defaultValue="1450" inputMode="decimal" />
              <TextField name="pressure" label={texts.workingPressureBar} defaultValue="180" inputMode="decimal" />
            </div>
          </Section>
          <Section title={texts.whereItStands} className="mt-5">
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField
                name="site"
                label={texts.site}
                defaultValue={site?.name ?? ""}
                list="sites"
                hint={sites.length === 0 ? texts.itIsAddedWith : texts.oneThatIsThere}
              />
              <TextField name="timeZone" label={texts.timeZone} defaultValue={site?.timeZone ?? "Europe/London"} />
              <datalist id="sites">
                {sites.map((s) => (
                  <option key={s.name} value={s.name} />
                ))}
              </datalist>
            </div>
          </Section>
          <div className="mt-6">
            <Button>{texts.addTheMachineAnd}</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
