import { TZDate } from "@date-fns/tz";
import { Link } from "react-router";
import type { Route } from "./+types/today";
import {
  lowerFirst,
  conditionStates,
  dayOf,
  dayStart,
  partAgainstStop,
  type ConditionState,
  type PartAnswer,
  stateWords,
} from "@core";
import { sinceLastLook, type Changed } from "~/domain/overview/changed.server";
import { dueWork, type DueItem } from "~/domain/work/due.server";
import { openDecisions } from "~/domain/overview/decisions.server";
import { guard, oncePerRequest } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { DueRows } from "~/ui/dueRows";
import { Due } from "~/ui/due";
import { dayText, momentText, useSite } from "~/ui/site";
import { stateTone } from "~/ui/state";
import { monthName, weekday } from "~/ui/calendarNames";
import { Horizon } from "./horizon";
import { DecisionRow, FaultRow, OilRow, pointsOf, pressing } from "./needs";
import {
  HORIZON_MONTHS,
  duePoints,
  dueRounds,
  horizon,
  needs,
  oilNeeds,
  stateCounts,
  stopsAhead,
  type NextStop,
} from "~/domain/overview/today.server";
import { today as texts } from "./texts";

const DUE_SHOWN = 5;

export const meta = () => [{ title: texts.todayJuncteral }];

export const loader = guard("viewer", async ({ user, context }) => {
  const [open, toDecide, oils, counts, lines, due, dueInAll, ahead, changed, byDate] = await Promise.all([
    oncePerRequest(context, openDecisions),
    needs(),
    oilNeeds(),
    stateCounts(),
    horizon(),
    dueRounds(),
    duePoints(),
    stopsAhead(),
    sinceLastLook(user.id),
    dueWork({ most: DUE_SHOWN }),
  ]);
  return {
    open,
    toDecide,
    oils,
    counts,
    lines,
    due,
    dueInAll,
    ahead,
    changed,
    byDate,
    months: HORIZON_MONTHS,
    mayBook: mayAct(user.role, "engineer"),
  };
});

const numbers = [
  texts.nothingNeeds,
  texts.oneThingNeeds,
  texts.twoThingsNeed,
  texts.threeThingsNeed,
  texts.fourThingsNeed,
  texts.fiveThingsNeed,
  texts.sixThingsNeed,
  texts.sevenThingsNeed,
  texts.eightThingsNeed,
  texts.nineThingsNeed,
];

/** What changed since the reader looked before this visit. */
function Since({ changed: { since, points, states, done } }: { changed: Changed }) {
  const site = useSite();
  return (
    <Section title={texts.sinceYouLastLooked} aside={momentText(since, site)}>
      <ul>
        {points.map((p) => (
          <li key={p.pointId} className="ruled py-1.5">
            <Link to={`/points/${p.pointId}`} className="hover:underline">
              {p.machine}, {lowerFirst(p.component)}
            </Link>
            : <span className={stateTone[p.state]}>{stateWords[p.state]}</span>
            <span className="text-ink-2">{texts.was(stateWords[p.before])}</span>
          </li>
        ))}
        {states > points.length ? (
          <li className="py-1.5 text-ink-2">{texts.moreChangedTheirState(states - points.length)}</li>
        ) : null}
        {done > 0 ? (
          <li className="py-1.5">
            <Link to="/work" className="hover:underline">
              {texts.pieceOfWorkDone(done)}
            </Link>
          </li>
        ) : null}
      </ul>
    </Section>
  );
}

/** Stop-gaps, valves to move, hoses, fills, campaigns, work not proven: the first that fall due. */
function ByDate({ items }: { items: readonly DueItem[] }) {
  return (
    <Section
      title={texts.dueByDate}
      aside={
        <Link to="/work/due" className="way">
          {texts.allOfIt}
        </Link>
      }
    >
      <DueRows items={items} />
    </Section>
  );
}

function finding(open: number): string {
  return texts.aDecision(numbers[open] ?? texts.thingsNeed(open));
}

function partWord(work: NextStop["work"][number], stop: NextStop, now: number): PartAnswer {
  return work.needsPart
    ? partAgainstStop(
        { leadTimeDays: work.leadTimeDays, orderedOn: work.orderedOn, today: dayOf(now, stop.timeZone) },
        stop.startsOn,
      )
    : { late: false, text: texts.noPartNeeded };
}

