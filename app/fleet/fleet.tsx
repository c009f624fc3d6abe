import { stateWords } from "@core";
import { useState } from "react";
import { Link, Outlet, useParams } from "react-router";
import type { Route } from "./+types/fleet";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { fieldClass } from "~/ui/form";
import { Empty } from "~/ui/page";
import { StateGlyph } from "~/ui/state";
import { fleetList, sitesInUse } from "~/domain/assets/index.server";

export const meta = () => [{ title: "Fleet · Juncteral" }];

export const loader = guard("viewer", async ({ request, user }) => {
  const retired = new URL(request.url).searchParams.has("retired");
  const mayEdit = mayAct(user.role, "engineer");
  const [machines, sites] = await Promise.all([fleetList(retired), mayEdit ? sitesInUse() : []]);
  return { machines, sites, retired, mayEdit };
});

/** Nobody is needed: over what was read, since what nobody looked at is not normal. */
function finding(machines: readonly { points: number; unread: number }[]): string {
  const total = (of: "points" | "unread") => machines.reduce((sum, m) => sum + m[of], 0);
  if (total("unread") === 0) return "All machines are normal";
  return total("unread") === total("points")
    ? "Nothing is read yet"
    : `Nothing needs you in what was read; ${total("unread")} of ${total("points")} points are not read yet`;
}

export default function Fleet({ loaderData: { machines, sites, retired, mayEdit } }: Route.ComponentProps) {
  const { id } = useParams();
  const [filter, setFilter] = useState("");
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = machines.filter((m) => words.every((w) => `${m.name} ${m.tag} ${m.area}`.toLowerCase().includes(w)));
  const areas = [...new Set(shown.map((m) => m.area))];
  const needing = machines.filter((m) => m.needing > 0).length;
  return (
    <div className="gap-x-8 max-lg:flex max-lg:flex-col lg:grid lg:grid-cols-[270px_minmax(0,1fr)] print:block">
      <div className={`print:hidden ${id ? "max-lg:hidden" : "max-lg:order-2 max-lg:mt-8"}`}>
        <header className="mb-3">
          <h1>
            {machines.length === 0
              ? "No machine yet"
              : needing === 0
                ? finding(machines)
                : `${needing} of ${machines.length} machines need${needing === 1 ? "s" : ""} you`}
          </h1>
        </header>
        {machines.length > 0 ? (
          <input
            type="search"
            aria-label="Machines by name"
            placeholder="Name, tag or area"
            value={filter}
            onChange={(e) => setFilter(e.target.value)}
            className={fieldClass}
          />
        ) : null}
        {machines.length === 0 ? (
          <Empty>
            {mayEdit ? (
              <>
                Begin with a machine from a template, or load a fleet file under Records.{" "}
                <Link className="act" to="/fleet/begin">
                  Add a machine from a template
                </Link>
              </>
            ) : (
              "An engineer adds the first machine."
            )}
          </Empty>
        ) : null}
        {shown.length === 0 && machines.length > 0 ? <Empty>No machine by that name.</Empty> : null}
        <div className="goes-on lg:max-h-[calc(100vh-10rem)] lg:overflow-y-auto" tabIndex={-1}>
          {areas.map((area) => (
            <section key={area} className="mt-4">
              <h2 className="ruled pb-1">{area || "No area"}</h2>
              <ul>
                {shown
                  .filter((m) => m.area === area)
                  .map((m) => (
                    <li key={m.id} className="ruled">
                      <Link
                        to={`/fleet/machines/${m.id}`}
                        aria-current={m.id === id ? "page" : undefined}
                        className={
                          "grid min-h-9 grid-cols-[20px_minmax(0,1fr)_auto] items-center gap-2 py-1 max-lg:min-h-11 " +
                          `${m.id === id ? "bg-sea-soft font-semibold" : "hover:bg-sheet"}`
                        }
                      >
                        <StateGlyph state={m.worst ?? "unread"} size={16} />
                        <span className="truncate">
                          {m.name}
                          {m.retired ? " (retired)" : ""}
                          <span className="sr-only">{`, worst ${stateWords[m.worst ?? "unread"]}`}</span>
                        </span>
                        <span className="text-xs text-ink-2">
                          {m.needing > 0 ? `${m.needing} of ${m.points}` : m.points}
                        </span>
                      </Link>
                    </li>
                  ))}
              </ul>
            </section>
          ))}
          <p className="mt-3 text-sm">
            <Link to={retired ? "?" : "?retired"} className="way">
              {retired ? "Without retired ones" : "Show retired ones too"}
            </Link>
          </p>
          {mayEdit ? (
            <p className="mt-3 mb-2 flex flex-wrap gap-x-4 gap-y-2 text-sm">
              <Link to="/fleet/begin" className="way">
                A machine from a template
              </Link>
              <span className="text-ink-2">Add a</span>
              {(["site", "machine", "circuit", "component", "point", "fluid"] as const).map((k) => (
                <Link key={k} to={`/fleet/new/${k}`} className="way">
                  {k}
                </Link>
              ))}
            </p>
          ) : null}
          {sites.length > 0 ? (
            <p className="mb-2 flex flex-wrap gap-x-4 gap-y-2 text-sm">
              <span className="text-ink-2">Settings of</span>
              {sites.map((s) => (
                <Link key={s.id} to={`/fleet/edit/site/${s.id}`} className="way">
                  {s.name}
                </Link>
              ))}
            </p>
          ) : null}
        </div>
      </div>
      <div className="min-w-0">{machines.length > 0 || id ? <Outlet /> : null}</div>
    </div>
  );
}
