/** A procedure on a tablet, step by step, with or without a network. */
import { useEffect, useState } from "react";
import { isRouteErrorResponse } from "react-router";
import type { Route } from "./+types/run";
import { Insecure } from "~/device/insecure";
import { takeAlong } from "~/device/takeAlong";
import { networkWords } from "~/device/useOutbox";
import { runPage } from "~/domain/runs/index.server";
import { guard, idParam } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { now } from "~/runtime/clock.server";
import { ErrorPage } from "~/ui/errorPage";
import { SiteProvider } from "~/ui/site";
import { RunFindings } from "./runFindings";
import { RunStep } from "./runStep";
import { RunTroubles } from "./runTroubles";
import { useRun } from "./useRun";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.page.run.procedure.title ?? "Procedure"} · Juncteral` },
];

export const loader = guard("technician", async ({ params, user }) => ({
  page: await runPage(idParam(params)),
  user,
  mayPass: mayAct(user.role, "engineer"),
  now: now(),
}));

// it is worked with what was taken along: others' steps come by themselves
export const shouldRevalidate = () => false;

export default function RunRoute({ loaderData: { page, user, mayPass, now: loadedAt } }: Route.ComponentProps) {
  const run = useRun(page, user, loadedAt);
  const { stand } = run;
  const { phases } = page.run.procedure;
  const phaseOf = (step: string | null) => phases.findIndex((p) => p.steps.some((s) => s.id === step));
  const [chosen, setChosen] = useState<number | null>(null);
  const [opened, setOpened] = useState<string | null>(null);
  const [showFindings, setShowFindings] = useState(false);
  useEffect(() => takeAlong(), []);
  const at = chosen ?? Math.max(0, stand.next === null ? phases.length - 1 : phaseOf(stand.next));
  const phase = phases[at]!;
  const heldIndex = stand.steps.findIndex((s) => s.step.id === stand.held);
  const go = (index: number) => {
    setChosen(index);
    setShowFindings(false);
    setOpened(null);
    window.scrollTo({ top: 0 });
  };
  return (
    <SiteProvider value={{ timeZone: page.timeZone, now: loadedAt, units: user.units }}>
      <div className="mx-auto min-h-screen max-w-[860px] px-4 py-3 sm:px-7">
        <Top page={page} run={run} />
        <Insecure />
        {run.closed ? (
          <p role="status" className="mt-2 border-l-4 border-ochre bg-ochre-soft px-3 py-2">
            {run.closed}{" "}
            <a href={`/work/${page.run.interventionId}`} className="way">
              See the work
            </a>
          </p>
        ) : null}
        <RunTroubles run={run} />
        <main>
          <h1 className="mt-3 text-[1.6rem]">{page.run.procedure.title}</h1>
          <p className="text-ink-2">
            {page.machine}, {page.component}
          </p>
          <nav aria-label="Parts of the procedure" className="mt-3 flex flex-wrap gap-2">
            {phases.map((p, i) => {
              const own = stand.steps.filter((s) => s.phase === p.title);
              const open = own.filter((s) => s.state === "open" || s.waits).length;
              return (
                <button
                  key={p.title}
                  type="button"
                  aria-current={!showFindings && i === at ? "step" : undefined}
                  onClick={() => go(i)}
                  className={`min-h-11 rounded-[3px] border px-3 text-sm ${
                    !showFindings && i === at
                      ? "border-sea bg-sea-soft font-semibold text-sea"
                      : "border-line-2 bg-sheet"
                  }`}
                >
                  {p.title}{" "}
                  <span className="text-ink-2">{open === 0 ? "✓" : `${own.length - open}/${own.length}`}</span>
                </button>
              );
            })}
            <button
              type="button"
              aria-current={showFindings ? "step" : undefined}
              onClick={() => setShowFindings(true)}
              className={`min-h-11 rounded-[3px] border px-3 text-sm ${
                showFindings ? "border-sea bg-sea-soft font-semibold text-sea" : "border-line-2 bg-sheet"
              }`}
            >
              Findings <span className="text-ink-2">{run.findings.filter((f) => !f.withdrawn).length}</span>
            </button>
          </nav>
          {showFindings ? (
            <RunFindings run={run} units={user.units} me={{ name: user.name, engineer: mayPass }} />
          ) : (
            <>
              {at === 0 ? (
                <ul className="mt-3 border-l-4 border-ochre bg-ochre-soft px-3.5 py-2 text-[0.95rem]">
                  {page.run.procedure.cautions.map((c) => (
                    <li key={c}>{c}</li>
                  ))}
                </ul>
              ) : null}
              {page.run.procedure.renew.length > 0 && at === 0 ? (
                <p className="mt-2">
                  <strong>Always renewed:</strong> {page.run.procedure.renew.join(", ")}.
                </p>
              ) : null}
              <ol className="mt-3">
                {stand.steps
                  .filter((s) => s.phase === phase.title)
                  .map((s) => {
                    const index = stand.steps.indexOf(s);
                    return (
                      <RunStep
                        key={s.step.id + String(s.entry?.submission ?? "") + String(s.last ?? "")}
                        stand={s}
                        run={run}
                        number={index + 1}
                        barred={heldIndex >= 0 && index > heldIndex ? stand.steps[heldIndex]!.step.text : null}
                        open={opened === s.step.id || (opened === null && stand.next === s.step.id)}
                        onOpen={() => setOpened(opened === s.step.id ? "" : s.step.id)}
                        onDone={() => {
                          setOpened(null);
                          setChosen(null);
                        }}
                        tags={page.tags}
                        pointId={page.pointId}
                        units={user.units}
                        mayPass={mayPass}
                      />
                    );
                  })}
              </ol>
              <p className="mt-4 flex flex-wrap justify-between gap-3">
                {at > 0 ? (
                  <button type="button" className="min-h-11 text-ink-2" onClick={() => go(at - 1)}>
                    {`Back: ${phases[at - 1]!.title}`}
                  </button>
                ) : (
                  <span />
                )}
                {at < phases.length - 1 ? (
                  <button type="button" className="way min-h-11" onClick={() => go(at + 1)}>
                    {`Next: ${phases[at + 1]!.title}`}
                  </button>
                ) : stand.next === null ? (
                  <a href={`/work/${page.run.interventionId}`} className="act">
                    All steps are closed: record the work
                  </a>
                ) : null}
              </p>
            </>
          )}
        </main>
      </div>
    </SiteProvider>
  );
}

function Top({ page, run }: { page: Route.ComponentProps["loaderData"]["page"]; run: ReturnType<typeof useRun> }) {
  const { stand, outbox, waiting } = run;
  const count = stand.steps.length;
  const calm = outbox.network === "sent" && waiting === 0;
  return (
    <header>
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <span className="text-ink-2">
          <strong className="text-ink">{`${stand.closed} of ${count}`}</strong> steps
          {stand.skippedHolds.length > 0 ? (
            <span className="ml-2 font-semibold text-verm">{`${stand.skippedHolds.length} hold point${stand.skippedHolds.length > 1 ? "s" : ""} skipped`}</span>
          ) : null}
        </span>
        <span role="status" className={`font-semibold ${calm ? "text-sea" : "text-ochre"}`}>
          {networkWords(outbox.network, waiting)}
        </span>
        <a href={`/work/${page.run.interventionId}`} className="inline-flex min-h-11 items-center text-ink-2">
          Leave
        </a>
      </div>
      <div
        className="mt-1 h-1.5 rounded-full bg-line"
        role="progressbar"
        aria-label="Steps closed"
        aria-valuemin={0}
        aria-valuemax={count}
        aria-valuenow={stand.closed}
      >
        <div
          className="h-full rounded-full bg-sea"
          style={{ width: `${(100 * stand.closed) / Math.max(1, count)}%` }}
        />
      </div>
      {outbox.network === "signIn" ? (
        <p className="mt-2 border-l-4 border-ochre bg-ochre-soft px-3 py-2">
          <>
            You were signed out. Nothing is lost:{" "}
            {
              <a href={`/sign-in?to=/work/runs/${page.run.id}`} className="way">
                sign in again
              </a>
            }
            , and what is kept here is sent.
          </>
        </p>
      ) : null}
    </header>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <ErrorPage
      status={isRouteErrorResponse(error) ? error.status : 500}
      detail={isRouteErrorResponse(error) ? error.data : undefined}
    />
  );
}
