import { Form, redirect } from "react-router";
import type { Route } from "./+types/newSample";
import { analyteIds, analytes, quantityOf, type AnalyteGroup } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { fieldsOf } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { formOf } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { localInput } from "~/ui/site";
import { saveSample, laboratoryNames, circuitPlace } from "~/domain/oil/index.server";
import { placeOptions, sludgeOptions, stateOptions } from "~/domain/oil/index";

export const meta = () => [{ title: "Enter a sample · Juncteral" }];

export const loader = guard("technician", async ({ params, user }) => {
  const id = idParam(params);
  const [place, laboratories] = await Promise.all([circuitPlace(id), laboratoryNames()]);
  return {
    circuitId: id,
    machine: place.machine,
    circuit: place.circuit.name,
    timeZone: place.timeZone,
    now: now(),
    by: user.name,
    laboratories,
    submission: crypto.randomUUID(),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const form = await formOf(request);
  const photo = form.get("photo");
  const place = await circuitPlace(id);
  const done = await saveSample(
    id,
    fieldsOf(form),
    photo instanceof File && photo.size > 0 ? photo : null,
    user,
    place.timeZone,
  );
  return done.ok ? redirect(`/oil/${id}?said=sample`) : refused(done);
});

const groups: { group: AnalyteGroup; title: string; hint: string }[] = [
  {
    group: "count",
    title: "Particles over each size",
    hint: "Cumulative, as the laboratory counts them; or the code alone.",
  },
  { group: "condition", title: "Water, viscosity, acid", hint: "Water in ppm, or with % behind it." },
  { group: "wear", title: "Wear metals, ppm", hint: "Less than: write < 1." },
  { group: "contaminant", title: "Dirt from outside, ppm", hint: "" },
  { group: "additive", title: "Additives, ppm", hint: "" },
];

export default function NewSample({ loaderData: d, actionData }: Route.ComponentProps) {
  const wrong = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: d.machine, to: `/oil/${d.circuitId}` },
        ]}
        title={`Enter a sample of ${d.machine}`}
      >
        {`${d.circuit}. Leave empty what was not looked for.`}
      </PageHead>
      <Form method="post" encType="multipart/form-data" noValidate>
        <input type="hidden" name="submission" value={d.submission} />
        <FormProblemsProvider problems={wrong}>
          <Section title="The bottle">
            <div className="mt-3 grid gap-3 sm:grid-cols-3">
              <TextField name="number" label="Number on the bottle" maxLength={60} />
              <TextField
                name="takenAt"
                label="Taken at"
                type="datetime-local"
                defaultValue={localInput(d.now, d.timeZone)}
              />
              <div>
                <TextField name="hours" label="Machine hours" suffix="h" inputMode="decimal" />
                {wrong?.hours ? <CheckField name="hoursRight" label="They are right all the same" /> : null}
              </div>
              <SelectField name="place" label="Taken from" options={placeOptions} />
              <SelectField
                name="state"
                label="Taken"
                options={stateOptions}
                hint="From the drain, or cold, it is kept and not compared"
              />
              <TextField name="takenBy" label="Taken by" defaultValue={d.by} maxLength={100} />
            </div>
            <div className="mt-3">
              <Notice tone="ochre" live={false}>
                Oil under pressure pierces skin. Flush the sampling valve into a waste bottle first, wipe it, fill the
                clean bottle without touching its rim. Hot oil: gloves and eye protection.
              </Notice>
            </div>
          </Section>
          {groups.map(({ group, title, hint }) => (
            <Section key={group} title={title} aside={hint}>
              <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
                {group === "count" ? (
                  <>
                    <TextField name="code" label="ISO 4406 code" placeholder="18/16/13" maxLength={20} />
                    <SelectField
                      name="countsPer"
                      label="Counted per"
                      options={[
                        { value: "/mL", label: "mL" },
                        { value: "/100 mL", label: "100 mL" },
                      ]}
                    />
                  </>
                ) : null}
                {analyteIds
                  .filter((id) => analytes[id].group === group)
                  .map((id) => (
                    <TextField
                      key={id}
                      name={id}
                      label={analytes[id].label}
                      suffix={group === "count" ? "" : quantityOf(analytes[id].quantity).unit}
                      inputMode="text"
                      maxLength={30}
                    />
                  ))}
              </div>
            </Section>
          ))}
          <Section title="Seen, and who found it">
            <div className="mt-3 grid gap-3 sm:grid-cols-3">
              <TextField name="colour" label="Colour" placeholder="amber, clear" maxLength={100} />
              <SelectField name="sludge" label="Sludge" options={sludgeOptions} />
              <TextField
                name="laboratory"
                label="Laboratory"
                list="laboratories"
                defaultValue={d.laboratories[0] ?? ""}
                maxLength={100}
              />
              <div className="sm:col-span-2">
                <TextArea name="note" label="Remark" maxLength={1000} />
              </div>
              <div>
                <label htmlFor="f-photo" className="mb-0.5 block text-sm text-ink-2">
                  Photograph of the patch
                </label>
                <input
                  id="f-photo"
                  name="photo"
                  type="file"
                  accept="image/jpeg,image/png,image/webp"
                  aria-describedby="p-photo"
                  aria-invalid={wrong?.photo ? true : undefined}
                  className="block w-full border border-line-2 bg-sheet p-2 file:mr-3 file:border-0 file:bg-sea-soft file:px-2 file:py-1 file:text-ink"
                />
                <p id="p-photo" className="mt-1 text-sm font-medium text-verm">
                  {wrong?.photo}
                </p>
              </div>
            </div>
            <datalist id="laboratories">
              {d.laboratories.map((l) => (
                <option key={l} value={l} />
              ))}
            </datalist>
          </Section>
          <Button>Save the sample</Button>
        </FormProblemsProvider>
      </Form>
    </>
  );
}
