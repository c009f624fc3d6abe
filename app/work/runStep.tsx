/** One step of a procedure: what is done, what is written down, done or skipped with its reason. */
import { useState } from "react";
import { answerText, fieldsOfAsk, stepProblems, withUnits, type StepStand, type UnitPreference } from "@core";
import { Button } from "~/ui/form";
import { momentText, useSite } from "~/ui/site";
import { PhotoStrip, PhotoTaker } from "./photo";
import { Reason } from "./reason";
import { focusFirst, TypedFields } from "./typedFields";
import type { Run } from "./useRun";
import { whoOf } from "./who";

interface Props {
  stand: StepStand;
  run: Run;
  number: number;
  /** The hold point before it that is open; null: it may be done. */
  barred: string | null;
  open: boolean;
  onOpen(): void;
  onDone(): void;
  tags: readonly string[];
  /** The point that condemned the part; null: none did. */
  pointId: string | null;
  units: UnitPreference;
  mayPass: boolean;
}

export function RunStep(props: Props) {
  const { stand, run, number, barred, open, onOpen } = props;
  const { step, state, waits, entry } = stand;
  const site = useSite();
  const photos = run.photos.filter((p) => p.step === step.id);
  const mark = state === "open" ? "○" : state === "skipped" ? "⊘" : waits ? "◐" : "✓";
  const tone =
    state === "skipped"
      ? "text-verm"
      : state === "done"
        ? waits
          ? "text-ochre"
          : "text-sea"
        : barred
          ? "text-ink-2"
          : "";
  return (
    <li className={`ruled py-2 ${open ? "border-l-4 border-l-sea pl-3" : ""}`} data-step={step.id}>
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className="grid min-h-11 w-full grid-cols-[2rem_minmax(0,1fr)] items-start gap-x-2 text-left"
      >
        <span className={`pt-0.5 text-lg leading-tight ${tone}`} aria-hidden="true">
          {mark}
        </span>
        <span className={barred && state === "open" ? "text-ink-2" : ""}>
          {step.hold ? <strong className="mr-2 text-verm">HOLD</strong> : null}
          <span className="sr-only">{{ open: "open", done: "done", skipped: "skipped" }[state]}: </span>
          {number}. {step.text}
          {entry ? (
            <span className={`block text-sm ${state === "skipped" ? "font-semibold text-verm" : "text-ink-2"}`}>
              {state === "skipped" ? `skipped: ${entry.reason}. ` : ""}
              {answerText(step.ask, entry.values)}
              {answerText(step.ask, entry.values) ? ", " : ""}
              {whoOf(entry)}, {momentText(entry.at, site)}
              {stand.released ? `; released by ${stand.released.by}` : waits ? "; waits for an engineer's release" : ""}
            </span>
          ) : null}
        </span>
      </button>
      {photos.length > 0 ? <PhotoStrip photos={photos} /> : null}
      {open ? <Open {...props} /> : null}
    </li>
  );
}

