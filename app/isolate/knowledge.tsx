import { Form, redirect } from "react-router";
import type { Route } from "./+types/knowledge";
import {
  lowerFirst,
  causes,
  isolationParts,
  preparations,
  risks,
  symptoms,
  type CauseId,
  type PartId,
  type SymptomId,
} from "@core";
import { addKnowledge, plantEntries, retireKnowledge } from "~/domain/isolation/index.server";
import { actKinds, gradeTexts, lines, rankTexts } from "~/domain/isolation/index";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

export const meta = () => [{ title: "The plant's own knowledge · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  entries: (await plantEntries()).map(({ id, cause, test, rank, enteredAt, enteredBy }) => ({
    id,
    cause,
    test,
    rank,
    at: enteredAt.getTime(),
    by: enteredBy,
  })),
  mayAdd: mayAct(user.role, "engineer"),
  submissions: { cause: crypto.randomUUID(), test: crypto.randomUUID(), rank: crypto.randomUUID() },
}));

export const action = guardAction("engineer", async ({ request, user }) => {
  const fields = await formFields(request);
  const done =
    fields.intent === "retire" ? await retireKnowledge(fields.id ?? "", user) : await addKnowledge(fields, user);
  return done.ok ? redirect("/isolate/knowledge") : refused(done, { kind: fields.kind ?? "" });
});

type Entry = Route.ComponentProps["loaderData"]["entries"][number];
type Kind = "cause" | "test" | "rank";

const choices = (table: Readonly<Record<string, { label: string }>>, none?: string) => [
  ...(none === undefined ? [] : [{ value: "", label: none }]),
  ...Object.entries(table).map(([value, { label }]) => ({ value, label })),
];
const choicesOf = (table: Readonly<Record<string, string>>, none: string) => [
  { value: "", label: none },
  ...Object.entries(table).map(([value, label]) => ({ value, label })),
];
const riskTexts = {
  none: "nothing",
  care: "asks for care",
  deadhead: "closes an outlet against the pump",
  opens: "opens the circuit",
} satisfies Record<keyof typeof risks, string>;

function EntryRow({ entry, own, mayAdd }: { entry: Entry; own: ReadonlyMap<string, string>; mayAdd: boolean }) {
  const site = useSite();
  const { cause, test, rank } = entry;
  const nameOf = (id: string) => own.get(id) ?? causes[id as CauseId]?.label ?? id;
  const title = cause?.label ?? test?.label ?? (rank ? nameOf(rank.cause) : "");
  const says = cause
    ? `${isolationParts[cause.part as PartId].label}; ${Object.entries(cause.symptoms)
        .map(([s, r]) => `${rankTexts[r]} behind “${lowerFirst(symptoms[s as SymptomId].label)}”`)
        .join(", ")}. ${cause.act.text}.`
    : test
      ? `${test.how}. “${test.results.sign}” tells of ${Object.entries(test.shows.sign ?? {})
          .map(([c, g]) => `${lowerFirst(nameOf(c))}, ${gradeTexts[g]}`)
          .join("; ")}.`
      : rank
        ? `ranks as ${rankTexts[rank.rank]} behind “${lowerFirst(symptoms[rank.symptom].label)}”.`
        : "";
  return (
    <li className="ruled flex items-start justify-between gap-3 py-2">
      <span className="min-w-0 [overflow-wrap:anywhere]">
        <strong className="font-semibold">{title}</strong>
        <span className="block text-sm">{says}</span>
        <span className="block text-xs text-ink-2">
          {cause?.basis ?? test?.basis ?? rank?.basis}; {dayText(entry.at, site)}, {entry.by}
        </span>
      </span>
      {mayAdd ? (
        <Form method="post" preventScrollReset>
          <input type="hidden" name="intent" value="retire" />
          <input type="hidden" name="id" value={entry.id} />
          <button type="submit" className="way whitespace-nowrap" aria-label={`Take out of use: ${title}`}>
            Take out of use
          </button>
        </Form>
      ) : null}
    </li>
  );
}

const basisField = (
  <TextField name="basis" label="What it rests on" hint="Counted, told by whom, since when" maxLength={300} />
);

function CauseFields() {
  return (
    <>
      <TextField name="label" label="Cause" maxLength={100} />
      <SelectField name="part" label="Where it sits" options={choices(isolationParts, "choose")} />
      {lines.map((i) => (
        <div key={i} className="grid gap-x-4 sm:grid-cols-[2fr_1fr]">
          <SelectField name={`symptom${i}`} label={`Symptom ${i + 1}`} options={choices(symptoms, "none")} />
          <SelectField name={`rank${i}`} label="Behind it" options={choicesOf(rankTexts, "choose")} />
        </div>
      ))}
      <SelectField
        name="like"
        label="Behaves in other tests like"
        options={choices(causes, "nothing: only its own test shows it")}
      />
      <SelectField name="do" label="What to do" options={choicesOf(actKinds, "choose")} />
      <TextArea name="act" label="In words" rows={2} maxLength={300} />
      <TextField name="minutes" label="Minutes" inputMode="numeric" />
      <CheckField name="needsPart" label="It needs a part" />
      <CheckField name="needsStop" label="The machine has to stop, its circuit is opened" />
    </>
  );
}

