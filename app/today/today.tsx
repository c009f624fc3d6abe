import { TZDate } from "@date-fns/tz";
import { Link } from "react-router";
import type { Route } from "./+types/today";
import { conditionStates, dayStart, type ConditionState, stateWords } from "@core";
import {
  sinceLastLook,
  openDecisions,
  HORIZON_MONTHS,
  duePoints,
  dueRounds,
  horizon,
  needs,
  oilNeeds,
  stateCounts,
  stopsAhead,
} from "~/domain/overview/index.server";
import { dueWork } from "~/domain/bookings/index.server";
import { guard, oncePerRequest } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { Due } from "~/ui/due";
import { dayText, useSite } from "~/ui/site";
import { monthName, weekday } from "~/ui/calendarNames";
import { Horizon } from "./horizon";
import { DecisionRow, FaultRow, OilRow, pointsOf, pressing } from "./needs";
import { Since, ByDate, finding, partWord } from "./parts";

const whatWasReadIsWell = (read: number, unread: number) =>
  read === 0
    ? "No point was read yet, so nothing is known of these machines. Walk the rounds, or log a reading at a point."
    : `${read === 1 ? "The point that was read needs nobody" : `The ${read} points that were read need nobody`}. ` +
      `${unread === 1 ? "One was not read yet" : `${unread} were not read yet`}, ` +
      `and nothing is known of ${unread === 1 ? "it" : "them"}: walk the rounds.`;

const DUE_SHOWN = 5;

export const meta = () => [{ title: "Today · Juncteral" }];

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
            ? "No machines yet"
            : open === 0 && counts.unread > 0
              ? counts.unread === watched
                ? "Nothing is read yet"
                : `Nothing needs a decision in what was read; ${counts.unread} of ${watched} points are not read yet`
              : finding(open)
        }
      >
        {`${weekday(today)} ${today.getDate()} ${monthName(today)}. ${watched} points watched${
          watched > 0
            ? `: ${order
                .filter((s) => counts[s] > 0)
                .map((s) => `${counts[s]} ${stateWords[s]}`)
                .join(", ")}`
            : ""
        }.`}
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,560fr)_minmax(0,486fr)]">
        <Section title="Needs you, worst first">
          {toDecide.length + oils.length === 0 ? (
            <Empty>
              {watched === 0 ? (
                mayBook ? (
                  <>
                    Begin with a machine from a template: it is ready to be read in two minutes. Or load a whole fleet
                    from a file.{" "}
                    <span className="mt-2 flex gap-5">
                      <Link className="act" to="/fleet/begin">
                        Add a machine from a template
                      </Link>
                      <Link className="way" to="/records/fleet">
                        Load a fleet file
                      </Link>
                    </span>
                  </>
                ) : (
                  "An engineer adds the first machine."
                )
              ) : counts.unread > 0 ? (
                whatWasReadIsWell(watched - counts.unread, counts.unread)
              ) : (
                "Every point is steady. Walk the rounds that are due; that is all for today."
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
              <>
                The worst {shown} of {open};{" "}
                {
                  <Link to="/fleet" className="way">
                    Fleet
                  </Link>
                }{" "}
                and{" "}
                {
                  <Link to="/oil" className="way">
                    Oil
                  </Link>
                }{" "}
                have the rest.
              </>
            </p>
          ) : null}
        </Section>
        <div>
          {changed ? <Since changed={changed} /> : null}
          <Section title="Horizon" aside={`next ${months} months · P10 to P90, mark at P50`}>
            {lines.length === 0 ? (
              <Empty>
                {counts.unread === watched
                  ? "Nothing is read yet, so nothing can be forecast."
                  : `No point is forecast to reach its limit within ${months} months.`}
              </Empty>
            ) : (
              <Horizon lines={lines} stops={ahead.all} months={months} />
            )}
          </Section>
          <Section title="Readings due" aside={dueInAll ? `${dueInAll} within a week` : undefined}>
            {due.length === 0 ? (
              <Empty>No reading falls due within a week.</Empty>
            ) : (
              <ul>
                {due.map((r) => (
                  <li key={r.roundId} className="ruled grid grid-cols-[minmax(0,1fr)_6rem_6.5rem] py-1.5">
                    <Link to={`/rounds/${r.roundId}`} className="truncate hover:underline">
                      {r.name}
                    </Link>
                    <span className="text-right">
                      {r.points} {r.points === 1 ? "point" : "points"}
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
            title="Work at the next stop"
            aside={
              ahead.next
                ? `${dayText(dayStart(ahead.next.startsOn, ahead.next.timeZone), { ...site, timeZone: ahead.next.timeZone })}, ` +
                  `${ahead.next.work.reduce((s, w) => s + w.hours, 0)} crew hours of ${ahead.next.crewHours}`
                : undefined
            }
          >
            {!ahead.next ? (
              <Empty>
                No stop is planned.{" "}
                {mayBook && watched > 0 ? (
                  <Link className="act" to="/fleet/new/stop">
                    Plan a stop
                  </Link>
                ) : null}
              </Empty>
            ) : ahead.next.work.length === 0 ? (
              <Empty>Nothing is booked on it yet.</Empty>
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
