import { useMemo } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/sample";
import { analyteIds, analytes, incomparable, overTarget, sampleCodes, samplePlaces, sampleStates } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { calculatorChart } from "~/ui/charts/calculation";
import { ChartCanvas } from "~/ui/charts/canvas";
import { FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { PageHead, Section } from "~/ui/page";
import { dayText, momentText, useShow, useSite } from "~/ui/site";
import { withdrawSample, samplePage } from "~/domain/oil/index.server";
import { CodeLines, sizeChart } from "./sizes";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Sample ${loaderData?.page.sample.number ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const page = await samplePage(idParam(params));
  return { page, circuitId: page.circuitId, target: page.target, mayLog: mayAct(user.role, "technician") };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const { why = "" } = await formFields(request);
  const done = await withdrawSample(id, why, user);
  if (!done.ok) return refused(done);
  return redirect(`/oil/${(await samplePage(id)).circuitId}?said=withdrawn`);
});

/** As many figures as the laboratory wrote. */
const significant = (value: number) => Math.min(5, Math.max(1, String(value).replace(/^0*\.?0*|\./g, "").length));

export default function Sample({ loaderData: { page, target, mayLog }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const { sample, about } = page;
  const wrong = actionData && "problems" in actionData ? actionData.problems : undefined;
  const why = incomparable(sample);
  const codes = sampleCodes(sample);
  const over = codes && target ? overTarget(codes.iso, target) : [];
  const make = useMemo(() => {
    const chart = sizeChart(sample, target);
    return chart ? calculatorChart(chart, site.units) : null;
  }, [sample, target, site.units]);
  const found = analyteIds.filter((id) => sample.results[id] && analytes[id].group !== "count");
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: sample.number },
        ]}
        title={`Sample ${sample.number}${codes ? `: ${codes.iso.text}` : ""}`}
      >
        {page.machine}, {page.circuit.toLowerCase()}, {momentText(sample.at, site)}
        {sample.hours !== null ? `, at ${show(sample.hours, "runningHours")}` : ""}; {samplePlaces[sample.place]},{" "}
        {sampleStates[sample.state]}
        {about.takenBy ? `, by ${about.takenBy}` : ""}
        {about.laboratory ? `; ${about.laboratory}` : ""}.
      </PageHead>
      {about.withdrawnAt !== null ? (
        <Notice tone="ochre" live={false}>
          <>
            Withdrawn on {dayText(about.withdrawnAt, site)} by {about.withdrawnBy}: {about.withdrawnWhy}. It counts no
            more.
          </>
        </Notice>
      ) : why ? (
        <Notice tone="ochre" live={false}>
          {`Not comparable with the other samples: ${why}.`}
        </Notice>
      ) : null}
      <div className="grid gap-x-8 xl:grid-cols-2">
        <Section title="Cleanliness">
          <CodeLines sample={sample} target={target} over={over} />
          {make ? (
            <div className="mt-3">
              <ChartCanvas
                make={make}
                height={240}
                label="Particles over each size against the target, both on log scales. The working holds the numbers."
              />
            </div>
          ) : null}
        </Section>
        <div>
          <Section title="What was found">
            {found.length === 0 ? (
              <p className="py-2 text-ink-2">Nothing but particles was looked for.</p>
            ) : (
              <dl>
                {found.map((id) => {
                  const result = sample.results[id]!;
                  return (
                    <div key={id} className="ruled flex justify-between gap-3 py-1">
                      <dt className="text-ink-2">{analytes[id].label}</dt>
                      <dd>
                        {result.below ? "less than " : result.above ? "more than " : ""}
                        {show(result.value, analytes[id].quantity, { digits: significant(result.value) })}
                      </dd>
                    </div>
                  );
                })}
              </dl>
            )}
            {about.colour || about.sludge || about.note ? (
              <p className="py-2">
                {[about.colour && `Colour: ${about.colour}.`, about.sludge && `Sludge: ${about.sludge}.`, about.note]
                  .filter(Boolean)
                  .join(" ")}
              </p>
            ) : null}
          </Section>
          {page.photos.length > 0 ? (
            <Section title="Photographs">
              {page.photos.map((id) => (
                <a key={id} href={`/oil/photo/${id}`}>
                  <img
                    src={`/oil/photo/${id}`}
                    alt={`Patch of sample ${sample.number}`}
                    className="mt-2 max-h-64 border border-line"
                  />
                </a>
              ))}
            </Section>
          ) : null}
          {mayLog && about.withdrawnAt === null ? (
            <Section title="Is it wrong?">
              <Form method="post" noValidate className="mt-3">
                <FormProblemsProvider problems={wrong}>
                  <TextField name="why" label="Why it is withdrawn" placeholder="Bottles exchanged" maxLength={500} />
                  <div className="mt-2">
                    <ConfirmButton
                      intent="withdraw"
                      label="Withdraw the sample"
                      question="Withdraw this sample?"
                      explain="It stays on record with your reason, and counts no more. Its number is free again."
                    />
                  </div>
                </FormProblemsProvider>
              </Form>
            </Section>
          ) : null}
        </div>
      </div>
    </>
  );
}
