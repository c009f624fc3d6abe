/** Parts of the page of one piece of work. */
import { Form, Link } from "react-router";
import { Button, CheckField, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { Section } from "~/ui/page";
import { dayText, localInput, useShow, useSite } from "~/ui/site";
import type { InterventionPage } from "~/domain/bookings/index.server";
import { Compared } from "./compared";
import { KeepWriteUp, WriteUpFields } from "./writeUp";

const cautions = [
  "Isolate, lock and release stored pressure (accumulators and pressurised reservoirs too); prove zero at a gauge.",
  "Suspended loads are propped before a line is opened. Hot oil; eye protection; card, never the hand, to look for a leak.",
  "Torque, settings and limits come from the manufacturer's current manual; isolation and lifting follow local codes and are done by licensed people.",
  "Measure before washing, keep debris as evidence, plug every open line. Fill the case before the first start; the case drain stays open.",
];

/** What the readings say before and after; what is not proven yet. */
export function BeforeAfter({ page }: { page: InterventionPage }) {
  const { work } = page;
  return (
    <Section title="Before beside after">
      {page.compared.length === 0 ? (
        <p className="py-2 text-ink-2">The component has no point: nothing to compare.</p>
      ) : (
        <Compared rows={page.compared} condemned={work.pointId} />
      )}
      {page.proven === null && !work.signedAt ? (
        <p className="mt-2 text-ink-2">
          Not proven yet: repeat the reading that condemned the part, at the same conditions.{" "}
          {work.pointId ? (
            <Link to={`/points/${work.pointId}`} className="act">
              Log it now
            </Link>
          ) : null}
        </p>
      ) : null}
    </Section>
  );
}

/** Into another stop; the part ordered; cancelled. */
export function MoveWork({
  page,
  choices,
}: {
  page: InterventionPage;
  choices: readonly { id: string; name: string; at: number }[];
}) {
  const { work } = page;
  const site = useSite();
  return (
    <Section title="Plan">
      <Form method="post" className="mt-3 flex flex-wrap items-end gap-3">
        <input type="hidden" name="version" value={work.version} />
        <div className="w-72">
          <SelectField
            name="stopId"
            label="Stop"
            defaultValue={work.stopId ?? ""}
            options={[
              { value: "", label: "a stop of its own" },
              ...choices.map((s) => ({ value: s.id, label: `${s.name}, ${dayText(s.at, site)}` })),
            ]}
          />
        </div>
        <Button name="intent" value="move" tone="plain">
          Move it there
        </Button>
        {work.partOrderedOn || work.kind === "inspection" ? null : (
          <Button name="intent" value="order" tone="plain">
            Part is ordered
          </Button>
        )}
        <ConfirmButton
          intent="cancel"
          label="Cancel the work"
          question="Cancel this work?"
          explain="It leaves the stop. The record keeps that it was booked and cancelled."
        />
      </Form>
    </Section>
  );
}

/** When it was done, at which hours, what was found: the life of a replaced part ends with it. */
export function RecordDone({
  page,
  mayEdit,
  problems,
  kept,
}: {
  page: InterventionPage;
  mayEdit: boolean;
  problems: Record<string, string> | undefined;
  kept: boolean;
}) {
  const { work } = page;
  const site = useSite();
  const show = useShow();
  return (
    <Section title="Record it as done">
      <Notice tone="ochre" live={false}>
        <ul className="list-disc pl-4">
          {cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      </Notice>
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={work.version} />
        <div className="grid gap-4 sm:grid-cols-3">
          <TextField
            name="doneAt"
            label="Done at"
            type="datetime-local"
            defaultValue={localInput(page.fromSteps.doneAt ?? site.now, page.timeZone)}
            hint={work.kind === "replacement" ? "Readings from this moment on are the new part’s" : undefined}
          />
          <TextField
            name="hours"
            label="Running hours"
            suffix="h"
            inputMode="decimal"
            defaultValue={page.fromSteps.hours ?? undefined}
            hint={page.counter === null ? undefined : `Last noted: ${show(page.counter, "runningHours")}`}
          />
          {work.kind === "replacement" ? (
            <TextField
              name="serial"
              label="Serial of the new part"
              defaultValue={page.fromSteps.serial}
              maxLength={60}
            />
          ) : null}
        </div>
        <div className="mt-4">
          <TextArea name="findings" label="What was found, changed, measured" maxLength={2000} />
        </div>
        <h3 className="mt-5 mb-2">For the record, and for the next shift</h3>
        <WriteUpFields page={page} />
        <KeepWriteUp kept={kept} />
        {work.kind === "replacement" ? null : (
          <div className="mt-4">
            <TextField
              name="modification"
              label="Changed for good (a modification): what, where it is one"
              maxLength={500}
              hint="Trends of the part begin anew from here."
            />
            <div className="mt-1">
              <CheckField name="wholeCircuit" label="Trends of the whole circuit begin anew" />
            </div>
          </div>
        )}
        {mayEdit && problems?.form ? (
          <div className="mt-3">
            <CheckField name="acceptAltered" label="I accept by name that it stays altered" />
          </div>
        ) : null}
        {problems?.hours ? (
          <div className="mt-3">
            <CheckField name="hoursRight" label="The hours are right all the same" />
          </div>
        ) : null}
        <p className="my-3 text-sm text-ink-2">
          {work.kind === "replacement"
            ? "The life of the old part ends here and a new one begins, with a provisional baseline."
            : "The life of the part goes on."}{" "}
          Everything altered for the work must be put back before you sign.
        </p>
        <Button name="intent" value="finish">
          Record it as done
        </Button>
      </Form>
    </Section>
  );
}
