/** What stands beside a plan: what would help it most, and what is due without a stop or by its date. */
import { Link } from "react-router";
import { lowerFirst, moneyText, type PlanHelp } from "@core";
import type { SitePlan } from "~/domain/plan/index.server";
import type { DueItem } from "~/domain/bookings/index.server";
import { DueRows } from "~/ui/dueRows";
import { Notice } from "~/ui/form";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

const HELPS_SHOWN = 6;
/** Rows of what falls due by its date within the plan. */
export const DUE_SHOWN = 20;

/** A part on the shelf, or one more reading before anything is decided. */
export function Helps({
  plan,
  helps,
  solving,
  currency,
}: {
  plan: SitePlan;
  /** Of the finished plan; null: it is not there yet. */
  helps: readonly PlanHelp[] | null;
  solving: boolean;
  currency: string;
}) {
  const here = useSite();
  return (
    <Section title="What would help most">
      {helps && helps.length > 0 ? (
        <ul>
          {helps.slice(0, HELPS_SHOWN).map((h) => (
            <li key={`${h.piece} ${h.kind}`} className="ruled flex justify-between gap-3 py-1.5 text-sm">
              <span>
                {h.kind === "part"
                  ? "Its part on the shelf: "
                  : `Read it again on ${dayText(h.at, here)}, then decide: `}
                {plan.pieces[h.piece]!.machine}, {lowerFirst(plan.pieces[h.piece]!.component)}
                {h.kind === "reading" ? (
                  <span className="block text-ink-2">{`less half an hour for the reading; knowing the day would save ${moneyText(h.most, currency)}`}</span>
                ) : null}
              </span>
              <span className="shrink-0">{moneyText(h.saves, currency)}</span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="py-2 text-ink-2">
          {solving
            ? "Comes with the finished plan."
            : "Neither a part on the shelf nor a further reading would change much."}
        </p>
      )}
    </Section>
  );
}

/** What a plan does not place: it needs no stop, or has a date of its own. */
export function DueBeside({ plan, due }: { plan: SitePlan; due: readonly DueItem[] }) {
  const here = useSite();
  return (
    <>
      {plan.atOnce.length > 0 ? (
        <Section title="Due without a stop">
          <ul>
            {plan.atOnce.map((n) => (
              <li key={n.key} className="ruled py-1.5 text-sm">
                <Link to={n.to} className="font-semibold hover:underline">
                  {n.text}
                </Link>
                <span className="text-ink-2">: {n.act}</span>
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      {due.length > 0 ? (
        <Section title={`Due by date, to ${dayText(plan.problem.until, here)}`}>
          <DueRows items={due.slice(0, DUE_SHOWN)} />
          {due.length > DUE_SHOWN ? (
            <p className="py-2 text-sm text-ink-2">
              {`The first ${DUE_SHOWN} by date.`} <Link to="/work/due">What is due within a month</Link>
            </p>
          ) : null}
        </Section>
      ) : null}
    </>
  );
}

/** Pieces of a kept plan that were not booked with it: "label (name)" each. */
export function LeftOut({ left }: { left: readonly string[] }) {
  if (left.length === 0) return null;
  return <Notice>Booked, but for what was done or called off since the plan was kept: {left.join("; ")}.</Notice>;
}
