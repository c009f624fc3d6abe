/** Parts of Today: what changed since the last look, what comes due by its date. */
import { Link } from "react-router";
import { lowerFirst, dayOf, partAgainstStop, type PartAnswer, stateWords } from "@core";
import type { Changed, NextStop } from "~/domain/overview/index.server";
import type { DueItem } from "~/domain/bookings/index.server";
import { Section } from "~/ui/page";
import { DueRows } from "~/ui/dueRows";
import { momentText, useSite } from "~/ui/site";
import { stateTone } from "~/ui/state";
import { counted } from "~/ui/counted";

const numbers = [
  "Nothing needs",
  "One thing needs",
  "Two things need",
  "Three things need",
  "Four things need",
  "Five things need",
  "Six things need",
  "Seven things need",
  "Eight things need",
  "Nine things need",
];

/** What changed since the reader looked before this visit. */
export function Since({ changed: { since, points, states, done } }: { changed: Changed }) {
  const site = useSite();
  return (
    <Section title="Since you last looked" aside={momentText(since, site)}>
      <ul>
        {points.map((p) => (
          <li key={p.pointId} className="ruled py-1.5">
            <Link to={`/points/${p.pointId}`} className="hover:underline">
              {p.machine}, {lowerFirst(p.component)}
            </Link>
            : <span className={stateTone[p.state]}>{stateWords[p.state]}</span>
            <span className="text-ink-2">{`, was ${stateWords[p.before]}`}</span>
          </li>
        ))}
        {states > points.length ? (
          <li className="py-1.5 text-ink-2">{`${states - points.length} more changed their state.`}</li>
        ) : null}
        {done > 0 ? (
          <li className="py-1.5">
            <Link to="/work" className="hover:underline">
              {`${counted(done, "piece")} of work done`}
            </Link>
          </li>
        ) : null}
      </ul>
    </Section>
  );
}

/** Stop-gaps, valves to move, hoses, fills, campaigns, work not proven: the first that fall due. */
export function ByDate({ items }: { items: readonly DueItem[] }) {
  return (
    <Section
      title="Due by date"
      aside={
        <Link to="/work/due" className="way">
          All of it
        </Link>
      }
    >
      <DueRows items={items} />
    </Section>
  );
}

export function finding(open: number): string {
  return `${numbers[open] ?? `${open} things need`} a decision`;
}

export function partWord(work: NextStop["work"][number], stop: NextStop, now: number): PartAnswer {
  return work.needsPart
    ? partAgainstStop(
        { leadTimeDays: work.leadTimeDays, orderedOn: work.orderedOn, today: dayOf(now, stop.timeZone) },
        stop.startsOn,
      )
    : { late: false, text: "no part needed" };
}
