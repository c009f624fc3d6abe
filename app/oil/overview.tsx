import { Link } from "react-router";
import type { Route } from "./+types/overview";
import { lowerFirst, stateWords } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { MarginRule } from "~/ui/marginRule";
import { counted } from "~/ui/counted";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { StateGlyph } from "~/ui/state";
import { Verdict } from "~/ui/verdict";
import { oilOverview } from "~/domain/oil/index.server";

export const meta = () => [{ title: "Oil · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  page: await oilOverview(),
  mayLog: mayAct(user.role, "technician"),
}));

function finding({
  alarm = 0,
  alert = 0,
  steady = 0,
  drifting = 0,
  unproven = 0,
  unread = 0,
}: Partial<Record<string, number>>): string {
  const all = alarm + alert + steady + drifting + unproven + unread;
  const bad = alarm + alert;
  if (all === 0) return "No circuit holds oil yet";
  if (bad === 0 && unread > 0)
    return unread === all
      ? "No oil is sampled yet"
      : `No oil needs attention of those sampled; ${unread} of ${all} are not sampled yet`;
  if (bad === 0)
    return unproven > 0
      ? `No oil needs attention; ${unproven} of ${all} have too few samples to judge`
      : all === 1
        ? "The oil is normal"
        : `All ${all} oils are normal`;
  return `${bad} of ${all} oils need${bad === 1 ? "s" : ""} attention`;
}

/** Why nothing is listed: only what was sampled can be within its target. */
function nothing({ steady = 0, unproven = 0, unread = 0 }: Partial<Record<string, number>>): string {
  if (unproven + unread === 0) return "Nothing. Every oil is within its target, dry, and as thick as it should be.";
  return steady === 0
    ? "Nothing is known of the oils yet: send a sample of each."
    : `Nothing of ${counted(steady, "oil")} sampled often enough; the others are not known.`;
}

export default function OilOverview({ loaderData: { page, mayLog } }: Route.ComponentProps) {
  const site = useSite();
  return (
    <>
      <PageHead title={finding(page.counts)}>
        What is in the oil explains wear, and wear shows in the oil first.
      </PageHead>
      {mayLog ? (
        <p className="mb-4">
          <Link to="/oil/import" className="act">
            Import a laboratory’s file
          </Link>
        </p>
      ) : null}
      <Section title="Needs attention, worst first">
        {page.needs.length === 0 ? (
          <Empty>{nothing(page.counts)}</Empty>
        ) : (
          <ul>
            {page.needs.map((n) => (
              <li
                key={n.circuitId}
                className="ruled grid grid-cols-[22px_minmax(0,1fr)] gap-x-2.5 py-3 sm:grid-cols-[22px_minmax(0,1fr)_142px] sm:gap-x-4"
              >
                <StateGlyph state={n.state} />
                <p className="min-w-0 text-ink-2 [overflow-wrap:anywhere]">
                  <Link to={`/oil/${n.circuitId}`} className="font-semibold text-ink hover:underline">
                    {n.machine}
                  </Link>
                  <span className="sr-only">, {stateWords[n.state]}</span>, {lowerFirst(n.circuit)}:{" "}
                  <Verdict parts={n.verdict} />
                </p>
                <span className="max-sm:col-start-2 sm:justify-self-end">
                  <MarginRule margin={n.margin} state={n.state} of={n.margin?.of} />
                </span>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <div className="grid gap-x-8 md:grid-cols-3">
        <Section title="Debris events, open">
          {page.events.length === 0 ? (
            <p className="py-2 text-ink-2">None.</p>
          ) : (
            <ul>
              {page.events.map((e) => (
                <li key={e.id} className="ruled py-1.5 [overflow-wrap:anywhere]">
                  <Link to={`/oil/debris/${e.id}`} className="hover:underline">
                    <strong className="font-semibold">{e.machine}</strong>: {e.what}
                  </Link>{" "}
                  <span className="text-sm text-ink-2">
                    {`${e.open} of ${e.all} to do, since ${dayText(e.openedAt, site)}`}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Section>
        <Section title="Elements to replace within four months">
          {page.elements.length === 0 ? (
            <p className="py-2 text-ink-2">None foreseen.</p>
          ) : (
            <ul>
              {page.elements.map((e) => (
                <li key={e.circuitId + e.name} className="ruled py-1.5 [overflow-wrap:anywhere]">
                  <Link to={`/oil/${e.circuitId}`} className="hover:underline">
                    {e.machine}
                  </Link>{" "}
                  <span className="text-sm text-ink-2">
                    {`bypass opens in ${Math.round(e.early)} ${e.late === null || e.late > 900 ? "days or later" : `to ${Math.round(e.late)} days`}`}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Section>
        <Section title="Samples due">
          {page.due.length === 0 ? (
            <p className="py-2 text-ink-2">None: every circuit was sampled within four months.</p>
          ) : (
            <ul>
              {page.due.map((d) => (
                <li key={d.circuitId} className="ruled flex justify-between gap-2 py-1.5">
                  <Link
                    to={mayLog ? `/oil/${d.circuitId}/sample` : `/oil/${d.circuitId}`}
                    className="min-w-0 [overflow-wrap:anywhere] hover:underline"
                  >
                    {d.machine}
                  </Link>
                  <span className="shrink-0 text-sm text-ink-2">
                    {d.lastAt === null ? "never" : dayText(d.lastAt, site)}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
    </>
  );
}
