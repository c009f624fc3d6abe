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
import { analyteLines } from "~/domain/assets/analyteLines";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { setCircuitOil, setComponentOil } from "~/domain/oil/settings.server";
import { settingsPage } from "~/domain/oil/settingsPage.server";
import { settings as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.targetAndMaterialsOf(loaderData?.page.machine ?? texts.aCircuit) },
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
        : ({ ok: false, status: 404, problems: { form: texts.thatPartIsNot } } as const);
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
          { label: texts.oil, to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: texts.targetAndMaterials },
        ]}
        title={texts.howCleanAndWhat(page.machine)}
      >
        {texts.theManufacturerFiguresCome(
          byParts ? texts.byItsPartsThe(byParts.text, byParts.because) : texts.noneOfItsComponents,
        )}
      </PageHead>
      <Section title={texts.theCircuit}>
        <Form method="post" noValidate className="mt-3 max-w-3xl">
          <input type="hidden" name="version" value={page.circuit.version} />
          <FormProblemsProvider problems={answer?.componentId === "" ? answer.problems : undefined}>
            <div className="grid gap-3 sm:grid-cols-4">
              <TextField
                name="targetCode"
                label={texts.targetSetByHand}
                placeholder={byParts?.text ?? "18/16/13"}
                defaultValue={page.circuit.targetCode}
                hint={texts.emptyByItsParts}
                maxLength={20}
              />
              <div className="sm:col-span-3">
                <TextField
                  name="targetReason"
                  label={texts.why}
                  defaultValue={page.circuit.targetReason}
                  hint={page.circuit.targetSetBy ? texts.setBy(page.circuit.targetSetBy) : undefined}
                  maxLength={300}
                />
              </div>
              <TextField name="volume" label={texts.oilInIt} suffix="L" defaultValue={text(page.circuit.volume)} />
              <TextField
                name="startTemperature"
                label={texts.coldestStart}
                suffix="°C"
                defaultValue={text(page.circuit.startTemperature)}
              />
              <TextField
                name="longestHours"
                label={texts.longestInterval}
                suffix="h"
                inputMode="decimal"
                defaultValue={text(page.circuit.longestHours)}
                hint={texts.runningHoursOfA}
              />
              <TextField
                name="longestMonths"
                label={texts.orIfSooner}
                suffix={texts.months}
                inputMode="decimal"
                defaultValue={text(page.circuit.longestMonths)}
                hint={texts.manufacturerOrThePlant}
              />
            </div>
            <div className="mt-3">
              <TextArea
                name="metalLimits"
                label={texts.limitsOfMetalsAnd}
                rows={3}
                placeholder={texts.iron40PpmSilicon}
                defaultValue={analyteLines(page.circuit.metalLimits)}
                hint={texts.emptyTheTypicalOnes}
                maxLength={500}
              />
            </div>
            <p className="mt-3">
              <Button>{texts.save}</Button>
            </p>
          </FormProblemsProvider>
        </Form>
      </Section>
      <Section title={texts.itsParts}>
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
                      {c.makersCode ? texts.manufacturerAsksFor(c.makersCode) : ""}
                      {c.materials.length ? `, ${c.materials.map((m) => m.metal).join(", ")}` : ""}
                      {c.filter ? texts.atM(c.filter.beta, c.filter.size) : ""}
                    </span>
                  </summary>
                  <Form method="post" noValidate className="mt-3 mb-2 max-w-3xl">
                    <input type="hidden" name="componentId" value={c.id} />
                    <input type="hidden" name="version" value={c.version} />
                    <FormProblemsProvider problems={problems}>
                      <div className="grid gap-3 sm:grid-cols-4">
                        <TextField
                          name="makersCode"
                          label={texts.manufacturerCleanlinessCode}
                          placeholder="17/15/12"
                          defaultValue={c.makersCode}
                          maxLength={20}
                        />
                        <div className="sm:col-span-3">
                          <TextField
                            name="symptomIfStuck"
                            label={texts.symptomWhenContaminationJams}
                            hint={texts.emptyAsUsualOf}
                            defaultValue={c.symptomIfStuck}
                            maxLength={300}
                          />
                        </div>
                        <div className="sm:col-span-4">
                          <TextArea
                            name="materials"
                            label={texts.materialsOneALine}
                            rows={3}
                            defaultValue={c.materials.map((m) => `${m.metal}: ${m.part}`).join("\n")}
                            hint={
                              usual.length
                                ? texts.emptyAsUsual(usual.map((m) => `${m.metal}: ${m.part}`).join("; "))
                                : undefined
                            }
                            maxLength={500}
                          />
                        </div>
                        <TextField
                          name="least"
                          label={texts.viscosityLeast}
                          suffix={texts.mm}
                          defaultValue={text(c.fluidNeed?.least)}
                          hint={texts.whenHottest}
                        />
                        <TextField
                          name="bestLow"
                          label={texts.bestFrom}
                          suffix={texts.mm}
                          defaultValue={text(c.fluidNeed?.bestLow)}
                        />
                        <TextField
                          name="bestHigh"
                          label={texts.bestTo}
                          suffix={texts.mm}
                          defaultValue={text(c.fluidNeed?.bestHigh)}
                        />
                        <TextField
                          name="greatestAtStart"
                          label={texts.greatestAtAStart}
                          suffix={texts.mm}
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
                            <TextField name="beta" label={texts.filtrationRatio} defaultValue={text(c.filter?.beta)} />
                            <TextField
                              name="size"
                              label={texts.statedAt}
                              suffix="µm"
                              defaultValue={text(c.filter?.size)}
                            />
                            <TextField
                              name="flow"
                              label={texts.usualFlow}
                              suffix={texts.lMin}
                              defaultValue={text(c.filter?.flow)}
                            />
                            <TextField
                              name="bypass"
                              label={texts.bypassOpensAt}
                              suffix="bar"
                              defaultValue={text(c.filter?.bypass)}
                            />
                            <div className="sm:col-span-2">
                              <TextField
                                name="element"
                                label={texts.element}
                                defaultValue={c.filter?.element ?? ""}
                                maxLength={100}
                              />
                            </div>
                          </>
                        ) : null}
                      </div>
                      <p className="mt-3">
                        <Button tone="plain">{texts.saveName(lowerFirst(c.name))}</Button>
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
