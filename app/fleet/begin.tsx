import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/begin";
import { machineTemplates, oilGrades, templateIds } from "@core";
import { machineFromTemplate, siteNames } from "~/domain/assets/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { useShow } from "~/ui/site";
import { PageHead, Section } from "~/ui/page";

export const meta = () => [{ title: "A machine from a template · Juncteral" }];

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
      <PageHead crumbs={[{ label: "Fleet", to: "/fleet" }]} title="A machine from a template">
        Circuit, components, measuring points with usual limits, oil and a round, ready to be read. Every limit is a
        rule of thumb until you set the manufacturer’s.
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <Section title="What it is built like">
            <fieldset className="mt-2 grid gap-x-6 sm:grid-cols-2">
              <legend className="sr-only">Template</legend>
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
          <Section title="Its plate" className="mt-5">
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField name="name" label="Machine" maxLength={100} placeholder="For example Baler 2" />
              <TextField name="tag" label="Tag" maxLength={40} placeholder="BL-2" />
              <SelectField
                name="oil"
                label="Oil"
                defaultValue="VG 46"
                options={Object.keys(oilGrades).map((value) => ({ value, label: `Mineral oil ${value}` }))}
              />
              <TextField
                name="displacement"
                label="Pump, a turn"
                value={typed.displacement ?? show(usual.displacement, "displacement")}
                onChange={(e) => setTyped({ ...typed, displacement: e.target.value })}
              />
              <TextField name="speed" label="Speed" defaultValue={show(1450, "speed")} />
              <TextField
                name="pressure"
                label="Working pressure"
                value={typed.pressure ?? show(usual.pressure, "loadPressure")}
                onChange={(e) => setTyped({ ...typed, pressure: e.target.value })}
              />
            </div>
            {actionData?.problems.pressure ? (
              <div className="mt-2">
                <CheckField name="pressureRight" label="The pressure is right" />
              </div>
            ) : null}
          </Section>
          <Section title="Since when" className="mt-5">
            <p className="mt-1 text-ink-2">
              Readings of earlier years come in only where the parts were fitted by then. One line for all parts; each
              can be put right later.
            </p>
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField name="fittedOn" label="Parts fitted on" type="date" hint="Empty: today" />
              <TextField name="fittedHours" label="Machine hours then" hint="For example 12400" />
            </div>
            <div className="mt-2">
              <CheckField name="knownWhenNew" label="They were new, or of known condition, then" />
            </div>
          </Section>
          <Section title="Where it stands" className="mt-5">
            <div className="mt-3 grid gap-4 sm:grid-cols-3">
              <TextField
                name="site"
                label="Site"
                defaultValue={site?.name ?? ""}
                list="sites"
                hint={sites.length === 0 ? "It is added with the machine" : "One that is there, or a new one"}
              />
              <TextField name="timeZone" label="Time zone" defaultValue={site?.timeZone ?? "Europe/London"} />
              <TextField name="area" label="Area" maxLength={100} hint="A hall or a line, where the site has several" />
              <datalist id="sites">
                {sites.map((s) => (
                  <option key={s.name} value={s.name} />
                ))}
              </datalist>
            </div>
          </Section>
          <div className="mt-6">
            <Button>Add the machine and read it</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
