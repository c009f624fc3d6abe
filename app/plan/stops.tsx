import { Link } from "react-router";
import type { Wishes } from "@core";
import type { SitePlan } from "~/domain/plan/pieces.server";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

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
            const has = s.crewHours + s.electricianHours + (wishes.moreCrew.mechanical ?? 0);
            const left = wishes.without.includes(s.id);
            return (
              <li key={s.id} className="ruled flex flex-wrap items-center justify-between gap-x-3 py-1.5 text-sm">
                <span className={left ? "text-ink-2 line-through" : ""}>
                  {s.name}, {dayText(s.at, site)}, {s.days} day{s.days === 1 ? "" : "s"}
                </span>
                <span className={hours > has ? "font-medium text-ochre" : "text-ink-2"}>
                  {own.length} piece{own.length === 1 ? "" : "s"}, {hours} of {has} crew hours
                </span>
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
    </Section>
  );
}
