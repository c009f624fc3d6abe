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
import { filters as texts } from "./texts";

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
  if (f.past) return texts.oilBypassesIt(f.past);
  if (f.blocked) return texts.blockedTheBypassIs;
  if (!f.daysLeft) return texts.noMeasurableClogging;
  const at = (days: number) => dayText(site.now + days * DAY, site);
  return (
    texts.cloggingTheBypassOpens(at(f.daysLeft.early)) +
    texts.mostLikely(f.daysLeft.late === null ? texts.aDateThatCannot : at(f.daysLeft.late)) +
    texts.about(at(f.daysLeft.middle))
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
    <Section title={texts.filtersAndInletStrainer}>
      <ul>
        {elements.map((e) => {
          const f = filters.find((x) => x.componentId === e.componentId);
          const point = points.find((p) => p.componentId === e.componentId);
          return (
            <li key={e.componentId} className="ruled py-2.5">
              <p>
                <strong className="font-semibold">{e.name}</strong>
                {e.since ? texts.elementInSince(dayText(e.since, site)) : ""}.{" "}
                <span className={f?.past || f?.blocked ? "text-verm" : "text-ink-2"}>
                  {f ? sentence(f, site) : texts.itsDifferentialPressureIs}
                </span>
              </p>
              {f ? (
                <p className="text-sm text-ink-2">
                  {texts.dropAtOneViscosity(
                    show(f.now, "pressureDrop"),
                    show(f.asFitted, "pressureDrop"),
                    f.usualNew !== null ? texts.usualOfANew(show(f.usualNew, "pressureDrop")) : "",
                    f.hoursLeft && !f.past
                      ? `; ${formatNumber(Math.round(f.hoursLeft.early / 10) * 10, 0)} ` +
                          `${f.hoursLeft.late === null ? texts.orMore : texts.to(formatNumber(Math.round(f.hoursLeft.late / 10) * 10, 0))} ` +
                          texts.runningHoursLeft
                      : "",
                  )}{" "}
                  {point ? (
                    <Link to={`/points/${point.pointId}`} className="way">
                      {texts.itsReadings}
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
              <strong className="font-semibold">{texts.inletStrainerOfThe(lowerFirst(s.component))}</strong>
              {texts.byItsInletVacuum} <span className={stateTone[s.state]}>{stateWords[s.state]}</span>.{" "}
              <span className="text-ink-2">
                <Verdict parts={s.verdict} />
              </span>{" "}
              <Link to={`/points/${s.pointId}`} className="way">
                {texts.itsReadings}
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
      <summary className="text-sm text-sea">{texts.recordANewElement}</summary>
      <Form method="post" action={`/oil/${circuitId}`} noValidate className="mt-2">
        <input type="hidden" name="componentId" value={element.componentId} />
        <input type="hidden" name="submission" value={element.submission} />
        <input type="hidden" name="present" value={element.lifeId ?? ""} />
        <FormProblemsProvider problems={problems}>
          <div className="grid max-w-3xl gap-3 sm:grid-cols-3">
            <TextField
              name="at"
              label={texts.fittedAt}
              type="datetime-local"
              defaultValue={localInput(now, site.timeZone)}
            />
            <TextField
              name="element"
              label={texts.element}
              hint={texts.asMarkedOnIt}
              defaultValue={element.element ?? ""}
              maxLength={60}
            />
            <TextField
              name="found"
              label={texts.whatTheOldOne}
              placeholder={texts.bronzeGlitterNoRubber}
              maxLength={300}
            />
          </div>
          <p className="mt-2">
            <Button tone="plain">{texts.recordIt}</Button>
          </p>
        </FormProblemsProvider>
      </Form>
    </details>
  );
}
