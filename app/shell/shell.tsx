/** The frame: places on the left, the find box, and the screen. */
import { NavLink, Outlet, isRouteErrorResponse, useNavigation } from "react-router";
import type { Route } from "./+types/shell";
import { now } from "~/runtime/clock.server";
import { guard, oncePerRequest } from "~/platform/guard.server";
import { ErrorPage } from "~/ui/errorPage";
import { Mark } from "~/ui/mark";
import type { WorkerHealth } from "~/platform/heartbeat.server";
import { momentText, SiteProvider, type SiteContext } from "~/ui/site";
import { FindBox } from "./findBox";
import { KeptReadings } from "./outbox";
import { openDecisions, shellCounts } from "~/domain/overview/index.server";

export const loader = guard("viewer", async ({ user, context }) => ({
  user,
  now: now(),
  ...(await shellCounts(oncePerRequest(context, openDecisions))),
}));

/** Is what the pages say up to date? Nothing where it is. */
function standingText(
  { runs, lastSeen, waiting, failed }: WorkerHealth,
  role: string,
  site: SiteContext,
): string | null {
  if (!runs && waiting > 0)
    return (
      `Assessments have stopped${lastSeen === null ? "" : ` since ${momentText(lastSeen, site)}`}: ` +
      `${waiting >= 1000 ? "very many" : waiting} are waiting and no worker is running. Readings are safe; ` +
      "their assessments are out of date."
    );
  if (failed > 0 && role === "engineer")
    return `${failed} ${failed === 1 ? "record" : "records"} could not be assessed. See Records.`;
  return null;
}

export default function Shell({ loaderData }: Route.ComponentProps) {
  const { user, site, timeZone, now, decisions, oils, openWork, worker } = loaderData;
  const standing = standingText(worker, user.role, { timeZone, now, units: user.units });
  const busy = useNavigation().state !== "idle";
  const places = [
    { to: "/", label: "Today", count: decisions },
    { to: "/fleet", label: "Fleet", count: 0 },
    { to: "/rounds", label: "Rounds", count: 0 },
    { to: "/oil", label: "Oil", count: oils },
    { to: "/isolate", label: "Isolate", count: 0 },
    { to: "/plan", label: "Plan", count: 0 },
    { to: "/work", label: "Work", count: openWork },
    { to: "/calculators", label: "Calculators", count: 0 },
    { to: "/records", label: "Records", count: 0 },
  ];
  return (
    <SiteProvider value={{ timeZone, now, units: user.units }}>
      <a
        href="#screen"
        className="sr-only focus:not-sr-only focus:absolute focus:z-30 focus:bg-sheet focus:px-3 focus:py-2"
      >
        Skip to the screen
      </a>
      <div className="lg:grid lg:min-h-screen lg:grid-cols-[148px_minmax(0,1fr)] print:block">
        <nav
          aria-label="Places"
          className={
            "flex print:hidden items-center gap-x-1 border-line px-3 py-2 max-lg:ruled max-sm:overflow-x-auto " +
            "max-sm:py-0 sm:flex-wrap lg:sticky lg:top-0 lg:h-screen lg:flex-col lg:items-stretch lg:border-r lg:px-0 lg:py-5"
          }
        >
          <span className="px-3 pb-0 max-lg:pr-4 max-sm:hidden lg:px-4 lg:pb-5">
            <Mark />
          </span>
          {places.map((p) => (
            <NavLink
              key={p.to}
              to={p.to}
              end={p.to === "/"}
              className={({ isActive }) =>
                "flex min-h-9 shrink-0 items-center justify-between gap-2 px-3 py-1.5 max-lg:min-h-11 sm:max-lg:px-2 " +
                "lg:border-l-[3px] lg:px-4 " +
                (isActive
                  ? "border-sea bg-gradient-to-r from-sea-soft font-semibold text-ink max-lg:border-b-[3px]"
                  : "border-transparent text-ink-2 hover:text-ink")
              }
            >
              {p.label}
              {p.count > 0 ? <span className="text-xs text-ink-2">{p.count}</span> : null}
            </NavLink>
          ))}
          <div className="text-xs leading-relaxed text-ink-2 max-lg:ml-auto max-sm:shrink-0 max-sm:px-3 lg:mt-auto lg:px-4">
            <span className="max-lg:hidden">
              {site}
              <br />
            </span>
            <NavLink to="/account" className="hover:underline max-lg:inline-flex max-lg:min-h-11 max-lg:items-center">
              {user.name}, {user.role}
            </NavLink>
          </div>
        </nav>
        <div className="relative min-w-0 px-4 py-4 sm:px-7 lg:py-5">
          <search className="z-10 mb-3 block print:hidden lg:absolute lg:top-5 lg:right-7 lg:w-[250px]">
            <FindBox />
          </search>
          <KeptReadings />
          {standing ? (
            <p role="status" className="mb-3 border-l-4 border-ochre bg-ochre-soft px-3 py-2 print:hidden">
              {standing}
            </p>
          ) : null}
          <main id="screen" tabIndex={-1} aria-busy={busy} className="outline-none">
            <Outlet />
          </main>
        </div>
      </div>
    </SiteProvider>
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
