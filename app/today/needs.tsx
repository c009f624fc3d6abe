/** What needs a decision on Today: a fault with its points, a point by itself, the oil of a circuit. */
import type { ReactNode } from "react";
import { Link } from "react-router";
import { lowerFirst, actsNow, actText, causes, dayStart, stateWords } from "@core";
import type { Decision, FaultNeed, Need, OilNeed } from "~/domain/overview/index.server";
import { MarginRule } from "~/ui/marginRule";
import { oddsText } from "~/ui/odds";
import { dayText, monthText, useSite } from "~/ui/site";
import { Spark } from "~/ui/spark";
import { StateGlyph, stateTone } from "~/ui/state";
import { Verdict } from "~/ui/verdict";
import { counted } from "~/ui/counted";

const bookedText = (kind: string, startsOn: string) => `Booked: ${kind}${startsOn}`;

/** The points of an entry, the worst first. */
export const pointsOf = (need: Need): Decision[] => (need.kind === "point" ? [need.point] : need.fault.points);
export const pressing = ({ state }: Decision) => state === "alarm" || state === "alert";

type Margin = Parameters<typeof MarginRule>[0];

/** One entry of the list: its state, where it leads, what is said of it, and its margin. */
function Entry(props: {
  state: Decision["state"];
  to: string;
  title: string;
  margin: Margin["margin"];
  of?: Margin["of"];
  trend?: Decision["trend"];
  children: ReactNode;
}) {
  const { state, to, title, margin, of, trend, children } = props;
  return (
    <li className="ruled grid grid-cols-[22px_minmax(0,1fr)] gap-x-2.5 py-3 sm:grid-cols-[22px_minmax(0,1fr)_142px] sm:gap-x-4">
      <span className="pt-0.5">
        <StateGlyph state={state} />
      </span>
      <div className="min-w-0">
        <h3 className="[overflow-wrap:anywhere]">
          <Link to={to} className="hover:underline">
            {title}
          </Link>{" "}
          <span className={`text-sm font-normal ${stateTone[state]}`}>{state}</span>
        </h3>
        {children}
      </div>
      <div className="col-start-2 pt-1 sm:col-start-3 sm:text-right">
        <MarginRule margin={margin} state={state} of={of} />
        {trend ? (
          <span className="block max-sm:hidden">
            <Spark {...trend} state={state} />
          </span>
        ) : null}
      </div>
    </li>
  );
}

/** How a fault is dealt with: now, where nothing has to stop; else by work in a stop. */
function FaultActs({ f, mayBook }: { f: FaultNeed; mayBook: boolean }) {
  const site = useSite();
  const worst = f.points[0]!;
  const booking = f.points.find((p) => p.booking)?.booking;
  return (
    <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
      <Link to={`/isolate/faults/${f.circuitId}`} className={actsNow(f.fault.cause) ? "act" : "way"}>
        {actsNow(f.fault.cause) ? "Put it right now" : "See the evidence"}
      </Link>
      {booking ? (
        <Link to={`/work/${booking.id}`} className="way">
          {bookedText(
            booking.kind,
            booking.startsOn ? `, ${dayText(dayStart(booking.startsOn, site.timeZone), site)}` : "",
          )}
        </Link>
      ) : mayBook && !actsNow(f.fault.cause) ? (
        <Link to={`/work/book?point=${worst.pointId}&from=fault&of=${f.circuitId}`} className="act">
          {pressing(worst) ? "Book work into a stop" : "Plan for a stop"}
        </Link>
      ) : null}
      {actsNow(f.fault.cause) ? null : (
        <Link to="/plan" className="way">
          See it in the plan
        </Link>
      )}
    </p>
  );
}

