import { Link } from "react-router";
import type { Route } from "./+types/isolate";
import { symptoms } from "@core";
import { isolationsListed, standingFaults } from "~/domain/isolation/index.server";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { oddsText } from "~/ui/odds";

export const meta = () => [{ title: "Isolate · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => {
  const [faults, cases] = await Promise.all([standingFaults(), isolationsListed()]);
  return { faults, cases, mayBegin: mayAct(user.role, "technician") };
});

type Listed = Route.ComponentProps["loaderData"]["cases"][number];

function CaseRow({ c }: { c: Listed }) {
  const site = useSite();
  return (
    <li className="ruled py-2">
      <Link to={`/isolate/${c.id}`} className="font-semibold hover:underline">
        {c.machine}: {symptoms[c.symptom].label.toLowerCase()}
      </Link>
      <span className="block text-sm text-ink-2">
        {c.closedAt
          ? `${c.found}${c.foundOdds === null ? "" : `, odds ${oddsText(c.foundOdds)} when closed`}; ${dayText(c.closedAt, site)}`
          : `since ${dayText(c.openedAt, site)}, ${c.openedBy}; ${c.results} ${c.results === 1 ? "result" : "results"}`}
      </span>
    </li>
  );
}

export default function Isolate({ loaderData: { faults, cases, mayBegin } }: Route.ComponentProps) {
  const open = cases.filter((c) => c.closedAt === null);
  const closed = cases.filter((c) => c.closedAt !== null);
  return (
    <>
      <PageHead title="Isolate">
        From a symptom, or a reading that has changed, to its cause by the fewest and safest tests.
      </PageHead>
      <p className="flex flex-wrap gap-x-5 pb-3">
        {mayBegin ? (
          <Link to="/isolate/new" className="act">
            Something is wrong with a machine
          </Link>
        ) : null}
        <Link to="/isolate/practice" className="way">
          Practise on a hidden fault
        </Link>
        <Link to="/isolate/knowledge" className="way">
          The plant’s own causes and tests
        </Link>
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
        <Section
          title="What the readings say by themselves"
          aside={faults.length === 0 ? undefined : `${faults.length} ${faults.length === 1 ? "circuit" : "circuits"}`}
        >
          {faults.length === 0 ? (
            <Empty>No circuit's readings are off its model.</Empty>
          ) : (
            <ul>
              {faults.map((f) => (
                <li key={f.circuitId} className="ruled flex items-baseline justify-between gap-3 py-2">
                  <span className="min-w-0">
                    <Link to={`/isolate/faults/${f.circuitId}`} className="font-semibold hover:underline">
                      {f.machine}
                    </Link>
                    <span className="block text-sm text-ink-2">
                      {f.text ??
                        `${f.off} ${f.off === 1 ? "point is" : "points are"} off; no fault is likelier than all others`}
                    </span>
                  </span>
                  {f.share === null ? null : <span className="whitespace-nowrap">{oddsText(f.share)}</span>}
                </li>
              ))}
            </ul>
          )}
        </Section>
        <div>
          <Section title="Being isolated" aside={open.length > 0 ? String(open.length) : undefined}>
            {open.length === 0 ? (
              <Empty>Nobody is looking for a fault.</Empty>
            ) : (
              <ul>
                {open.map((c) => (
                  <CaseRow key={c.id} c={c} />
                ))}
              </ul>
            )}
          </Section>
          <Section title="Closed" aside={closed.length > 0 ? String(closed.length) : undefined}>
            {closed.length === 0 ? (
              <Empty>None yet.</Empty>
            ) : (
              <ul>
                {closed.map((c) => (
                  <CaseRow key={c.id} c={c} />
                ))}
              </ul>
            )}
          </Section>
        </div>
      </div>
    </>
  );
}
