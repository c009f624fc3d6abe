import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/due";
import { lowerFirst } from "@core";
import { campaignList, AHEAD, dueWork, exercisePlan, noteMove } from "~/domain/bookings/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, Notice } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { DueRows } from "~/ui/dueRows";
import { dayText, momentText, useSite } from "~/ui/site";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Due by date · Juncteral" }];

const MOST = 100;

export const loader = guard("viewer", async ({ user }) => {
  const [due, plan, campaigns] = await Promise.all([dueWork({ most: MOST }), exercisePlan(), campaignList()]);
  return {
    due,
    ahead: AHEAD,
    campaigns,
    plan: plan.map((p) => ({ ...p, submission: crypto.randomUUID() })),
    mayMove: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
  };
});

export const action = guardAction("technician", async ({ request, user }) => {
  const done = await noteMove(await formFields(request), user);
  return done.ok ? redirect("/work/due") : refused(done);
});

export default function Due({ loaderData, actionData }: Route.ComponentProps) {
  const { due, ahead, plan, campaigns, mayMove, mayEdit } = loaderData;
  const site = useSite();
  const late = due.filter((d) => d.dueAt < site.now).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Work", to: "/work" }, { label: "Due by date" }]}
        title={
          due.length === 0
            ? `Nothing falls due within ${ahead} days`
            : late > 0
              ? `${late} of ${due.length} ${late === 1 ? "is" : "are"} late`
              : `${due.length} fall${due.length === 1 ? "s" : ""} due within ${ahead} days`
        }
      >
        Stop-gaps to look at again, valves that seldom move, hoses at their longest usual life, fills to change back,
        campaigns, work that no reading proves yet, work that waits for no stop or missed its own, calibrations.
      </PageHead>
      {actionData?.problems?.form ? <Notice tone="verm">{actionData.problems.form}</Notice> : null}
      {due.length > 0 ? (
        <div className="mb-6">
          <DueRows items={due} />
        </div>
      ) : null}
      <Section
        title="Campaigns"
        aside={
          mayEdit ? (
            <Link to="/work/campaigns/new" className="way">
              Begin a campaign
            </Link>
          ) : undefined
        }
      >
        {campaigns.length === 0 ? (
          <Empty>No bulletin runs as a campaign.</Empty>
        ) : (
          <ul>
            {campaigns.map((c) => (
              <li key={c.id} className="ruled grid gap-x-4 py-1.5 sm:grid-cols-[minmax(0,1fr)_12rem]">
                <span>
                  <Link to={`/work/campaigns/${c.id}`} className="font-semibold hover:underline">
                    {c.title}
                  </Link>
                  <span className="block text-ink-2">{c.bulletin}</span>
                </span>
                <span className="text-ink-2">
                  {`${c.settled} of ${c.parts} settled${c.closedAt ? ", closed" : ""}`}
                </span>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title="Valves that seldom move">
        {plan.length === 0 ? (
          <Empty>
            No part has a longest time without a move. It is stated at the part; what stands still for months seizes.
          </Empty>
        ) : (
          <ul>
            {plan.map((p) => (
              <li key={p.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
                <span className="min-w-0">
                  <Link to={`/fleet/machines/${p.machineId}`} className="font-semibold hover:underline">
                    {p.machine}, {lowerFirst(p.component)}
                  </Link>
                  <span className="block text-ink-2">
                    {`at least every ${counted(p.days, "day")}; ${p.last === null ? "no move is on record" : `moved ${momentText(p.last, site)} by ${p.by}`}` +
                      `${p.dueAt === null ? "" : `, next by ${dayText(p.dueAt, site)}`}`}
                  </span>
                </span>
                {mayMove ? (
                  <Form method="post">
                    <input type="hidden" name="submission" value={p.submission} />
                    <Button name="componentId" value={p.id} tone="plain">
                      It was moved today
                    </Button>
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        )}
        <p className="py-2 text-sm text-ink-2">
          Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.
        </p>
      </Section>
    </>
  );
}
