import { Link } from "react-router";
import { hoursOf, tradeIds, trades, type CrewHours, type Wishes } from "@core";
import type { SitePlan } from "~/domain/plan/index.server";
import { fieldClass } from "~/ui/form";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { counted } from "~/ui/counted";

const MOST_HOURS = 9999;
const clamped = (text: string) => Math.min(MOST_HOURS, Math.max(0, Number(text) || 0));

/** Planned stops with what the plan puts into them; each can be left out. */
export function Stops({
  plan,
  lines,
  wishes,
  set,
  mayEdit,
}: {
  plan: SitePlan;
  mayEdit: boolean;
  lines: readonly { piece: string; option: { id: string } }[];
  wishes: Wishes;
  set: (change: Partial<Wishes>) => void;
}) {
  const site = useSite();
  const asked = plan.problem.stops;
  /** What a stop has anyway is no wish. */
  const setCrew = (stop: string, planned: CrewHours, crew: CrewHours) => {
    const { [stop]: _, ...others } = wishes.crewAt;
    const same = tradeIds.every((t) => planned[t] === crew[t]);
    set({ crewAt: same ? others : { ...others, [stop]: crew } });
  };
  return (
    <Section title="Planned stops">
      {plan.stops.length === 0 ? (
        <p className="py-2 text-ink-2">
          No stop is planned: every piece would need one of its own.{" "}
          {mayEdit ? (
            <Link to="/fleet/new/stop" className="way">
              Plan a stop
            </Link>
          ) : null}
        </p>
      ) : (
        <ul>
          {plan.stops.map((s) => {
            const own = lines.filter((l) => l.option.id === s.id);
            const hours = own.reduce((sum, l) => sum + plan.pieces[l.piece]!.hours, 0);
            const planned = asked.find((a) => a.id === s.id)?.crew ?? {};
            const crew = wishes.crewAt[s.id] ?? planned;
            const has = hoursOf(crew) + hoursOf(wishes.moreCrew);
            const left = wishes.without.includes(s.id);
            return (
              <li key={s.id} className="ruled flex flex-wrap items-center justify-between gap-x-3 py-1.5 text-sm">
                <span className={left ? "text-ink-2 line-through" : ""}>
                  {`${s.name}, ${dayText(s.at, site)}, ${counted(s.days, "day")}`}
                </span>
                <span className={hours > has ? "font-medium text-ochre" : "text-ink-2"}>
                  {`${counted(own.length, "piece")}, ${hours} of ${has} crew hours`}
                </span>
                {tradeIds
                  .filter((t) => planned[t] !== undefined)
                  .map((t) => (
                    <label key={t} className="flex items-center gap-1.5">
                      <span className="whitespace-nowrap text-ink-2">{`${trades[t]} hours`}</span>
                      <input
                        type="number"
                        min={0}
                        max={MOST_HOURS}
                        className={`${fieldClass} w-20`}
                        aria-label={`${trades[t]} hours of ${s.name} for this plan`}
                        value={crew[t] ?? 0}
                        onChange={(e) => setCrew(s.id, planned, { ...crew, [t]: clamped(e.target.value) })}
                      />
                    </label>
                  ))}
                <label className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="size-4 accent-sea"
                    checked={left}
                    onChange={(e) =>
                      set({
                        without: e.target.checked
                          ? [...wishes.without, s.id]
                          : wishes.without.filter((id) => id !== s.id),
                      })
                    }
                  />
                  plan without it
                </label>
              </li>
            );
          })}
        </ul>
      )}
      {plan.stops.length > 0 ? (
        <p className="py-1.5 text-xs text-ink-2">
          Where part of a crew is wanted elsewhere, write what is left for this plan.
        </p>
      ) : null}
    </Section>
  );
}
