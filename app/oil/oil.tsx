import { useEffect, useRef, useState } from "react";
import { Link, Outlet, useMatches, useParams } from "react-router";
import type { Route } from "./+types/oil";
import { stateWords } from "@core";
import { guard } from "~/platform/guard.server";
import { fieldClass } from "~/ui/form";
import { Empty } from "~/ui/page";
import { StateGlyph } from "~/ui/state";
import { oilList } from "~/domain/oil/index.server";

export const meta = () => [{ title: "Oil · Juncteral" }];

export const loader = guard("viewer", async () => ({ list: await oilList() }));

/** The list of circuits keeps its place; what is opened stands beside it. */
export default function Oil({ loaderData: { list } }: Route.ComponentProps) {
  const { id } = useParams();
  const here = useMatches().at(-1);
  const circuitId = (here?.data as { circuitId?: string } | undefined)?.circuitId ?? id;
  const atRoot = here?.id === "oil/overview";
  const [filter, setFilter] = useState("");
  const column = useRef<HTMLDivElement>(null);
  useEffect(() => {
    column.current?.querySelector("[aria-current=page]")?.scrollIntoView({ block: "nearest" });
  }, [circuitId]);
  // a machine with several circuits names them
  const several = new Set(
    list.filter((c, i) => list.findIndex((o) => o.machine === c.machine) !== i).map((c) => c.machine),
  );
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = list.filter((c) =>
    words.every((w) => `${c.machine} ${c.tag} ${c.area} ${c.circuit}`.toLowerCase().includes(w)),
  );
  return (
    <div className="flex flex-col gap-x-8 lg:grid lg:grid-cols-[232px_minmax(0,1fr)]">
      <div className={`lg:sticky lg:top-5 lg:self-start ${atRoot ? "max-lg:order-2" : "max-lg:hidden"}`}>
        <header className="mb-3">
          <Link to="/oil" className="text-[1.15rem] font-semibold">
            Oil
          </Link>
        </header>
        <input
          type="search"
          aria-label="Circuits by machine"
          placeholder="Which circuit?"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          className={fieldClass}
        />
        {shown.length === 0 ? (
          <Empty>
            {list.length === 0 ? "No circuit yet: add one to a machine in the fleet." : "No circuit by that name."}
          </Empty>
        ) : null}
        <div ref={column} className="mt-2 lg:max-h-[calc(100vh-8.5rem)] lg:overflow-y-auto" tabIndex={-1}>
          <ul>
            {shown.map((c) => (
              <li key={c.circuitId} className="ruled">
                <Link
                  to={`/oil/${c.circuitId}`}
                  aria-current={c.circuitId === circuitId ? "page" : undefined}
                  className={
                    "grid min-h-9 grid-cols-[20px_minmax(0,1fr)_auto] items-center gap-x-1.5 px-1 py-1 max-lg:min-h-11 " +
                    `${c.circuitId === circuitId ? "bg-sea-soft font-semibold" : "hover:bg-sheet"}`
                  }
                >
                  <StateGlyph state={c.state} size={15} />
                  <span className="min-w-0 truncate" title={`${c.machine}, ${c.circuit}`}>
                    {c.machine}
                    {several.has(c.machine) ? `, ${c.circuit}` : ""}
                    <span className="sr-only">, {stateWords[c.state]}</span>
                  </span>
                  <span className="text-xs font-normal text-ink-2">{c.code ?? "no code"}</span>
                </Link>
              </li>
            ))}
          </ul>
        </div>
      </div>
      <div className="min-w-0">
        <Outlet />
      </div>
    </div>
  );
}
