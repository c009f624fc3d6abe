import { useMemo, useState } from "react";
import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/plan";
import { lowerFirst, moneyText, optionName, readAgainBy, reasonOf, type PlanWriter } from "@core";
import { bookPlan, dropPlan, keepPlan, keptPlans, planSites, sitePlan } from "~/domain/plan/index.server";
import { dueWork } from "~/domain/bookings/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, fieldClass, FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";
import { SteppedSelect } from "~/ui/steppedSelect";
import { DueBeside, DUE_SHOWN, Helps, LeftOut } from "./beside";
import { Board, type BoardRow } from "./board";
import { Compare } from "./compare";
import { Stops } from "./stops";
import { usePlanner } from "./usePlanner";
import { useWishes } from "./useWishes";
import { counted } from "~/ui/counted";

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
/** Pieces offered to go together with, at most. */
const COMPANIONS = 12;
const ZOOMS = [1, 3, 6, 12, 24, 36];

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
  const unstated = Object.values(plan.pieces).filter((p) => p.needsPart && p.leadTimeDays === null && !p.orderedOn);
  const ahead = asked.stops.filter((s) => !wishes.without.includes(s.id));
  const lineOf = new Map(solved?.lines.map((l) => [l.piece, l]));
  const called = (id: string) => `${plan.pieces[id]!.machine}, ${lowerFirst(plan.pieces[id]!.component)}`;
  const rows = asked.pieces.flatMap((piece): BoardRow[] => {
    const facts = plan.pieces[piece.id]!;
    const line = lineOf.get(piece.id) ?? null;
    if (only && !`${facts.machine} ${facts.component}`.toLowerCase().includes(only.toLowerCase())) return [];
    const again = line?.option.kind === "wait" ? readAgainBy(piece, asked.now) : null;
    const ways = [
      ...ahead
        .filter((s) => s.machines === null || s.machines.includes(piece.machine))
        .map((s) => ({ id: s.id, label: `${s.name}, ${dayText(s.at, here)}`, at: s.at })),
      {
        id: "own",
        label:
          line?.option.kind === "own"
            ? `${optionName(line.option, writer)}, ${dayText(line.option.at, here)}`
            : "a stop of its own",
        at: line?.option.kind === "own" ? line.option.at : Infinity,
      },
      { id: "wait", label: again ? `wait, read again by ${dayText(again, here)}` : "wait", at: Infinity },
    ];
    const reason = line ? reasonOf(line, piece, writer) : "";
    const group = wishes.together.find((g) => g.includes(piece.id)) ?? [piece.id];
    const others = asked.pieces.filter((p) => !group.includes(p.id));
    const near = [
      ...others.filter((p) => p.machine === piece.machine),
      ...others.filter((p) => p.machine !== piece.machine),
    ];
    return [
      {
        facts,
        line,
        pinned: wishes.pinned[piece.id] !== undefined,
        forbidden: wishes.forbidden[piece.id] ?? [],
        reason,
        goesWith: group.filter((id) => id !== piece.id && plan.pieces[id]).map(called),
        companions: near.slice(0, COMPANIONS).map((p) => ({ id: p.id, label: called(p.id) })),
        ways,
      },
    ];
  });
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
      <div className="mb-4 flex flex-wrap items-end gap-x-5 gap-y-2 text-sm print:hidden">
        {sites.length > 1 ? (
          <Form method="get" className="flex items-end gap-2">
            <label>
              <span className="block text-ink-2">Site</span>
              <select name="site" className={fieldClass} defaultValue={site.id}>
                {sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </select>
            </label>
            <Button tone="plain">Go to it</Button>
          </Form>
        ) : null}
        <label>
          <span className="block text-ink-2">Show</span>
          <select className={fieldClass} value={months} onChange={(e) => setMonths(Number(e.target.value))}>
            {ZOOMS.map((m) => (
              <option key={m} value={m}>
                {m === 1 ? "a month" : m < 12 ? `${m} months` : m === 12 ? "a year" : `${m / 12} years`}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block text-ink-2">Machine or component</span>
          <input className={fieldClass} value={only} onChange={(e) => setOnly(e.target.value)} placeholder="all" />
        </label>
        <label>
          <span className="block text-ink-2">Weigh</span>
          <SteppedSelect
            className={fieldClass}
            value={String(wishes.caution)}
            onTake={(caution) => set({ caution: Number(caution) })}
          >
            <option value={0}>the expected cost</option>
            <option value={0.5}>the worst tenth as much</option>
            <option value={0.8}>mostly the worst tenth</option>
          </SteppedSelect>
        </label>
        <label>
          <span className="block text-ink-2">More crew at each stop</span>
          <SteppedSelect
            className={fieldClass}
            value={String(wishes.moreCrew.mechanical ?? 0)}
            onTake={(hours) => set({ moreCrew: { mechanical: Number(hours) } })}
          >
            {[0, 8, 16, 24, 40].map((h) => (
              <option key={h} value={h}>
                {h === 0 ? "none" : `${h} h`}
              </option>
            ))}
          </SteppedSelect>
        </label>
        {solving ? (
          <Button type="button" tone="plain" onClick={stop}>
            Stop solving
          </Button>
        ) : (
          <Button type="button" tone="plain" onClick={again}>
            Solve again
          </Button>
        )}
        <Button type="button" tone="plain" onClick={reset}>
          Take wishes back
        </Button>
      </div>
      {solved?.troubles.length || plan.strangeTags.length || unstated.length ? (
        <Notice tone="ochre" live={false}>
          <ul>
            {solved?.troubles.map((t, i) => (
              <li key={i}>
                {t.text} <span className="text-ink-2">{`What can be done: ${t.offers.join("; ")}.`}</span>
              </li>
            ))}
            {unstated.map((p) => (
              <li key={p.id}>
                {`${p.machine}, ${lowerFirst(p.component)}: how long its part takes is not stated, so it is taken as on the shelf.`}{" "}
                <Link to={`/fleet/edit/component/${p.componentId}`} className="way">
                  State it
                </Link>
              </li>
            ))}
            {plan.strangeTags.map((t) => (
              <li key={`${t.stop} ${t.tag}`}>{`${t.stop} names the machine ${t.tag}, which is not at this site.`}</li>
            ))}
          </ul>
        </Notice>
      ) : null}
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
        <Form method="post" className="mb-7 flex flex-wrap items-end gap-3 print:hidden">
          <input type="hidden" name="intent" value="keep" />
          <input type="hidden" name="siteId" value={site.id} />
          <input type="hidden" name="submission" value={submission} />
          <input type="hidden" name="wishes" value={JSON.stringify(wishes)} />
          <input type="hidden" name="choice" value={JSON.stringify(solved.choice)} />
          <input type="hidden" name="gap" value={solved.gap} />
          <TextField
            name="name"
            label="Keep this plan as"
            defaultValue=""
            placeholder="One more fitter"
            maxLength={80}
          />
          <Button disabled={!fresh}>Keep it</Button>
        </Form>
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

/** "7 pieces of work: 5 at planned stops, 1 at a stop of its own, 1 waits". */
function headline(all: number, stop: number, own: number, wait: number): string {
  const parts = [
    stop > 0 ? `${stop} at planned stops` : "",
    own > 0 ? `${own} at ${own === 1 ? "a stop of its own" : "stops of their own"}` : "",
    wait > 0 ? `${wait} wait${wait === 1 ? "s" : ""}` : "",
  ].filter(Boolean);
  return `${counted(all, "piece")} of work: ${parts.join(", ")}`;
}

const percent = (share: number) =>
  `${share >= 0.0995 ? Math.round(share * 100) : (share * 100).toFixed(share < 0.01 ? 2 : 1)}\u00a0%`;
