import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/costs";
import { setCosts, costsOf, planSites } from "~/domain/plan/index.server";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";

export const meta = () => [{ title: "What work costs · Juncteral" }];

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
  ["currency", "Currency", "As it is written after an amount"],
  ["crewHour", "An hour of a fitter or an electrician", undefined],
  ["overHour", "An hour over what a stop's crew has", "Dear: the plan avoids it unless a wish asks for it"],
  ["opening", "Opening a machine", "Isolating, draining, venting, filling: once a stop for all its work"],
  ["extraStop", "A stop of its own", "What it costs beside the hours"],
  ["standing", "An hour that a machine stands outside a planned stop", undefined],
  ["failsAMonth", "Chance of failing in each month beyond the limit, %", "Crossing a limit is not failing"],
] as const;

export default function Costs({
  loaderData: { site, costs, setBy, version, mayEdit },
  actionData,
}: Route.ComponentProps) {
  const text = (name: (typeof fields)[number][0]) =>
    name === "failsAMonth" ? String(Number((costs.failsAMonth * 100).toPrecision(6))) : String(costs[name]);
  return (
    <div className="max-w-3xl">
      <PageHead crumbs={[{ label: "Plan", to: `/plan?site=${site.id}` }, { label: site.name }]} title="What work costs">
        {setBy ? `Set by ${setBy}.` : "Usual figures until the plant sets its own: orders of magnitude, not quotes."}
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
              <Button>Save</Button>
            </div>
          ) : (
            <p className="mt-4 text-ink-2">An engineer sets these.</p>
          )}
        </FormProblemsProvider>
      </Form>
      <Section title="By component" className="mt-7">
        <p className="py-2 text-ink-2">
          <>
            The cost of a new part, of failing in service, and spares on hand are set at each component:{" "}
            {
              <Link to="/fleet" className="way">
                open it in the fleet
              </Link>
            }
            . Where they are not, usual figures of its kind count, and the plan says so.
          </>
        </p>
      </Section>
    </div>
  );
}
