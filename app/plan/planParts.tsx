/** Parts of the plan: its tools, what is in its way, keeping it. */
import { Form, Link } from "react-router";
import { lowerFirst } from "@core";
import { Button, fieldClass, Notice, TextField } from "~/ui/form";
import type { SitePlan } from "~/domain/plan/index.server";
import { SteppedSelect } from "~/ui/steppedSelect";
import type { Solved } from "./planner.worker";
import type { useWishes } from "./useWishes";

/** Months that the board can show. */
const ZOOMS = [1, 3, 6, 12, 24, 36];

interface Tools extends Pick<ReturnType<typeof useWishes>, "wishes" | "set" | "reset"> {
  site: { id: string };
  sites: readonly { id: string; name: string }[];
  months: number;
  setMonths: (months: number) => void;
  only: string;
  setOnly: (only: string) => void;
  solving: boolean;
  stop: () => void;
  again: () => void;
}

/** Which site, how far ahead, which machines; what is weighed, and a crew that is larger. */
export function PlanTools({
  site,
  sites,
  months,
  setMonths,
  only,
  setOnly,
  wishes,
  set,
  reset,
  solving,
  stop,
  again,
}: Tools) {
  return (
    <div className="mb-4 flex flex-wrap items-end gap-x-5 gap-y-2 text-sm print:hidden">
      {sites.length > 1 ? (
        <Form method="get" className="flex items-end gap-2">
          <label>
            <span className="block text-ink-2">Site</span>
            <select name="site" className={fieldClass} defaultValue={site.id}>
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
          <Button tone="plain">Go to it</Button>
        </Form>
      ) : null}
      <label>
        <span className="block text-ink-2">Show</span>
        <select className={fieldClass} value={months} onChange={(e) => setMonths(Number(e.target.value))}>
          {ZOOMS.map((m) => (
            <option key={m} value={m}>
              {m === 1 ? "a month" : m < 12 ? `${m} months` : m === 12 ? "a year" : `${m / 12} years`}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="block text-ink-2">Machine or component</span>
        <input className={fieldClass} value={only} onChange={(e) => setOnly(e.target.value)} placeholder="all" />
      </label>
      <label>
        <span className="block text-ink-2">Weigh</span>
        <SteppedSelect
          className={fieldClass}
          value={String(wishes.caution)}
          onTake={(caution) => set({ caution: Number(caution) })}
        >
          <option value={0}>the expected cost</option>
          <option value={0.5}>the worst tenth as much</option>
          <option value={0.8}>mostly the worst tenth</option>
        </SteppedSelect>
      </label>
      <label>
        <span className="block text-ink-2">More crew at each stop</span>
        <SteppedSelect
          className={fieldClass}
          value={String(wishes.moreCrew.mechanical ?? 0)}
          onTake={(hours) => set({ moreCrew: { mechanical: Number(hours) } })}
        >
          {[0, 8, 16, 24, 40].map((h) => (
            <option key={h} value={h}>
              {h === 0 ? "none" : `${h} h`}
            </option>
          ))}
        </SteppedSelect>
      </label>
      {solving ? (
        <Button type="button" tone="plain" onClick={stop}>
          Stop solving
        </Button>
      ) : (
        <Button type="button" tone="plain" onClick={again}>
          Solve again
        </Button>
      )}
      <Button type="button" tone="plain" onClick={reset}>
        Take wishes back
      </Button>
    </div>
  );
}

/** What is in the way of the plan, with what can be done; facts that are missing. */
export function Troubles({ plan, troubles }: { plan: SitePlan; troubles: Solved["troubles"] }) {
  const unstated = Object.values(plan.pieces).filter((p) => p.needsPart && p.leadTimeDays === null && !p.orderedOn);
  if (troubles.length + plan.strangeTags.length + unstated.length === 0) return null;
  return (
    <Notice tone="ochre" live={false}>
      <ul>
        {troubles.map((t, i) => (
          <li key={i}>
            {t.text} <span className="text-ink-2">{`What can be done: ${t.offers.join("; ")}.`}</span>
          </li>
        ))}
        {unstated.map((p) => (
          <li key={p.id}>
            {`${p.machine}, ${lowerFirst(p.component)}: how long its part takes is not stated, so it is taken as on the shelf.`}{" "}
            <Link to={`/fleet/edit/component/${p.componentId}`} className="way">
              State it
            </Link>
          </li>
        ))}
        {plan.strangeTags.map((t) => (
          <li key={`${t.stop} ${t.tag}`}>{`${t.stop} names the machine ${t.tag}, which is not at this site.`}</li>
        ))}
      </ul>
    </Notice>
  );
}

/** Keeping a plan by a name, to compare it or to book it. */
export function KeepPlan({
  siteId,
  submission,
  wishes,
  solved,
  fresh,
}: {
  siteId: string;
  submission: string;
  wishes: unknown;
  solved: Solved;
  fresh: boolean;
}) {
  return (
    <Form method="post" className="mb-7 flex flex-wrap items-end gap-3 print:hidden">
      <input type="hidden" name="intent" value="keep" />
      <input type="hidden" name="siteId" value={siteId} />
      <input type="hidden" name="submission" value={submission} />
      <input type="hidden" name="wishes" value={JSON.stringify(wishes)} />
      <input type="hidden" name="choice" value={JSON.stringify(solved.choice)} />
      <input type="hidden" name="gap" value={solved.gap} />
      <TextField name="name" label="Keep this plan as" defaultValue="" placeholder="One more fitter" maxLength={80} />
      <Button disabled={!fresh}>Keep it</Button>
    </Form>
  );
}
