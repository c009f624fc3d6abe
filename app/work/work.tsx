import { Link } from "react-router";
import type { Route } from "./+types/work";
import { dayOf, dayStart, partAgainstStop } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { interventionLabels } from "~/domain/bookings/index";
import { dueWork, workPage, type WorkRow } from "~/domain/bookings/index.server";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Work · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  ...(await workPage()),
  due: (await dueWork({ most: 100 })).length,
  mayEdit: mayAct(user.role, "engineer"),
}));

/** Will its part be there at its stop? */
function partOf(w: WorkRow, now: number) {
  return w.kind === "inspection" || w.doneAt
    ? null
    : partAgainstStop(
        { leadTimeDays: w.leadTimeDays, orderedOn: w.orderedOn, today: dayOf(now, w.timeZone) },
        w.missed ? null : w.startsOn,
      );
}

const recordWord = (w: WorkRow) => (w.interim ? "stop-gap" : w.signedAt ? "signed" : "not signed");

function WorkLine({ w }: { w: WorkRow }) {
  const site = useSite();
  const part = partOf(w, site.now);
  return (
    <li className="ruled grid gap-x-4 py-2 sm:grid-cols-[minmax(0,1fr)_9rem_12rem]">
      <span className="min-w-0 [overflow-wrap:anywhere]">
        <Link to={w.doneAt ? `/work/${w.id}/record` : `/work/${w.id}`} className="font-semibold hover:underline">
          {w.machine}, {w.component}
        </Link>
        <span className="block text-ink-2">
          {interventionLabels[w.kind]}
          {w.note ? `: ${w.note}` : ""}
        </span>
      </span>
      <span className="text-ink-2">
        {w.doneAt ? `done ${dayText(w.doneAt.getTime(), site)}` : `${w.crewHours} crew hours`}
      </span>
      <span className={part?.late ? "font-medium text-ochre" : "text-ink-2"}>
        {w.doneAt ? recordWord(w) : (part?.text ?? "no part needed")}
      </span>
    </li>
  );
}

export default function Work({ loaderData: { ahead, open, done, due, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  const known = new Set(ahead.map((s) => s.id));
  const loose = open.filter((w) => !w.stopId);
  const missed = open.filter((w) => w.missed);
  const later = open.filter((w) => w.stopId && !w.missed && !known.has(w.stopId));
  const late = open.filter((w) => partOf(w, site.now)?.late).length;
  return (
    <>
      <PageHead
        title={
          missed.length
            ? `${counted(missed.length, "piece")} of work fell past a stop`
            : late
              ? `${late} part${late === 1 ? " comes" : "s come"} after the stop`
              : open.length
                ? `${counted(open.length, "piece")} of work booked, parts in time`
                : "No work is booked"
        }
      >
        <span className="flex flex-wrap gap-x-4">
          {mayEdit ? (
            <Link to="/fleet/new/stop" className="way">
              Plan a stop
            </Link>
          ) : null}
          <Link to="/plan" className="way">
            See the plan
          </Link>
          <Link to="/jobs" className="way">
            Jobs
          </Link>
          <Link to="/work/due" className="way">
            {`Due by date${due > 0 ? ` (${due})` : ""}`}
          </Link>
          <Link to="/work/procedures" className="way">
            Procedures
          </Link>
          <Link to="/work/records" className="way">
            Records
          </Link>
        </span>
      </PageHead>
      {missed.length ? (
        <Section title="Stop has passed, work still open">
          <ul>
            {missed.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        </Section>
      ) : null}
      {ahead.map((s) => {
        const own = open.filter((w) => w.stopId === s.id);
        const hours = own.reduce((sum, w) => sum + w.crewHours, 0);
        return (
          <Section
            key={s.id}
            title={`${s.name}, ${dayText(dayStart(s.startsOn, s.timeZone), { ...site, timeZone: s.timeZone })}, ${counted(s.days, "day")}`}
            aside={
              <>
                <span className={hours > s.crewHours ? "font-medium text-ochre" : ""}>
                  {`${hours} of ${s.crewHours} crew hours`}
                </span>
                {mayEdit ? (
                  <>
                    {" "}
                    ·{" "}
                    <Link to={`/fleet/edit/stop/${s.id}`} className="way" aria-label={`Edit ${s.name}`}>
                      Edit
                    </Link>
                  </>
                ) : null}
              </>
            }
          >
            {own.length === 0 ? (
              <p className="py-2 text-ink-2">Nothing booked.</p>
            ) : (
              <ul>
                {own.map((w) => (
                  <WorkLine key={w.id} w={w} />
                ))}
              </ul>
            )}
          </Section>
        );
      })}
      {ahead.length === 0 ? (
        <Empty>
          No stop is planned.{" "}
          {mayEdit ? (
            <Link to="/fleet/new/stop" className="act">
              Plan a stop
            </Link>
          ) : (
            "An engineer plans stops."
          )}
        </Empty>
      ) : null}
      {later.length ? (
        <Section title="At later stops">
          <ul>
            {later.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        </Section>
      ) : null}
      {loose.length ? (
        <Section title="Without a stop">
          <ul>
            {loose.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        </Section>
      ) : null}
      <Section
        title="Done"
        aside={
          <Link to="/work/records" className="way">
            All records
          </Link>
        }
      >
        {done.length === 0 ? (
          <p className="py-2 text-ink-2">No work has been recorded yet.</p>
        ) : (
          <ul>
            {done.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        )}
      </Section>
    </>
  );
}
