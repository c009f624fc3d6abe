/** The hour meter of a machine: its changes, and the form that records one. */
import { Form } from "react-router";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { Section } from "~/ui/page";
import { localInput, momentText, useShow, useSite } from "~/ui/site";

const words = { replaced: "Replaced", reset: "Set back", corrected: "Put right" };

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
      title="Hour meter"
      aside={
        changes.length === 0 ? "never changed" : `changed ${changes.length === 1 ? "once" : `${changes.length} times`}`
      }
    >
      <ul className="text-sm">
        {changes.map((c) => (
          <li key={c.id} className="ruled flex flex-wrap items-baseline gap-x-4 py-1.5">
            <span>
              {`${words[c.kind]} ${momentText(c.at, site)}: ${hours(c.before)} before, ${hours(c.after)} after. ${c.note}`}{" "}
              <span className="text-ink-2">({c.by})</span>
            </span>
            {mayEdit ? (
              <Form method="post">
                <input type="hidden" name="intent" value="withdrawMeter" />
                <input type="hidden" name="change" value={c.id} />
                <button className="way">Withdraw this record</button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
      {mayEdit ? (
        <details open={problems ? true : undefined}>
          <summary className="py-1.5 text-sm text-sea">Record a replaced or reset meter</summary>
          <Form method="post" noValidate key={submission} className="mt-2 max-w-xl">
            <input type="hidden" name="intent" value="meter" />
            <input type="hidden" name="submission" value={submission} />
            <FormProblemsProvider problems={problems}>
              <div className="grid gap-3 sm:grid-cols-2">
                <SelectField
                  name="kind"
                  label="What was done"
                  options={[
                    { value: "replaced", label: "The meter was replaced" },
                    { value: "reset", label: "It was set back" },
                    { value: "corrected", label: "A wrong figure was corrected" },
                  ]}
                />
                <TextField name="at" label="When" type="datetime-local" defaultValue={localInput(now, timeZone)} />
                <TextField name="before" label="It showed before" suffix="h" inputMode="decimal" />
                <TextField name="after" label="It shows after" suffix="h" inputMode="decimal" hint="A new meter: 0" />
                <div className="sm:col-span-2">
                  <TextField name="note" label="Note" maxLength={300} />
                </div>
              </div>
              <div className="mt-3">
                <Button>Record it</Button>
              </div>
            </FormProblemsProvider>
          </Form>
        </details>
      ) : null}
    </Section>
  );
}
