import { useMemo, useState } from "react";
import { Link, redirect } from "react-router";
import type { Route } from "./+types/plan";
import { moneyText, type PlanWriter } from "@core";
import { bookPlan, dropPlan, keepPlan, keptPlans, planSites, sitePlan } from "~/domain/plan/index.server";
import { dueWork } from "~/domain/bookings/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";
import { DueBeside, DUE_SHOWN, Helps, LeftOut } from "./beside";
import { Board } from "./board";
import { Compare } from "./compare";
import { Stops } from "./stops";
import { usePlanner } from "./usePlanner";
import { useWishes } from "./useWishes";
import { counted } from "~/ui/counted";
import { boardRows } from "./boardRows";
import { KeepPlan, PlanTools, Troubles } from "./planParts";
import { headline, percent } from "./planWords";

export const meta = () => [{ title: "Plan · Juncteral" }];

export const loader = guard("viewer", async ({ request, user }) => {
  const { all, site } = await planSites(new URL(request.url).searchParams.get("site"));
  const mayEdit = mayAct(user.role, "engineer");
  if (!site) return { mayEdit, loaded: null };
  const [plan, kept] = await Promise.all([sitePlan(site), keptPlans(site.id)]);
  const due = await dueWork({ most: DUE_SHOWN + 1, siteId: site.id, until: plan.problem.until });
  return { mayEdit, loaded: { site, sites: all, plan, kept, due, submission: crypto.randomUUID() } };
});

export const action = guardAction("engineer", async ({ request, user }) => {
  const fields = await formFields(request);
  const id = fields.plan ?? "";
  if (fields.intent === "book" && isUuid(id)) {
    const booked = await bookPlan(id, user);
    // what was done or called off since the plan was kept is not booked again: who books is told
    if (booked.ok && booked.settled.length > 0) return { problems: null, left: booked.settled };
    return booked.ok ? redirect(`/plan${new URL(request.url).search}`) : refused(booked);
  }
  const done =
    fields.intent === "keep"
      ? await keepPlan(fields, user)
      : !isUuid(id)
        ? { ok: false as const, problems: { form: "Choose a plan from the list." } }
        : await dropPlan(id, user);
  if (!done.ok) return refused(done);
  return redirect(`/plan${new URL(request.url).search}`);
});

type Loaded = NonNullable<Route.ComponentProps["loaderData"]["loaded"]> & { mayEdit: boolean };

/** Pieces on the page at first, and more at a time. */
const ROWS = 50;

export default function Plan({ loaderData: { loaded, mayEdit }, actionData }: Route.ComponentProps) {
  if (!loaded)
    return (
      <>
        <PageHead title="Nothing to plan yet" />
        <Empty>
          There is no site.{" "}
          {mayEdit ? (
            <Link to="/fleet/begin" className="act">
              Begin with a machine
            </Link>
          ) : (
            "An engineer begins with a machine."
          )}
        </Empty>
      </>
    );
  return (
    <InZone timeZone={loaded.site.timeZone}>
      <FormProblemsProvider problems={actionData?.problems ?? undefined}>
        <Planned
          key={loaded.site.id}
          {...loaded}
          mayEdit={mayEdit}
          problem={actionData?.problems?.form}
          left={actionData && "left" in actionData ? actionData.left : []}
        />
      </FormProblemsProvider>
    </InZone>
  );
}

