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
import type { RunFinding } from "~/domain/runs/index";
import { FindingText, Withdrawn } from "./findingText";
import { PhotoStrip, PhotoTaker } from "./photo";
import { Reason } from "./reason";
import { PhotoButton } from "./runStep";
import { focusFirst, TypedFields } from "./typedFields";
import type { Run } from "./useRun";
import { whoOf } from "./who";

/** Who is at the tablet: the writer of a finding, or an engineer, may withdraw it. */
interface Me {
  name: string;
  engineer: boolean;
}

export function RunFindings({ run, units, me }: { run: Run; units: UnitPreference; me: Me }) {
  const [kind, setKind] = useState<FindingKindId | null>(null);
  return (
    <section className="mt-3">
      <h2>Findings, before anything is washed</h2>
      {run.findings.length === 0 ? <p className="py-2 text-ink-2">Nothing is written down yet.</p> : null}
      <ul>
        {run.findings.map((f) => (
          <Finding key={f.id} finding={f} run={run} me={me} />
        ))}
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

function Finding({ finding: f, run, me }: { finding: RunFinding; run: Run; me: Me }) {
  const site = useSite();
  const [photo, setPhoto] = useState<File | null>(null);
  const [asking, setAsking] = useState(false);
  const says = findingSays(f.kind, f.values);
  const mayWithdraw = !run.closed && !f.withdrawn && (me.engineer || f.by === me.name);
  return (
    <li className="ruled py-2">
      <p className={f.withdrawn ? "text-ink-2" : ""}>
        <FindingText kind={f.kind} values={f.values} withdrawn={f.withdrawn !== null} />
        <span className="text-sm text-ink-2">
          {" "}
          {whoOf(f)}, {momentText(f.at, site)}
        </span>
      </p>
      {f.withdrawn ? (
        <Withdrawn withdrawn={f.withdrawn} />
      ) : says.advice ? (
        <p className="text-ink-2">{says.advice}</p>
      ) : null}
      <PhotoStrip photos={run.photos.filter((p) => p.findingId === f.id)} />
      {photo ? (
        <PhotoTaker file={photo} run={run} step="" finding={f.id} onEnd={() => setPhoto(null)} />
      ) : asking ? (
        <Reason
          question="What was wrong with it? The finding stays on the record, struck out."
          act="Withdraw it"
          onNo={() => setAsking(false)}
          onYes={async (reason) => {
            await run.keep({ kind: "withdrawal", finding: f.id, reason });
            setAsking(false);
          }}
        />
      ) : run.closed || f.withdrawn ? null : (
        <p className="mt-1 flex flex-wrap items-center gap-x-4">
          <PhotoButton wanted={says.bad} onPick={setPhoto} />
          {mayWithdraw ? (
            <button type="button" className="min-h-11 text-ink-2 underline" onClick={() => setAsking(true)}>
              Withdraw it
            </button>
          ) : null}
        </p>
      )}
    </li>
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
