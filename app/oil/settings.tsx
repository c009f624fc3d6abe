import { Form, redirect } from "react-router";
import type { Route } from "./+types/settings";
import {
  circuitTarget,
  componentKinds,
  lowerFirst,
  fluidTypeIds,
  fluidTypes,
  usualMaterials,
  type ComponentKind,
} from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { analyteLines } from "~/domain/assets/index";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { setCircuitOil, setComponentOil, settingsPage } from "~/domain/oil/index.server";

const VISCOSITY_UNIT = "mm²/s";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Target and materials of ${loaderData?.page.machine ?? "a circuit"} · Juncteral` },
];

export const loader = guard("engineer", async ({ params, request }) => {
  const page = await settingsPage(idParam(params));
  return { page, circuitId: page.circuitId, open: new URL(request.url).searchParams.get("open") };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const component = fields.componentId ?? "";
  const page = await settingsPage(id);
  const known = page.components.some((c) => c.id === component);
  const done =
    component === ""
      ? await setCircuitOil(id, fields, user)
      : isUuid(component) && known
        ? await setComponentOil(component, fields, user)
        : ({ ok: false, because: "gone", problems: { form: "That part is not in this circuit." } } as const);
  return done.ok
    ? redirect(component ? `/oil/${id}/settings?open=${component}#${component}` : `/oil/${id}?said=settings`)
    : refused(done, { componentId: component });
});

const text = (value: number | null | undefined, unit = "") =>
  value === null || value === undefined ? "" : `${Number(value.toPrecision(6))}${unit && ` ${unit}`}`;