export function FaultRow({ f, mayBook }: { f: FaultNeed; mayBook: boolean }) {
  const site = useSite();
  const worst = f.points[0]!;
  const { fault } = f;
  const { act } = causes[fault.cause];
  return (
    <Entry
      state={worst.state}
      to={`/isolate/faults/${f.circuitId}`}
      title={`${f.machine}, ${fault.places.map(lowerFirst).join(" or ")}`}
      margin={worst.margin}
      trend={worst.trend}
    >
      <p className="text-ink-2">
        <strong className="font-semibold text-ink">{causes[fault.cause].label}</strong>
        {f.since === null ? "" : <>{`, since about ${monthText(f.since, site)}`}</>}
        {`: odds ${oddsText(fault.share)}.`} {actsNow(fault.cause) ? null : <Verdict parts={worst.verdict} />}
      </p>
      <p className="text-sm text-ink-2">{actText(act)}</p>
      {f.points.length > 1 ? (
        <details className="text-sm">
          <summary className="way w-fit cursor-pointer">{`It accounts for ${counted(f.points.length, "finding")}`}</summary>
          <ul className="mt-1">
            {f.points.map((p) => (
              <li key={p.pointId} className="flex items-center justify-between gap-3 py-1">
                <Link to={`/points/${p.pointId}`} className="min-w-0 hover:underline">
                  {p.component}: {lowerFirst(p.point)},{" "}
                  <span className={stateTone[p.state]}>{stateWords[p.state]}</span>
                </Link>
                <span className="w-32 shrink-0">
                  <MarginRule margin={p.margin} state={p.state} />
                </span>
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      <FaultActs f={f} mayBook={mayBook} />
    </Entry>
  );
}

export function DecisionRow({ d, mayBook }: { d: Decision; mayBook: boolean }) {
  const site = useSite();
  const book = `/work/book?point=${d.pointId}`;
  return (
    <Entry
      state={d.state}
      to={`/points/${d.pointId}`}
      title={`${d.machine}, ${lowerFirst(d.component)}`}
      margin={d.margin}
      trend={d.trend}
    >
      <p className="text-ink-2">
        <span className="sr-only">{d.point}. </span>
        <Verdict parts={d.verdict} />
      </p>
      <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {d.asksAgain ? (
          <Link to={`/points/${d.pointId}`} className="act">
            Take a second reading
          </Link>
        ) : null}
        {d.booking ? (
          <Link to={`/work/${d.booking.id}`} className="way">
            {bookedText(
              d.booking.kind,
              d.booking.startsOn ? `, ${dayText(dayStart(d.booking.startsOn, site.timeZone), site)}` : "",
            )}
          </Link>
        ) : mayBook && !(d.asksAgain && d.state === "steady") ? (
          d.state === "unproven" ? (
            <Link to={`${book}&kind=inspection`} className="act">
              Book a test
            </Link>
          ) : (
            <Link to={book} className="act">
              {d.state === "drifting" ? "Plan for a stop" : "Book work into a stop"}
            </Link>
          )
        ) : null}
        <Link to={`/points/${d.pointId}`} className="way">
          Look at the trend
        </Link>
        {mayBook && pressing(d) ? (
          <Link to={`/isolate/new?circuit=${d.circuitId}&symptom=gaugeOdd`} className="way">
            Find the cause
          </Link>
        ) : null}
      </p>
    </Entry>
  );
}

export function OilRow({ o }: { o: OilNeed }) {
  return (
    <Entry
      state={o.state}
      to={`/oil/${o.circuitId}`}
      title={`${o.machine}, oil of the ${lowerFirst(o.circuit)}`}
      margin={o.margin}
      of={o.margin?.of}
    >
      <p className="text-ink-2">
        <Verdict parts={o.verdict} />
      </p>
      <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {o.eventId ? (
          <Link to={`/oil/debris/${o.eventId}`} className="way">
            A debris event is open
          </Link>
        ) : (
          <Link to={`/oil/${o.circuitId}`} className="act">
            See what happened
          </Link>
        )}
      </p>
    </Entry>
  );
}
