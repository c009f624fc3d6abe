/** Filters: the drop brought to one viscosity and flow, when the element is full, whether oil goes past it; and its renewal. */
import { Form, Link, useActionData } from "react-router";
import {
  DAY,
  formatNumber,
  lowerFirst,
  stateWords,
  type Assessment,
  type ConditionState,
  type OilAssessment,
} from "@core";
import { Button, FormProblemsProvider, TextField } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { Section } from "~/ui/page";
import { dayText, localInput, useShow, useSite } from "~/ui/site";
import { stateTone } from "~/ui/state";
import { Verdict } from "~/ui/verdict";

interface Element {
  componentId: string;
  /** The life of the element that is in; null: none is on record. */
  lifeId: string | null;
  name: string;
  since: number | null;
  element: string | null;
  /** For the form that renews it. */
  submission: string;
}

type Filter = OilAssessment["filters"][number];

function sentence(f: Filter, site: ReturnType<typeof useSite>): string {
  if (f.past) return `Oil bypasses it: ${f.past}.`;
  if (f.blocked) return "Blocked: the bypass is open, or nearly. Replace the element.";
  if (!f.daysLeft) return "No measurable clogging.";
  const at = (days: number) => dayText(site.now + days * DAY, site);
  return (
    `Clogging: the bypass opens between ${at(f.daysLeft.early)} and ` +
    `${f.daysLeft.late === null ? "a date that cannot be estimated yet" : at(f.daysLeft.late)}, most likely ` +
    `about ${at(f.daysLeft.middle)}.`
  );
}

export function FilterSection({
  circuitId,
  filters,
  elements,
  points,
  strainers,
  mayLog,
  now,
}: {
  circuitId: string;
  strainers: readonly {
    pointId: string;
    component: string;
    state: ConditionState;
    verdict: Assessment["verdict"];
    margin: Assessment["margin"];
  }[];
  filters: readonly Filter[];
  elements: readonly Element[];
  points: readonly { componentId: string; pointId: string }[];
  mayLog: boolean;
  now: number;
}) {
  const site = useSite();
  const show = useShow();
  if (elements.length + strainers.length === 0) return null;
  return (
    <Section title="Filters and inlet strainer">
      <ul>
        {elements.map((e) => {
          const f = filters.find((x) => x.componentId === e.componentId);
          const point = points.find((p) => p.componentId === e.componentId);
          return (
            <li key={e.componentId} className="ruled py-2.5">
              <p>
                <strong className="font-semibold">{e.name}</strong>
                {e.since ? `, element in since ${dayText(e.since, site)}` : ""}.{" "}
                <span className={f?.past || f?.blocked ? "text-verm" : "text-ink-2"}>
                  {f
                    ? sentence(f, site)
                    : "Its differential pressure is not read, so clogging and bypass flow cannot be detected."}
                </span>
              </p>
              {f ? (
                <p className="text-sm text-ink-2">
                  {`Drop at one viscosity and flow: ${show(f.now, "pressureDrop")} now, ${show(f.asFitted, "pressureDrop")} as fitted` +
                    (f.usualNew !== null ? `, ${show(f.usualNew, "pressureDrop")} usual of a new one` : "") +
                    `${
                      f.hoursLeft && !f.past
                        ? `; ${formatNumber(Math.round(f.hoursLeft.early / 10) * 10, 0)} ` +
                          `${f.hoursLeft.late === null ? "or more" : `to ${formatNumber(Math.round(f.hoursLeft.late / 10) * 10, 0)}`} ` +
                          "running hours left"
                        : ""
                    }.`}{" "}
                  {point ? (
                    <Link to={`/points/${point.pointId}`} className="way">
                      Its readings
                    </Link>
                  ) : null}
                </p>
              ) : null}
              {mayLog ? <RenewForm circuitId={circuitId} element={e} now={now} /> : null}
            </li>
          );
        })}
        {strainers.map((s) => (
          <li key={s.pointId} className="ruled grid gap-x-4 py-2.5 sm:grid-cols-[minmax(0,1fr)_auto]">
            <p>
              <strong className="font-semibold">{`Inlet strainer of the ${lowerFirst(s.component)}`}</strong>, by its
              inlet vacuum, <span className={stateTone[s.state]}>{stateWords[s.state]}</span>.{" "}
              <span className="text-ink-2">
                <Verdict parts={s.verdict} />
              </span>{" "}
              <Link to={`/points/${s.pointId}`} className="way">
                Its readings
              </Link>
            </p>
            <MarginRule margin={s.margin} state={s.state} width={112} label={false} />
          </li>
        ))}
      </ul>
    </Section>
  );
}

function RenewForm({ circuitId, element, now }: { circuitId: string; element: Element; now: number }) {
  const site = useSite();
  const answer = useActionData() as { problems?: Record<string, string>; componentId?: string } | undefined;
  const problems = answer?.componentId === element.componentId ? answer.problems : undefined;
  return (
    <details className="mt-1" open={problems ? true : undefined}>
      <summary className="text-sm text-sea">Record a new element</summary>
      <Form method="post" action={`/oil/${circuitId}`} noValidate className="mt-2">
        <input type="hidden" name="componentId" value={element.componentId} />
        <input type="hidden" name="submission" value={element.submission} />
        <input type="hidden" name="present" value={element.lifeId ?? ""} />
        <FormProblemsProvider problems={problems}>
          <div className="grid max-w-3xl gap-3 sm:grid-cols-3">
            <TextField
              name="at"
              label="Fitted at"
              type="datetime-local"
              defaultValue={localInput(now, site.timeZone)}
            />
            <TextField
              name="element"
              label="Element"
              hint="As marked on it"
              defaultValue={element.element ?? ""}
              maxLength={60}
            />
            <TextField
              name="found"
              label="What the old one held"
              placeholder="Bronze glitter, no rubber"
              maxLength={300}
            />
          </div>
          <p className="mt-2">
            <Button tone="plain">Record it</Button>
          </p>
        </FormProblemsProvider>
      </Form>
    </details>
  );
}