export default function OilSettings({ loaderData: { page, open }, actionData }: Route.ComponentProps) {
  const answer = actionData && "componentId" in actionData ? actionData : undefined;
  const byParts = circuitTarget(page.components, page.circuit.workingPressure, null);
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: "Target and materials" },
        ]}
        title={`How clean, and what is made of what: ${page.machine}`}
      >
        {byParts
          ? `By its parts the target is ${byParts.text}, decided by ${byParts.because}.`
          : "None of its components asks for a cleanliness of its own."}{" "}
        The manufacturer’s figures come before typical ones.
      </PageHead>
      <Section title="The circuit">
        <Form method="post" noValidate className="mt-3 max-w-3xl">
          <input type="hidden" name="version" value={page.circuit.version} />
          <FormProblemsProvider problems={answer?.componentId === "" ? answer.problems : undefined}>
            <div className="grid gap-3 sm:grid-cols-4">
              <TextField
                name="targetCode"
                label="Target set by hand"
                placeholder={byParts?.text ?? "18/16/13"}
                defaultValue={page.circuit.targetCode}
                hint="Empty: by its parts"
                maxLength={20}
              />
              <div className="sm:col-span-3">
                <TextField
                  name="targetReason"
                  label="Why"
                  defaultValue={page.circuit.targetReason}
                  hint={page.circuit.targetSetBy ? `Set by ${page.circuit.targetSetBy}` : undefined}
                  maxLength={300}
                />
              </div>
              <TextField name="volume" label="Oil in it" suffix="L" defaultValue={text(page.circuit.volume)} />
              <TextField
                name="startTemperature"
                label="Coldest start"
                suffix="°C"
                defaultValue={text(page.circuit.startTemperature)}
              />
              <TextField
                name="longestHours"
                label="Longest interval"
                suffix="h"
                inputMode="decimal"
                defaultValue={text(page.circuit.longestHours)}
                hint="Running hours of a fill"
              />
              <TextField
                name="longestMonths"
                label="or, if sooner"
                suffix="months"
                inputMode="decimal"
                defaultValue={text(page.circuit.longestMonths)}
                hint="Manufacturer’s or the plant’s"
              />
            </div>
            <div className="mt-3">
              <TextArea
                name="metalLimits"
                label="Limits of metals and dirt as read, one a line, where the laboratory or the manufacturer states its own"
                rows={3}
                placeholder={"iron: 40 ppm\nsilicon: 12 ppm"}
                defaultValue={analyteLines(page.circuit.metalLimits)}
                hint="Empty: the typical ones"
                maxLength={500}
              />
            </div>
            <p className="mt-3">
              <Button>Save</Button>
            </p>
          </FormProblemsProvider>
        </Form>
      </Section>
      <Section title="Its parts">
        <ul>
          {page.components.map((c) => {
            const problems = answer?.componentId === c.id ? answer.problems : undefined;
            const kind = componentKinds[c.kind as ComponentKind]?.label ?? c.kind;
            const usual = usualMaterials[c.kind as ComponentKind] ?? [];
            return (
              <li key={c.id} id={c.id} className="ruled py-2">
                <details open={problems || open === c.id ? true : undefined}>
                  <summary>
                    <strong className="font-semibold">{c.name}</strong>{" "}
                    <span className="text-sm text-ink-2">
                      {kind}
                      {c.makersCode ? `, manufacturer asks for ${c.makersCode}` : ""}
                      {c.materials.length ? `, ${c.materials.map((m) => m.metal).join(", ")}` : ""}
                      {c.filter ? `, β ${c.filter.beta} at ${c.filter.size} µm` : ""}
                    </span>
                  </summary>
                  <Form method="post" noValidate className="mt-3 mb-2 max-w-3xl">
                    <input type="hidden" name="componentId" value={c.id} />
                    <input type="hidden" name="version" value={c.version} />
                    <FormProblemsProvider problems={problems}>
                      <div className="grid gap-3 sm:grid-cols-4">
                        <TextField
                          name="makersCode"
                          label="Manufacturer’s cleanliness code"
                          placeholder="17/15/12"
                          defaultValue={c.makersCode}
                          maxLength={20}
                        />
                        <div className="sm:col-span-3">
                          <TextField
                            name="symptomIfStuck"
                            label="Symptom when contamination jams it"
                            hint="Empty: as usual of its kind"
                            defaultValue={c.symptomIfStuck}
                            maxLength={300}
                          />
                        </div>
                        <div className="sm:col-span-4">
                          <TextArea
                            name="materials"
                            label="Materials, one a line: metal: what is made of it"
                            rows={3}
                            defaultValue={c.materials.map((m) => `${m.metal}: ${m.part}`).join("\n")}
                            hint={
                              usual.length
                                ? `Empty: as usual, ${usual.map((m) => `${m.metal}: ${m.part}`).join("; ")}`
                                : undefined
                            }
                            maxLength={500}
                          />
                        </div>
                        <TextField
                          name="least"
                          label="Viscosity, least"
                          suffix={VISCOSITY_UNIT}
                          defaultValue={text(c.fluidNeed?.least)}
                          hint="When hottest"
                        />
                        <TextField
                          name="bestLow"
                          label="best from"
                          suffix={VISCOSITY_UNIT}
                          defaultValue={text(c.fluidNeed?.bestLow)}
                        />
                        <TextField
                          name="bestHigh"
                          label="best to"
                          suffix={VISCOSITY_UNIT}
                          defaultValue={text(c.fluidNeed?.bestHigh)}
                        />
                        <TextField
                          name="greatestAtStart"
                          label="greatest at a start"
                          suffix={VISCOSITY_UNIT}
                          defaultValue={text(c.fluidNeed?.greatestAtStart)}
                        />
                        <div className="flex flex-wrap gap-x-5 sm:col-span-4">
                          {fluidTypeIds.map((t) => (
                            <CheckField
                              key={t}
                              name={`type-${t}`}
                              label={fluidTypes[t]}
                              defaultChecked={c.fluidNeed?.types.includes(t) ?? false}
                            />
                          ))}
                        </div>
                        {c.kind === "filter" ? (
                          <>
                            <TextField name="beta" label="Filtration ratio β" defaultValue={text(c.filter?.beta)} />
                            <TextField name="size" label="stated at" suffix="µm" defaultValue={text(c.filter?.size)} />
                            <TextField
                              name="flow"
                              label="Usual flow"
                              suffix="L/min"
                              defaultValue={text(c.filter?.flow)}
                            />
                            <TextField
                              name="bypass"
                              label="Bypass opens at"
                              suffix="bar"
                              defaultValue={text(c.filter?.bypass)}
                            />
                            <div className="sm:col-span-2">
                              <TextField
                                name="element"
                                label="Element"
                                defaultValue={c.filter?.element ?? ""}
                                maxLength={100}
                              />
                            </div>
                          </>
                        ) : null}
                      </div>
                      <p className="mt-3">
                        <Button tone="plain">{`Save ${lowerFirst(c.name)}`}</Button>
                      </p>
                    </FormProblemsProvider>
                  </Form>
                </details>
              </li>
            );
          })}
        </ul>
      </Section>
    </>
  );
}