function Open({ stand, run, barred, onDone, tags, pointId, units, mayPass }: Props) {
  const { step, state, waits } = stand;
  const fields = fieldsOfAsk(step.ask);
  const form = `s-${step.id}`;
  const [values, setValues] = useState<Record<string, string>>(
    step.ask?.kind === "lines" && tags.length > 0 ? { tags: tags.join(", ") } : {},
  );
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [asking, setAsking] = useState<"skipped" | "reopened" | null>(null);
  const [photoFor, setPhotoFor] = useState<File | null>(null);
  const send = (entry: "done" | "skipped" | "reopened" | "released", given: Record<string, string>, reason: string) =>
    run.keep({ kind: "step", step: step.id, entry, values: given, reason, after: stand.last ?? "" });

  async function done() {
    const given = withUnits(fields, values, units);
    const others = Object.fromEntries(run.stand.steps.map((s) => [s.step.id, s.entry?.values]));
    const found = stepProblems(step, given, others);
    setProblems(found);
    if (Object.keys(found).length > 0) return focusFirst(form, found);
    await send("done", given, "");
    onDone();
  }

  if (run.closed) return null;
  if (barred !== null && state === "open")
    return (
      <p className="mt-1 ml-10 text-ochre">
        Not before the hold point: <strong>{barred}</strong>
      </p>
    );
  return (
    <div className="mt-1 sm:ml-10">
      {step.hold ? (
        <p className="mb-2 text-verm">
          <strong>Nobody goes on without it:</strong> {step.hold}.
        </p>
      ) : null}
      {step.caution ? <p className="mb-2 border-l-4 border-ochre bg-ochre-soft px-3 py-1.5">{step.caution}</p> : null}
      {step.closedBy === "reading" && state === "open" && pointId ? (
        <p className="mb-2">
          <a href={`/points/${pointId}`} className="way">
            Log the reading at its point
          </a>
          , then come back to this step.
        </p>
      ) : null}
      {step.alters && state === "open" ? (
        <p className="mb-2 text-sm text-ink-2">{`It goes on the machine’s list of temporary changes until it is put back: ${step.alters.toLowerCase()}.`}</p>
      ) : null}
      {state === "open" ? (
        <TypedFields
          form={form}
          fields={fields}
          values={values}
          problems={problems}
          units={units}
          wide={(f) => f.name === "tags" || f.name === "text" || f.options !== undefined}
          onSet={(name, text) => setValues((v) => ({ ...v, [name]: text }))}
          onEnter={() => void done()}
        />
      ) : null}
      {photoFor ? (
        <PhotoTaker file={photoFor} run={run} step={step.id} finding="" onEnd={() => setPhotoFor(null)} />
      ) : null}
      {asking ? (
        <Reason
          question={asking === "skipped" ? "Why is it skipped? The record keeps it for ever." : "Why is it taken back?"}
          act={asking === "skipped" ? "Skip it" : "Take it back"}
          onNo={() => setAsking(null)}
          onYes={async (reason) => {
            await send(asking, {}, reason);
            onDone();
          }}
        />
      ) : (
        <p className="mt-2.5 flex flex-wrap items-center gap-x-4 gap-y-2">
          {state === "open" ? (
            <Button type="button" className="min-h-12 px-7" onClick={() => void done()}>
              Done
            </Button>
          ) : null}
          {waits && mayPass ? (
            <Button
              type="button"
              className="min-h-12"
              onClick={() => void send("released", {}, "Seen and released.").then(onDone)}
            >
              Release it
            </Button>
          ) : null}
          <PhotoButton wanted={step.photo === true} onPick={setPhotoFor} />
          {state === "open" ? (
            step.hold && !mayPass ? (
              <span className="text-sm text-ink-2">A hold point is not skipped; an engineer may, with a reason.</span>
            ) : (
              <button type="button" className="min-h-11 text-ink-2 underline" onClick={() => setAsking("skipped")}>
                Skip it
              </button>
            )
          ) : (
            <button type="button" className="min-h-11 text-ink-2 underline" onClick={() => setAsking("reopened")}>
              Take it back
            </button>
          )}
        </p>
      )}
    </div>
  );
}

export function PhotoButton({ wanted, onPick }: { wanted: boolean; onPick(file: File): void }) {
  return (
    <label
      className={`inline-flex min-h-11 cursor-pointer items-center rounded-[3px] border px-4 has-focus-visible:outline-2 ${
        wanted ? "border-sea font-semibold text-sea" : "border-line-2"
      }`}
    >
      {wanted ? "Photograph (wanted here)" : "Photograph"}
      <input
        type="file"
        accept="image/*"
        capture="environment"
        className="sr-only"
        onChange={(e) => {
          const picked = e.target.files?.[0];
          e.target.value = "";
          if (picked) onPick(picked);
        }}
      />
    </label>
  );
}
