import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/costs";
import { setCosts } from "~/domain/plan/kept.server";
import { costsOf, planSites } from "~/domain/plan/pieces.server";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { costs as texts } from "./texts";

export const meta = () => [{ title: texts.whatWorkCostsJuncteral }];

const siteAsked = async (request: Request) => {
  const { site } = await planSites(new URL(request.url).searchParams.get("site"));
  if (!site) throw notFound("site");
  return site;
};

export const loader = guard("viewer", async ({ request, user }) => {
  const site = await siteAsked(request);
  return { site, ...(await costsOf(site.id)), mayEdit: mayAct(user.role, "engineer") };
});

export const action = guardAction("engineer", async ({ request, user }) => {
  const site = await siteAsked(request);
  const done = await setCosts(site.id, await formFields(request), user);
  return done.ok ? redirect(`/plan?site=${site.id}`) : refused(done);
});

const fields = [
  ["currency", "Currency", texts.asItIsWritten],
  ["crewHour", texts.anHourOfA, undefined],
  ["overHour", texts.anHourOverWhat, texts.dearThePlanAvoids],
  ["opening", texts.openingAMachine, texts.isolatingDrainingVentingFilling],
  ["extraStop", texts.aStopOfIts, texts.whatItCostsBeside],
  ["standing", texts.anHourThatA, undefined],
  ["failsAMonth", texts.chanceOfFailingIn, texts.crossingALimitIs],
] as const;

export default function Costs({
  loaderData: { site, costs, setBy, version, mayEdit },
  actionData,
}: Route.ComponentProps) {
  const text = (name: (typeof fields)[number][0]) =>
    name === "failsAMonth" ? String(Number((costs.failsAMonth * 100).toPrecision(6))) : String(costs[name]);
  return (
    <div className="max-w-3xl">
      <PageHead
        crumbs={[{ label: texts.plan, to: `/plan?site=${site.id}` }, { label: site.name }]}
        title={texts.whatWorkCosts}
      >
        {setBy ? texts.setBy(setBy) : texts.usualFiguresUntilThe}
      </PageHead>
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={version} />
        <FormProblemsProvider problems={actionData?.problems}>
          {actionData?.problems?.form ? <Notice tone="verm">{actionData.problems.form}</Notice> : null}
          <div className="grid gap-4 sm:grid-cols-2">
            {fields.map(([name, label, hint]) => (
              <TextField
                key={name}
                name={name}
                label={label}
                {...(hint && { hint })}
                defaultValue={text(name)}
                readOnly={!mayEdit}
                inputMode={name === "currency" ? "text" : "decimal"}
              />
            ))}
          </div>
          {mayEdit ? (
            <div className="mt-4">
              <Button>{texts.save}</Button>
            </div>
          ) : (
            <p className="mt-4 text-ink-2">{texts.anEngineerSetsThese}</p>
          )}
        </FormProblemsProvider>
      </Form>
      <Section title={texts.byComponent} className="mt-7">
        <p className="py-2 text-ink-2">
          {texts.theCostOfA(
            <Link to="/fleet" className="way">
              {texts.openItInThe}
            </Link>,
          )}
        </p>
      </Section>
    </div>
  );
}
