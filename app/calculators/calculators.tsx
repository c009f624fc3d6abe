import { useEffect, useRef, useState } from "react";
import { Link, Outlet, useParams } from "react-router";
import { calculatorGroups, calculators, type CalculatorGroup } from "@core";
import { guard } from "~/platform/guard.server";
import { fieldClass } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";

export const meta = () => [{ title: "Calculators · Juncteral" }];

export const loader = guard("viewer", async () => null);

export default function Calculators() {
  const { calculator } = useParams();
  const [filter, setFilter] = useState("");
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current?.querySelector("[aria-current=page]")?.scrollIntoView({ block: "nearest" });
  }, [calculator]);
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = calculators.filter((c) =>
    words.every((w) => `${c.title} ${c.asks} ${calculatorGroups[c.group]}`.toLowerCase().includes(w)),
  );
  return (
    <div className="gap-x-8 lg:grid lg:grid-cols-[230px_minmax(0,1fr)]">
      <div className={calculator ? "max-lg:hidden" : ""}>
        <header className="mb-3">
          <p className="text-[1.15rem] font-semibold">Calculators</p>
        </header>
        <input
          type="search"
          aria-label="Calculations by name"
          placeholder="What do you want to know?"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          className={fieldClass}
        />
        {shown.length === 0 ? <Empty>No calculation by that name.</Empty> : null}
        <div ref={list} className="lg:max-h-[calc(100vh-8.5rem)] lg:overflow-y-auto" tabIndex={-1}>
          {(Object.keys(calculatorGroups) as CalculatorGroup[])
            .filter((g) => shown.some((c) => c.group === g))
            .map((group) => (
              <section key={group} className="mt-4">
                <h2 className="ruled pb-1">{calculatorGroups[group]}</h2>
                <ul>
                  {shown
                    .filter((c) => c.group === group)
                    .map((c) => (
                      <li key={c.id} className="ruled">
                        <Link
                          to={`/calculators/${c.id}`}
                          aria-current={c.id === calculator ? "page" : undefined}
                          className={
                            "flex min-h-8 items-center px-1 py-1 max-lg:min-h-11 " +
                            `${c.id === calculator ? "bg-sea-soft font-semibold" : "hover:bg-sheet"}`
                          }
                        >
                          {c.title}
                        </Link>
                      </li>
                    ))}
                </ul>
              </section>
            ))}
        </div>
      </div>
      <div className="min-w-0">
        {calculator ? (
          <Outlet />
        ) : (
          <div className="max-lg:hidden">
            <PageHead title="What do you want to know?">
              <p>
                Choose a calculation. Each shows its working and its source; its address holds what you entered, so it
                can be kept and sent.
              </p>
            </PageHead>
            <ul className="columns-2 gap-8 text-ink-2">
              {calculators
                .filter((c) =>
                  [
                    "case-drain",
                    "load-test",
                    "holding-margin",
                    "settings-ladder",
                    "viscosity",
                    "iso-4406",
                    "clean-up",
                    "gauge-fitness",
                    "clearance-growth",
                    "weibull",
                  ].includes(c.id),
                )
                .map((c) => (
                  <li key={c.id} className="ruled break-inside-avoid py-2">
                    <Link to={`/calculators/${c.id}`} className="hover:text-ink hover:underline">
                      {c.asks}
                    </Link>
                  </li>
                ))}
            </ul>
          </div>
        )}
      </div>
    </div>
  );
}
