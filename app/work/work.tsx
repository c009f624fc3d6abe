import { Link } from "react-router";
import type { Route } from "./+types/work";
import { dayOf, dayStart, partAgainstStop } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { interventionLabels } from "~/domain/work/form";
import { dueWork } from "~/domain/work/due.server";
import { workPage, type WorkRow } from "~/domain/work/queries.server";
import { work as texts } from "./texts";

export const meta = () => [{ title: texts.workJuncteral }];

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

const recordWord = (w: WorkRow) => (w.interim ? "stop-gap" : w.signedAt ? "signed" : texts.notSigned);

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
        {w.doneAt ? texts.done(dayText(w.doneAt.getTime(), site)) : texts.crewHours(w.crewHours)}
      </span>
      <span className={part?.late ? "font-medium text-ochre" : "text-ink-2"}>
        {w.doneAt ? recordWord(w) : (part?.text ?? texts.noPartNeeded)}
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
            ? texts.pieceOfWorkFell(missed.length)
            : late
              ? texts.partAfterTheStop(late)
              : open.length
                ? texts.pieceOfWorkBooked(open.length)
                : texts.noWorkIsBooked
        }
      >
        <span className="flex flex-wrap gap-x-4">
          {mayEdit ? (
            <Link to="/fleet/new/stop" className="way">
              {texts.planAStop}
            </Link>
          ) : null}
          <Link to="/plan" className="way">
            {texts.seeThePlan}
          </Link>
          <Link to="/work/due" className="way">
            {texts.dueByDate(due > 0 ? ` (${due})` : "")}
          </Link>
          <Link to="/work/procedures" className="way">
            {texts.procedures}
          </Link>
          <Link to="/work/records" className="way">
            {texts.records}
          </Link>
        </span>
      </PageHead>
      {missed.length ? (
        <Section title={texts.stopHasPassedWork}>
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
            title={texts.day(
              s.name,
              dayText(dayStart(s.startsOn, s.timeZone), { ...site, timeZone: s.timeZone }),
              s.days,
            )}
            aside={
              <>
                <span className={hours > s.crewHours ? "font-medium text-ochre" : ""}>
                  {texts.ofCrewHours(hours, s.crewHours)}
                </span>
                {mayEdit ? (
                  <>
                    {" "}
                    ·{" "}
                    <Link to={`/fleet/edit/stop/${s.id}`} className="way" aria-label={texts.edit(s.name)}>
                      {texts.editIt}
                    </Link>
                  </>
                ) : null}
              </>
            }
          >
            {own.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.nothingBooked}</p>
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
          {texts.noStopIsPlanned}{" "}
          {mayEdit ? (
            <Link to="/fleet/new/stop" className="act">
              {texts.planAStop}
            </Link>
          ) : (
            texts.anEngineerPlansStops
          )}
        </Empty>
      ) : null}
      {later.length ? (
        <Section title={texts.atLaterStops}>
          <ul>
            {later.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        </Section>
      ) : null}
      {loose.length ? (
        <Section title={texts.withoutAStop}>
          <ul>
            {loose.map((w) => (
              <WorkLine key={w.id} w={w} />
            ))}
          </ul>
        </Section>
      ) : null}
      <Section
        title={texts.doneSoFar}
        aside={
          <Link to="/work/records" className="way">
            {texts.allRecords}
          </Link>
        }
      >
        {done.length === 0 ? (
          <p className="py-2 text-ink-2">{texts.noWorkHasBeen}</p>
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
