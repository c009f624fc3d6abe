import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/begin";
import { machineTemplates, oilGrades, templateIds } from "@core";
import { machineFromTemplate, siteNames } from "~/domain/assets/template.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { useShow } from "~/ui/site";
import { PageHead, Section } from "~/ui/page";
import { begin as texts } from "./texts";

export const meta = () => [{ title: texts.aMachineFromA }];

export const loader = guard("engineer", async () => ({ sites: await siteNames() }));

export const action = guardAction("engineer", async ({ request, user }) => {
  const begun = await machineFromTemplate(await formFields(request), user, user.units);
  return begun.ok ? redirect(`/points/${begun.pointId}`) : refused(begun);
});

export default function Begin({ loaderData: { sites }, actionData }: Route.ComponentProps) {
  const [template, setTemplate] = useState<(typeof templateIds)[number]>(templateIds[0]!);
  const [typed, setTyped] = useState<{ displacement?: string; pressure?: string }>({});
  const [site] = sites;
  const show = useShow();
  const { usual } = machineTemplates[template];
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
              <TextField
                name="displacement"
                label={texts.pumpATurn}
                value={typed.displacement ?? show(usual.displacement, "displacement")}
                onChange={(e) => setTyped({ ...typed, displacement: e.target.value })}
              />
              <TextField name="speed" label={texts.speed} defaultValue={show(1450, "speed")} />
              <TextField
                name="pressure"
                label={texts.workingPressure}
                value={typed.pressure ?? show(usual.pressure, "loadPressure")}
                onChange={(e) => setTyped({ ...typed, pressure: e.target.value })}
              />
            </div>
            {actionData?.problems.pressure ? (
              <div className="mt-2">
                <CheckField name="pressureRight" label={texts.thePressureIsRight} />
              </div>
            ) : null}
          </Section>
          <Section title={texts.sinceWhen} className="mt-5">
            <p className="mt-1 text-ink-2">{texts.readingsOfEarlierYears}</p>
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField name="fittedOn" label={texts.fittedOn} type="date" hint={texts.emptyToday} />
              <TextField name="fittedHours" label={texts.hoursThen} hint={texts.forExample12400} />
            </div>
            <div className="mt-2">
              <CheckField name="knownWhenNew" label={texts.itWasNewThen} />
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
              <TextField name="area" label="Area" maxLength={100} hint="A hall or a line, where the site has several" />
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
