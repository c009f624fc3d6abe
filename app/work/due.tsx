import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/due";
import { lowerFirst } from "@core";
import { campaignList } from "~/domain/work/campaigns.server";
import { AHEAD, dueWork, exercisePlan, noteMove } from "~/domain/work/due.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, Notice } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { DueRows } from "~/ui/dueRows";
import { dayText, momentText, useSite } from "~/ui/site";
import { due as texts } from "./texts";

export const meta = () => [{ title: texts.dueByDateJuncteral }];

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
        crumbs={[{ label: texts.work, to: "/work" }, { label: texts.dueByDate }]}
        title={
          due.length === 0
            ? texts.nothingFallsDueWithin(ahead)
            : late > 0
              ? texts.ofLate(late, due.length)
              : texts.fallDueWithinDays(due.length, ahead)
        }
      >
        {texts.stopGapsToLook}
      </PageHead>
      {actionData?.problems?.form ? <Notice tone="verm">{actionData.problems.form}</Notice> : null}
      {due.length > 0 ? (
        <div className="mb-6">
          <DueRows items={due} />
        </div>
      ) : null}
      <Section
        title={texts.campaigns}
        aside={
          mayEdit ? (
            <Link to="/work/campaigns/new" className="way">
              {texts.beginACampaign}
            </Link>
          ) : undefined
        }
      >
        {campaigns.length === 0 ? (
          <Empty>{texts.noBulletinRunsAs}</Empty>
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
                  {texts.ofSettled(c.settled, c.parts, c.closedAt ? texts.closed : "")}
                </span>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Section title={texts.valvesThatSeldomMove}>
        {plan.length === 0 ? (
          <Empty>{texts.noPartHasA}</Empty>
        ) : (
          <ul>
            {plan.map((p) => (
              <li key={p.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
                <span className="min-w-0">
                  <Link to={`/fleet/machines/${p.machineId}`} className="font-semibold hover:underline">
                    {p.machine}, {lowerFirst(p.component)}
                  </Link>
                  <span className="block text-ink-2">
                    {texts.atLeastEveryDays(
                      p.days,
                      p.last === null ? texts.noMoveIsOn : texts.movedBy(momentText(p.last, site), p.by),
                      p.dueAt === null ? "" : texts.nextBy(dayText(p.dueAt, site)),
                    )}
                  </span>
                </span>
                {mayMove ? (
                  <Form method="post">
                    <input type="hidden" name="submission" value={p.submission} />
                    <Button name="componentId" value={p.id} tone="plain">
                      {texts.itWasMovedToday}
                    </Button>
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        )}
        <p className="py-2 text-sm text-ink-2">{texts.movingAValveMoves}</p>
      </Section>
    </>
  );
}
