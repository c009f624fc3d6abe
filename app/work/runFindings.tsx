/** Findings on opening: chosen by kind, a few fields each, with what follows from them. */
import { useState } from "react";
import {
  findingFields,
  findingKindIds,
  findingKinds,
  findingProblems,
  findingSays,
  withUnits,
  type FindingKindId,
  type UnitPreference,
} from "@core";
import { Button } from "~/ui/form";
import { momentText, useSite } from "~/ui/site";
import { PhotoStrip, PhotoTaker } from "./photo";
import { PhotoButton } from "./runStep";
import { focusFirst, TypedFields } from "./typedFields";
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
  const form = `f-${kind}`;
  const [values, setValues] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  async function keep() {
    const given = withUnits(findingFields(kind), values, units);
    const found = findingProblems(kind, given);
    setProblems(found);
    if (Object.keys(found).length > 0) return focusFirst(form, found);
    await run.keep({ kind: "finding", finding: kind, values: given });
    onDone();
  }
  return (
    <div className="mt-3">
      <TypedFields
        form={form}
        fields={findingFields(kind)}
        values={values}
        problems={problems}
        units={units}
        onSet={(name, text) => setValues((v) => ({ ...v, [name]: text }))}
        onEnter={() => void keep()}
      />
      <p className="mt-3">
        <Button type="button" className="min-h-12" onClick={() => void keep()}>
          Keep the finding
        </Button>
      </p>
    </div>
  );
}
