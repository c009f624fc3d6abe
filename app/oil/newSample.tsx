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
import { saveSample } from "~/domain/oil/samples.server";
import { placeOptions, sludgeOptions, stateOptions } from "~/domain/oil/form";
import { laboratoryNames } from "~/domain/oil/labFile/import.server";
import { circuitPlace } from "~/domain/oil/place.server";
import { newSample as texts } from "./texts";

export const meta = () => [{ title: texts.enterASampleJuncteral }];

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
    title: texts.particlesOverEachSize,
    hint: texts.cumulativeAsTheLaboratory,
  },
  { group: "condition", title: texts.waterViscosityAcid, hint: texts.waterInPpmOr },
  { group: "wear", title: texts.wearMetalsPpm, hint: texts.lessThanWrite1 },
  { group: "contaminant", title: texts.dirtFromOutsidePpm, hint: "" },
  { group: "additive", title: texts.additivesPpm, hint: "" },
];

export default function NewSample({ loaderData: d, actionData }: Route.ComponentProps) {
  const wrong = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: texts.oil, to: "/oil" },
          { label: d.machine, to: `/oil/${d.circuitId}` },
        ]}
        title={texts.enterASampleOf(d.machine)}
      >
        {texts.leaveEmptyWhatWas(d.circuit)}
      </PageHead>
      <Form method="post" encType="multipart/form-data" noValidate>
        <input type="hidden" name="submission" value={d.submission} />
        <FormProblemsProvider problems={wrong}>
          <Section title={texts.theBottle}>
            <div className="mt-3 grid gap-3 sm:grid-cols-3">
              <TextField name="number" label={texts.numberOnTheBottle} maxLength={60} />
              <TextField
                name="takenAt"
                label={texts.takenAt}
                type="datetime-local"
                defaultValue={localInput(d.now, d.timeZone)}
              />
              <div>
                <TextField name="hours" label={texts.machineHours} suffix="h" inputMode="decimal" />
                {wrong?.hours ? <CheckField name="hoursRight" label={texts.theyAreRightAll} /> : null}
              </div>
              <SelectField name="place" label={texts.takenFrom} options={placeOptions} />
              <SelectField name="state" label={texts.taken} options={stateOptions} hint={texts.fromTheDrainOr} />
              <TextField name="takenBy" label={texts.takenBy} defaultValue={d.by} maxLength={100} />
            </div>
            <div className="mt-3">
              <Notice tone="ochre" live={false}>
                {texts.oilUnderPressurePierces}
              </Notice>
            </div>
          </Section>
          {groups.map(({ group, title, hint }) => (
            <Section key={group} title={title} aside={hint}>
              <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
                {group === "count" ? (
                  <>
                    <TextField name="code" label={texts.iso4406Code} placeholder="18/16/13" maxLength={20} />
                    <SelectField
                      name="countsPer"
                      label={texts.countedPer}
                      options={[
                        { value: "/mL", label: texts.ml },
                        { value: "/100 mL", label: texts.n100Ml },
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
          <Section title={texts.seenAndWhoFound}>
            <div className="mt-3 grid gap-3 sm:grid-cols-3">
              <TextField name="colour" label={texts.colour} placeholder={texts.amberClear} maxLength={100} />
              <SelectField name="sludge" label={texts.sludge} options={sludgeOptions} />
              <TextField
                name="laboratory"
                label={texts.laboratory}
                list="laboratories"
                defaultValue={d.laboratories[0] ?? ""}
                maxLength={100}
              />
              <div className="sm:col-span-2">
                <TextArea name="note" label={texts.remark} maxLength={1000} />
              </div>
              <div>
                <label htmlFor="f-photo" className="mb-0.5 block text-sm text-ink-2">
                  {texts.photographOfThePatch}
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
          <Button>{texts.saveTheSample}</Button>
        </FormProblemsProvider>
      </Form>
    </>
  );
}
