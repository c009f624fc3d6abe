/** Findings on opening: chosen by kind, a few fields each, with what follows from them. */
import { useState } from "react";
import {
  findingFields,
  findingKindIds,
  findingKinds,
  findingProblems,
  findingSays,
  preferredUnit,
  withUnits,
  type FindingKindId,
  type UnitPreference,
} from "@core";
import { Button, fieldClass } from "~/ui/form";
import { momentText, useSite } from "~/ui/site";
import { PhotoStrip, PhotoTaker } from "./photo";
import { PhotoButton } from "./runStep";
import type { Run } from "./useRun";

export function RunFindings({ run, units }: { run: Run; units: UnitPreference }) {
  const site = useSite();
  const [kind, setKind] = useState<FindingKindId | null>(null);
  const [photo, setPhoto] = useState<{ finding: string; file: File } | null>(null);
  return (
    <section className="mt-3">
      <h2>Findings, before anything is washed</h2>
      {run.findings.length === 0 ? <p className="py-2 text-ink-2">Nothing is written down yet.</p> : null}
      <ul>
        {run.findings.map((f) => {
          const says = findingSays(f.kind, f.values);
          return (
            <li key={f.id} className="ruled py-2">
              <p>
                <strong className={says.bad ? "text-verm" : ""}>{findingKinds[f.kind].label}:</strong> {says.text}
                <span className="text-sm text-ink-2">
                  {" "}
                  {f.by}, {momentText(f.at, site)}
                </span>
              </p>
              {says.advice ? <p className="text-ink-2">{says.advice}</p> : null}
              <PhotoStrip photos={run.photos.filter((p) => p.findingId === f.id)} />
              {photo?.finding === f.id ? (
                <PhotoTaker file={photo.file} run={run} step="" finding={f.id} onEnd={() => setPhoto(null)} />
              ) : run.closed ? null : (
                <p className="mt-1">
                  <PhotoButton wanted={says.bad} onPick={(file) => setPhoto({ finding: f.id, file })} />
                </p>
              )}
            </li>
          );
        })}
      </ul>
      {run.closed ? null : (
        <>
          <h3 className="mt-4">{run.findings.length === 0 ? "Write one down" : "Write down another"}</h3>
          <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Kind of finding">
            {findingKindIds.map((k) => (
              <button
                key={k}
                type="button"
                aria-pressed={kind === k}
                onClick={() => setKind(kind === k ? null : k)}
                className={`min-h-11 rounded-[3px] border px-3 text-sm ${
                  kind === k ? "border-sea bg-sea-soft font-semibold text-sea" : "border-line-2 bg-sheet"
                }`}
              >
                {findingKinds[k].label}
              </button>
            ))}
          </div>
          {kind ? <FindingForm key={kind} kind={kind} run={run} units={units} onDone={() => setKind(null)} /> : null}
        </>
      )}
    </section>
  );
}

function FindingForm({
  kind,
  run,
  units,
  onDone,
}: {
  kind: FindingKindId;
  run: Run;
  units: UnitPreference;
  onDone(): void;
}) {
  const [values, setValues] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  async function keep() {
    const given = withUnits(findingFields(kind), values, units);
    const found = findingProblems(kind, given);
    setProblems(found);
    const first = Object.keys(found)[0];
    if (first) return document.getElementById(`f-${kind}-${first}`)?.focus();
    await run.keep({ kind: "finding", finding: kind, values: given });
    onDone();
  }
  return (
    <div className="mt-3">
      <div className="grid gap-3 sm:grid-cols-3">
        {findingFields(kind).map((f) => {
          const id = `f-${kind}-${f.name}`;
          const problem = problems[f.name];
          const shared = {
            id,
            className: `${fieldClass} min-h-12`,
            value: values[f.name] ?? "",
            "aria-invalid": problem ? (true as const) : undefined,
            "aria-describedby": problem ? `p-${id}` : undefined,
          };
          const set = (text: string) => setValues((v) => ({ ...v, [f.name]: text }));
          return (
            <div key={f.name}>
              <label htmlFor={id} className="mb-0.5 block text-sm text-ink-2">
                {f.label}
                {f.quantity ? ` (${preferredUnit(f.quantity, units)})` : ""}
                {f.optional ? ", where known" : ""}
              </label>
              {f.options ? (
                <select {...shared} onChange={(e) => set(e.target.value)}>
                  <option value="">Choose</option>
                  {f.options.map((o) => (
                    <option key={o.id} value={o.id}>
                      {o.label}
                    </option>
                  ))}
                </select>
              ) : (
                <input {...shared} maxLength={200} autoComplete="off" onChange={(e) => set(e.target.value)} />
              )}
              {problem ? (
                <p id={`p-${id}`} className="mt-1 text-sm font-medium text-verm">
                  {problem}
                </p>
              ) : null}
            </div>
          );
        })}
      </div>
      <p className="mt-3">
        <Button type="button" className="min-h-12" onClick={() => void keep()}>
          Keep the finding
        </Button>
      </p>
    </div>
  );
}