export default function Today({ loaderData }: Route.ComponentProps) {
  const { open, toDecide, oils, counts, lines, due, dueInAll, ahead, changed, byDate, months, mayBook } = loaderData;
  const site = useSite();
  const today = new TZDate(site.now, site.timeZone);
  const shown =
    toDecide.filter((n) => pointsOf(n).some((d) => (d.asksAgain || pressing(d)) && !d.booking)).length +
    oils.filter((o) => !o.eventId).length;
  const watched = conditionStates.reduce((sum, s) => sum + counts[s], 0);
  const order: ConditionState[] = ["steady", "drifting", "alert", "alarm", "unproven", "unread"];
  return (
    <>
      <PageHead
        title={
          watched === 0
            ? texts.noMachinesYet
            : open === 0 && counts.unread > 0
              ? texts.nothingNeedsOfWhatWasRead(counts.unread, watched)
              : finding(open)
        }
      >
        {texts.pointsWatched(
          weekday(today),
          today.getDate(),
          monthName(today),
          watched,
          watched > 0
            ? `: ${order
                .filter((s) => counts[s] > 0)
                .map((s) => `${counts[s]} ${stateWords[s]}`)
                .join(", ")}`
            : "",
        )}
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,560fr)_minmax(0,486fr)]">
        <Section title={texts.needsYouWorstFirst}>
          {toDecide.length + oils.length === 0 ? (
            <Empty>
              {watched === 0 ? (
                mayBook ? (
                  <>
                    {texts.beginWithAMachine}{" "}
                    <span className="mt-2 flex gap-5">
                      <Link className="act" to="/fleet/begin">
                        {texts.addAMachineFrom}
                      </Link>
                      <Link className="way" to="/records/fleet">
                        {texts.loadAFleetFile}
                      </Link>
                    </span>
                  </>
                ) : (
                  texts.anEngineerAddsThe
                )
              ) : counts.unread > 0 ? (
                texts.whatWasReadIsWell(watched - counts.unread, counts.unread)
              ) : (
                texts.everyPointIsSteady
              )}
            </Empty>
          ) : (
            <ul>
              {[
                ...toDecide.map((n) => ({
                  urgency: pointsOf(n)[0]!.urgency,
                  row:
                    n.kind === "fault" ? (
                      <FaultRow key={n.fault.key} f={n.fault} mayBook={mayBook} />
                    ) : (
                      <DecisionRow key={n.point.pointId} d={n.point} mayBook={mayBook} />
                    ),
                })),
                ...oils.map((o) => ({ urgency: o.urgency, row: <OilRow key={o.circuitId} o={o} /> })),
              ]
                .sort((a, b) => b.urgency - a.urgency)
                .map(({ row }) => row)}
            </ul>
          )}
          {open > shown ? (
            <p className="py-2 text-sm text-ink-2">
              {texts.theWorstOfAnd(
                shown,
                open,
                <Link to="/fleet" className="way">
                  {texts.fleet}
                </Link>,
                <Link to="/oil" className="way">
                  {texts.oil}
                </Link>,
              )}
            </p>
          ) : null}
        </Section>
        <div>
          {changed ? <Since changed={changed} /> : null}
          <Section title={texts.horizon} aside={texts.nextMonthsP10To(months)}>
            {lines.length === 0 ? (
              <Empty>{counts.unread === watched ? texts.nothingToForecast : texts.noPointIsForecast(months)}</Empty>
            ) : (
              <Horizon lines={lines} stops={ahead.all} months={months} />
            )}
          </Section>
          <Section title={texts.readingsDue} aside={dueInAll ? texts.withinAWeek(dueInAll) : undefined}>
            {due.length === 0 ? (
              <Empty>{texts.noReadingFallsDue}</Empty>
            ) : (
              <ul>
                {due.map((r) => (
                  <li key={r.roundId} className="ruled grid grid-cols-[minmax(0,1fr)_6rem_6.5rem] py-1.5">
                    <Link to={`/rounds/${r.roundId}`} className="truncate hover:underline">
                      {r.name}
                    </Link>
                    <span className="text-right">
                      {r.points} {r.points === 1 ? texts.point : texts.points}
                    </span>
                    <span className="text-right">
                      <Due at={r.dueAt} />
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          {byDate.length > 0 ? <ByDate items={byDate} /> : null}
          <Section
            title={texts.workAtTheNext}
            aside={
              ahead.next
                ? `${dayText(dayStart(ahead.next.startsOn, ahead.next.timeZone), { ...site, timeZone: ahead.next.timeZone })}, ` +
                  texts.crewHoursOf(
                    ahead.next.work.reduce((s, w) => s + w.hours, 0),
                    ahead.next.crewHours,
                  )
                : undefined
            }
          >
            {!ahead.next ? (
              <Empty>
                {texts.noStopIsPlanned}{" "}
                {mayBook && watched > 0 ? (
                  <Link className="act" to="/fleet/new/stop">
                    {texts.planAStop}
                  </Link>
                ) : null}
              </Empty>
            ) : ahead.next.work.length === 0 ? (
              <Empty>{texts.nothingIsBookedOn}</Empty>
            ) : (
              <ul>
                {ahead.next.work.map((w) => {
                  const part = partWord(w, ahead.next!, site.now);
                  return (
                    <li key={w.id} className="ruled flex justify-between gap-3 py-1.5">
                      <Link to={`/work/${w.id}`} className="truncate hover:underline">
                        {w.what}
                      </Link>
                      <span className={`whitespace-nowrap ${part.late ? "text-ochre" : ""}`}>{part.text}</span>
                    </li>
                  );
                })}
              </ul>
            )}
          </Section>
        </div>
      </div>
    </>
  );
}
