/** Fills, top-ups and levels: the list, a wrong one taken back, a new one. */
import { Form, Link } from "react-router";
import { formatNumber } from "@core";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { Empty, Section } from "~/ui/page";
import { dayText, localInput, useSite } from "~/ui/site";
import type { fluidPage } from "~/domain/oil/index.server";

type FluidPage = Awaited<ReturnType<typeof fluidPage>>;
const kinds = {
  fill: "First fill",
  change: "Oil changed",
  topUp: "Topped up",
  drained: "Drained or lost",
  level: "Level",
} as const;
const kindOptions = (["topUp", "change", "fill", "drained", "level"] as const).map((value) => ({
  value,
  label: kinds[value],
}));
/** A wrong entry, taken back with its reason. */
function Withdraw({
  event,
  problems,
}: {
  event: { id: string; kind: keyof typeof kinds };
  problems: Record<string, string> | undefined;
}) {
  return (
    <details className="inline-block max-w-full align-top" open={problems ? true : undefined}>
      <summary className="-my-2 cursor-pointer p-2 text-ink-2 max-lg:-my-3 max-lg:py-3">Is it wrong?</summary>
      <Form
        method="post"
        noValidate
        preventScrollReset
        className="my-3 w-96 max-w-full"
        aria-label={`Withdraw: ${kinds[event.kind].toLowerCase()}`}
      >
        <input type="hidden" name="intent" value="withdraw" />
        <input type="hidden" name="event" value={event.id} />
        <FormProblemsProvider problems={problems}>
          <TextField name="why" label="Why it is withdrawn" placeholder="Wrong machine" maxLength={500} />
          <p className="mt-3">
            <Button tone="plain">Withdraw it</Button>
          </p>
        </FormProblemsProvider>
      </Form>
    </details>
  );
}

/** What was noted, newest first. */
export function FluidEvents({
  page,
  mayLog,
  answer,
}: {
  page: FluidPage;
  mayLog: boolean;
  answer: { event: string | null; problems: Record<string, string> } | undefined;
}) {
  const site = useSite();
  return (
    <Section title="Fills, top-ups and levels">
      {page.events.length === 0 ? (
        <Empty>Nothing noted yet.</Empty>
      ) : (
        <ul>
          {page.events.map((e) => (
            <li key={e.id} className="ruled grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 py-1.5 text-sm">
              <span className="text-ink-2">{dayText(e.at, site)}</span>
              <span>
                <span className={e.withdrawn ? "text-ink-2 line-through" : ""}>
                  <strong className="font-semibold">{kinds[e.kind]}</strong>
                  {e.litres !== null ? `, ${formatNumber(e.litres, 0)} L` : ""}
                  {e.fluid ? <span className={e.other ? "text-verm" : ""}> {`of ${e.fluid}`}</span> : ""}
                  {e.level ? `: ${e.level}` : ""}
                  {e.condition ? ` (${e.condition})` : ""}
                  {e.changeBackBy ? `, back by ${e.changeBackBy}` : ""}
                  {e.note ? `. ${e.note}` : ""} <span className="text-ink-2">{e.by}</span>
                </span>
                {e.withdrawn ? (
                  <span className="block text-ochre">
                    Withdrawn by {e.withdrawn.by}
                    {": "}
                    {e.withdrawn.why}
                  </span>
                ) : mayLog ? (
                  <Withdraw event={e} problems={answer?.event === e.id ? answer.problems : undefined} />
                ) : null}
              </span>
            </li>
          ))}
        </ul>
      )}
      {page.more ? (
        <p className="py-2">
          <Link to="?all=1" preventScrollReset className="way">
            All that was ever noted
          </Link>
        </p>
      ) : null}
    </Section>
  );
}

/** A fill, a top-up, a level, noted. */
export function NoteFluid({
  page,
  submission,
  problems,
  warning,
}: {
  page: FluidPage;
  submission: string;
  problems: Record<string, string> | undefined;
  warning: string | null | undefined;
}) {
  const site = useSite();
  return (
    <Section title="Note what was done">
      <Form method="post" noValidate className="mt-3" key={submission}>
        <input type="hidden" name="submission" value={submission} />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <SelectField name="kind" label="What" options={kindOptions} />
            <TextField
              name="at"
              label="When"
              type="datetime-local"
              defaultValue={localInput(page.now, site.timeZone)}
            />
            <TextField name="litres" label="How much" suffix="L" inputMode="decimal" hint="For a level: left empty" />
            <SelectField
              name="fluidId"
              label="Of what"
              defaultValue={page.fluid?.id ?? ""}
              options={[{ value: "", label: "choose" }, ...page.fluids.map((f) => ({ value: f.id, label: f.name }))]}
            />
            {warning ? (
              <>
                <Notice tone="verm">{warning}</Notice>
                <CheckField name="mixed" label="It was filled all the same" />
              </>
            ) : null}
            <TextField name="hours" label="Machine hours" suffix="h" inputMode="decimal" />
            <TextField name="level" label="Level" placeholder="Middle of the glass" maxLength={200} />
            <TextField
              name="condition"
              label="How the machine stood"
              placeholder="Oil 48 °C, level, actuators retracted"
              maxLength={300}
            />
            <TextField name="changeBackBy" label="Stop-gap, to be changed back by" type="date" />
            <TextField name="note" label="Remark" maxLength={500} />
            <Button>Note it</Button>
          </div>
        </FormProblemsProvider>
      </Form>
      <p className="mt-3 text-sm text-ink-2">Wipe the filler before it is opened; fill through a filter.</p>
    </Section>
  );
}
