/** The hour meter of a machine: its changes, and the form that records one. */
import { Form } from "react-router";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { Section } from "~/ui/page";
import { localInput, momentText, useShow, useSite } from "~/ui/site";
import { meter as texts } from "./texts";

const words = { replaced: "Replaced", reset: texts.setBack, corrected: texts.putRight };

export interface MeterChangeShown {
  id: string;
  at: number;
  kind: keyof typeof words;
  before: number;
  after: number;
  note: string;
  by: string;
}

export function HourMeter({
  changes,
  mayEdit,
  submission,
  now,
  timeZone,
  problems,
}: {
  changes: readonly MeterChangeShown[];
  mayEdit: boolean;
  submission: string;
  now: number;
  timeZone: string;
  problems: Record<string, string> | undefined;
}) {
  const site = { ...useSite(), timeZone };
  const show = useShow();
  if (!mayEdit && changes.length === 0) return null;
  const hours = (value: number) => show(value, "runningHours");
  return (
    <Section
      title={texts.hourMeter}
      aside={
        changes.length === 0
          ? texts.neverChanged
          : texts.changed(changes.length === 1 ? texts.once : texts.times(changes.length))
      }
    >
      <ul className="text-sm">
        {changes.map((c) => (
          <li key={c.id} className="ruled flex flex-wrap items-baseline gap-x-4 py-1.5">
            <span>
              {texts.beforeAfter(words[c.kind], momentText(c.at, site), hours(c.before), hours(c.after), c.note)}{" "}
              <span className="text-ink-2">({c.by})</span>
            </span>
            {mayEdit ? (
              <Form method="post">
                <input type="hidden" name="intent" value="withdrawMeter" />
                <input type="hidden" name="change" value={c.id} />
                <button className="way">{texts.withdrawThisRecord}</button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
      {mayEdit ? (
        <details open={problems ? true : undefined}>
          <summary className="py-1.5 text-sm text-sea">{texts.recordAReplacedOr}</summary>
          <Form method="post" noValidate key={submission} className="mt-2 max-w-xl">
            <input type="hidden" name="intent" value="meter" />
            <input type="hidden" name="submission" value={submission} />
            <FormProblemsProvider problems={problems}>
              <div className="grid gap-3 sm:grid-cols-2">
                <SelectField
                  name="kind"
                  label={texts.whatWasDone}
                  options={[
                    { value: "replaced", label: texts.theMeterWasReplaced },
                    { value: "reset", label: texts.itWasSetBack },
                    { value: "corrected", label: texts.aWrongFigureWas },
                  ]}
                />
                <TextField
                  name="at"
                  label={texts.when}
                  type="datetime-local"
                  defaultValue={localInput(now, timeZone)}
                />
                <TextField name="before" label={texts.itShowedBefore} suffix="h" inputMode="decimal" />
                <TextField
                  name="after"
                  label={texts.itShowsAfter}
                  suffix="h"
                  inputMode="decimal"
                  hint={texts.aNewMeter0}
                />
                <div className="sm:col-span-2">
                  <TextField name="note" label={texts.note} maxLength={300} />
                </div>
              </div>
              <div className="mt-3">
                <Button>{texts.recordIt}</Button>
              </div>
            </FormProblemsProvider>
          </Form>
        </details>
      ) : null}
    </Section>
  );
}