function Planned({
  site,
  sites,
  plan,
  kept,
  due,
  mayEdit,
  submission,
  problem,
  left,
}: Loaded & { problem: string | undefined; left: readonly string[] }) {
  const here = useSite();
  const { wishes, set, move, reset } = useWishes(plan.problem.wishes);
  const [months, setMonths] = useState(12);
  const [only, setOnly] = useState("");
  const [shown, setShown] = useState(ROWS);
  const asked = useMemo(() => ({ ...plan.problem, wishes }), [plan.problem, wishes]);
  const { solved, failed, unwished, fresh, solving, stop, again } = usePlanner(asked);
  const { currency } = asked.costs;
  const writer: PlanWriter = {
    day: (ms) => dayText(ms, here),
    currency,
    now: asked.now,
    stops: new Map(asked.stops.map((s) => [s.id, s])),
  };
  const ahead = asked.stops.filter((s) => !wishes.without.includes(s.id));
  const rows = boardRows(plan, asked, solved, ahead, only, writer, here);
  const count = (kind: string) => solved?.lines.filter((l) => l.option.kind === kind).length ?? 0;
  const wished = unwished !== null && solved ? solved.value.expected - unwished : null;
  return (
    <>
      <PageHead
        crumbs={sites.length > 1 ? [{ label: site.name }] : []}
        title={
          asked.pieces.length === 0
            ? "Nothing is due in the next year"
            : !solved
              ? `Planning ${counted(asked.pieces.length, "piece")} of work`
              : headline(asked.pieces.length, count("stop"), count("own"), count("wait"))
        }
      >
        <span className="flex flex-wrap gap-x-4">
          <Link to={`/plan/parts?site=${site.id}`} className="way">
            Parts
          </Link>
          <Link to={`/plan/costs?site=${site.id}`} className="way">
            What work costs
          </Link>
          <Link to="/plan/scorecard" className="way">
            Scorecard
          </Link>
          <Link to="/plan/calendar" className="way">
            Calendar
          </Link>
          <Link to={`/report?site=${site.id}`} className="way">
            Report
          </Link>
        </span>
      </PageHead>
      {problem ? <Notice tone="verm">{problem}</Notice> : null}
      <LeftOut left={left} />
      {failed ? <Notice tone="verm">{failed}</Notice> : null}
      <p className="mb-3" role="status">
        {solved && fresh && !failed ? (
          <>
            Expected cost {<strong className="font-semibold">{moneyText(solved.value.expected, currency)}</strong>}, one
            time in ten over {moneyText(solved.value.high, currency)}; {solved.value.failures.toFixed(1)} failures to be
            expected.{" "}
            {solving
              ? `Best so far, at most ${percent(solved.gap)} from the best; still solving.`
              : solved.gap <= 1e-4
                ? "Proven: no plan of these pieces is cheaper."
                : `At most ${percent(solved.gap)} dearer than the best possible.`}
            {wished !== null && wished > 0.5
              ? ` What is pinned and wished costs ${moneyText(wished, currency)} of it.`
              : ""}
          </>
        ) : failed ? null : solving ? (
          "Solving…"
        ) : (
          "Stopped before a plan to these wishes was found."
        )}
      </p>
      <PlanTools
        site={site}
        sites={sites}
        months={months}
        setMonths={setMonths}
        only={only}
        setOnly={setOnly}
        wishes={wishes}
        set={set}
        reset={reset}
        solving={solving}
        stop={stop}
        again={again}
      />
      <Troubles plan={plan} troubles={solved?.troubles ?? []} />
      {asked.pieces.length === 0 ? (
        <Empty>No forecast, fault or booking asks for work in the next year.</Empty>
      ) : (
        <>
          <Board rows={rows.slice(0, shown)} months={months} stops={ahead} onMove={move} />
          {rows.length === 0 ? (
            <p className="py-2 text-ink-2">No machine or component of the plan is called so.</p>
          ) : null}
          {rows.length > shown ? (
            <p className="py-2 print:hidden">
              {`${shown} of ${rows.length} pieces.`}{" "}
              <Button type="button" tone="plain" onClick={() => setShown(shown + ROWS)}>
                Show more
              </Button>
            </p>
          ) : null}
        </>
      )}
      <div className="mt-7 grid gap-x-8 lg:grid-cols-2">
        <Stops plan={plan} lines={solved?.lines ?? []} wishes={wishes} set={set} mayEdit={mayEdit} />
        <Helps plan={plan} helps={solved?.helps ?? null} solving={solving} currency={currency} />
      </div>
      <DueBeside plan={plan} due={due} />
      {mayEdit && solved && !failed && asked.pieces.length > 0 ? (
        <KeepPlan siteId={site.id} submission={submission} wishes={wishes} solved={solved} fresh={fresh} />
      ) : null}
      <Compare kept={kept} currency={currency} mayEdit={mayEdit} />
      <p className="text-sm text-ink-2">
        {"Costs and chances are estimates for deciding between stops, not a promise. Crossing a limit is " +
          `not failing: ${percent(asked.costs.failsAMonth)} of parts beyond their limit are taken to fail ` +
          "in each month. The manufacturer’s limits and local rules come first."}
      </p>
    </>
  );
}