function TestFields({ own }: { own: ReadonlyMap<string, string> }) {
  const all = [...[...own].map(([value, label]) => ({ value, label: `${label} (this plant)` })), ...choices(causes)];
  return (
    <>
      <TextField name="label" label="Test" maxLength={100} />
      <SelectField name="part" label="Made at" options={choices(isolationParts, "the circuit as a whole")} />
      <TextArea name="how" label="How it is made" rows={2} maxLength={400} />
      <TextField name="minutes" label="Minutes" inputMode="numeric" />
      <SelectField name="prepare" label="Made ready before" options={choices(preparations, "choose")} />
      <SelectField name="risk" label="What it risks" options={choicesOf(riskTexts, "choose")} />
      <TextArea name="caution" label="Caution" rows={2} maxLength={300} />
      <TextField name="usual" label="All is well when it shows" maxLength={80} />
      <TextField name="sign" label="It tells of something when it shows" maxLength={80} />
      {lines.map((i) => (
        <div key={i} className="grid gap-x-4 sm:grid-cols-[2fr_1fr]">
          <SelectField
            name={`cause${i}`}
            label={`Tells of ${i + 1}`}
            options={[{ value: "", label: "none" }, ...all]}
          />
          <SelectField name={`grade${i}`} label="And shows it" options={choicesOf(gradeTexts, "choose")} />
        </div>
      ))}
    </>
  );
}

const RankFields = () => (
  <>
    <SelectField name="symptom" label="Symptom" options={choices(symptoms, "choose")} />
    <SelectField name="cause" label="Cause" options={choices(causes, "choose")} />
    <SelectField name="rank" label="Here it is behind it" options={choicesOf(rankTexts, "choose")} />
  </>
);

const forms: Record<Kind, { title: string; button: string }> = {
  cause: { title: "Add a cause", button: "Add the cause" },
  test: { title: "Add a test", button: "Add the test" },
  rank: { title: "Rank a cause otherwise", button: "Rank it so here" },
};

export default function Knowledge({ loaderData: { entries, mayAdd, submissions }, actionData }: Route.ComponentProps) {
  const refusal = actionData && "kind" in actionData ? actionData : undefined;
  const own = new Map(entries.flatMap((e) => (e.cause ? [[`plant:${e.id}`, e.cause.label] as const] : [])));
  const groups: { title: string; of: Entry[] }[] = [
    { title: "Causes", of: entries.filter((e) => e.cause) },
    { title: "Tests", of: entries.filter((e) => e.test) },
    { title: "Ranked otherwise here", of: entries.filter((e) => e.rank) },
  ];
  return (
    <>
      <PageHead crumbs={[{ label: "Isolate", to: "/isolate" }]} title="This plant’s own causes and tests">
        Causes and tests of your own, and causes that are more or less frequent here than common practice has it. They
        count in every isolation that begins from now on; isolations that are open keep what held when they began.
        Closed isolations count by themselves.
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
        <div>
          {groups.map(({ title, of }) => (
            <Section key={title} title={title} aside={of.length > 0 ? String(of.length) : undefined}>
              {of.length === 0 ? (
                <Empty>None yet.</Empty>
              ) : (
                <ul>
                  {of.map((e) => (
                    <EntryRow key={e.id} entry={e} own={own} mayAdd={mayAdd} />
                  ))}
                </ul>
              )}
            </Section>
          ))}
        </div>
        {mayAdd ? (
          <div>
            {(Object.keys(forms) as Kind[]).map((kind) => {
              const problems = refusal?.kind === kind ? refusal.problems : undefined;
              return (
                <details key={kind} className="ruled py-2" open={problems !== undefined}>
                  <summary className="cursor-pointer font-semibold text-sea">{forms[kind].title}</summary>
                  <Form method="post" noValidate className="pt-3" aria-label={forms[kind].title} preventScrollReset>
                    <input type="hidden" name="kind" value={kind} />
                    <input type="hidden" name="submission" value={submissions[kind]} />
                    <FormProblemsProvider problems={problems}>
                      <div className="grid gap-y-3">
                        {kind === "cause" ? (
                          <CauseFields />
                        ) : kind === "test" ? (
                          <TestFields own={own} />
                        ) : (
                          <RankFields />
                        )}
                        {basisField}
                      </div>
                      <p className="mt-3">
                        <Button>{forms[kind].button}</Button>
                      </p>
                    </FormProblemsProvider>
                  </Form>
                </details>
              );
            })}
          </div>
        ) : null}
      </div>
    </>
  );
}
