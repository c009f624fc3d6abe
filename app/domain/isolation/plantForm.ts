/** The forms by which a plant adds a cause, a test, or how a cause ranks here. */
import { boolean, number, object, string } from "yup";
import {
  causes,
  grades,
  isolationParts,
  preparations,
  ranks,
  risks,
  symptoms,
  type CauseId,
  type Grade,
  type IsolationRank,
  type IsolationTest,
  type PartId,
  type PlantCause,
  type PlantKnowledge,
  type Preparation,
  type SymptomId,
} from "@core";
import type { PlantRank } from "~/db/isolationTables";
import { check, textField } from "~/platform/validate";

/** Lines for symptoms of a cause, and of causes that a test shows. */
export const lines: readonly number[] = [0, 1, 2, 3];

export const actKinds: Record<PlantCause["act"]["do"], string> = {
  set: "set it",
  clean: "clean it",
  replace: "replace it",
  refill: "fill it up",
  repair: "repair it",
  free: "free it",
  restore: "put it back as it was",
  check: "check it",
};
export const rankTexts: Record<IsolationRank, string> = {
  often: "often",
  sometimes: "sometimes",
  seldom: "seldom",
  rare: "rarely",
};
export const gradeTexts: Record<Grade, string> = {
  always: "nearly always (95 of 100)",
  mostly: "mostly (80 of 100)",
  half: "half the time",
  seldom: "seldom (15 of 100)",
  hardly: "hardly ever (3 of 100)",
};

const keys = <K extends string>(table: Readonly<Record<K, unknown>>) => Object.keys(table) as K[];
const oneOf = <K extends string>(table: Readonly<Record<K, unknown>>, message: string) =>
  string<K>().oneOf(keys(table), message).required(message);
const minutes = number()
  .typeError("Write whole minutes.")
  .integer("Write whole minutes.")
  .min(1, "At least one minute.")
  .max(2880, "At most two days.")
  .required("About how many minutes?");
const named = (message: string, most: number) =>
  string().trim().min(4, message).max(most, `At most ${most} characters.`).required(message);
const basis = named("Say what it rests on: counted, told by whom, since when.", 300);
const ticked = boolean()
  .transform((_, given: unknown) => given === "on" || given === true)
  .default(false);
const submission = string().uuid().required();

const causeSchema = object({
  label: named("Name the cause.", 100),
  part: oneOf(isolationParts, "Choose where it sits."),
  do: oneOf(actKinds, "Choose what to do."),
  act: named("Say what to do about it.", 300),
  minutes,
  needsPart: ticked,
  needsStop: ticked,
  like: string<CauseId | "">()
    .oneOf(["", ...keys(causes)])
    .default(""),
  basis,
  submission,
});

const testSchema = object({
  label: named("Name the test.", 100),
  part: string<PartId | "">()
    .oneOf(["", ...keys(isolationParts)])
    .default(""),
  how: named("Say how it is made.", 400),
  minutes,
  prepare: oneOf(preparations, "Choose what has to be ready."),
  risk: oneOf(risks, "Choose what it risks."),
  caution: textField(300),
  usual: named("What does it show when all is well?", 80),
  sign: named("What does it show when it tells of something?", 80),
  basis,
  submission,
});

const rankSchema = object({
  symptom: oneOf(symptoms, "Choose the symptom."),
  cause: oneOf(causes, "Choose the cause."),
  rank: oneOf(ranks, "Choose how often."),
  basis,
  submission,
});

type Checked<T> = { ok: true; value: T; submission: string } | { ok: false; problems: Record<string, string> };

/** A cause of the plant's own, with the symptoms that it brings. */
export async function plantCause(fields: Record<string, string>): Promise<Checked<PlantCause>> {
  const checked = await check(causeSchema, fields);
  const problems = checked.ok ? {} : { ...checked.problems };
  const brings: PlantCause["symptoms"] = {};
  for (const i of lines) {
    const [symptom, rank] = [fields[`symptom${i}`] ?? "", fields[`rank${i}`] ?? ""];
    if (!symptom) continue;
    if (!Object.hasOwn(symptoms, symptom)) problems[`symptom${i}`] = "There is no such symptom.";
    else if (!Object.hasOwn(ranks, rank)) problems[`rank${i}`] = "Choose how often.";
    else brings[symptom as SymptomId] = rank as IsolationRank;
  }
  if (!lines.some((i) => fields[`symptom${i}`])) problems.symptom0 = "Choose at least one symptom that it brings.";
  if (!checked.ok || Object.keys(problems).length > 0) return { ok: false, problems };
  const v = checked.values;
  return {
    ok: true,
    submission: v.submission,
    value: {
      label: v.label,
      part: v.part,
      rank: Object.values(brings)[0]!,
      symptoms: brings,
      act: { do: v.do, text: v.act, minutes: v.minutes, part: v.needsPart, stop: v.needsStop },
      ...(!v.needsStop && { outside: true as const }),
      ...(v.like && { like: v.like }),
      basis: v.basis,
    },
  };
}

/** A test of the plant's own, with the causes that its sign tells of; those of the plant among them. */
export async function plantTest(
  fields: Record<string, string>,
  ownCauses: Readonly<Record<string, PlantCause>>,
): Promise<Checked<IsolationTest>> {
  const checked = await check(testSchema, fields);
  const problems = checked.ok ? {} : { ...checked.problems };
  const shows: Record<string, Grade> = {};
  for (const i of lines) {
    const [cause, grade] = [fields[`cause${i}`] ?? "", fields[`grade${i}`] ?? ""];
    if (!cause) continue;
    if (!Object.hasOwn(causes, cause) && !Object.hasOwn(ownCauses, cause))
      problems[`cause${i}`] = "There is no such cause.";
    else if (!Object.hasOwn(grades, grade)) problems[`grade${i}`] = "Choose how often.";
    else shows[cause] = grade as Grade;
  }
  if (!lines.some((i) => fields[`cause${i}`])) problems.cause0 = "Choose at least one cause that it tells of.";
  const dangerous = fields.risk === "opens" || fields.risk === "deadhead";
  if (dangerous && !(fields.caution ?? "").trim())
    problems.caution = "Say what to beware of: it opens the circuit or closes an outlet.";
  if (!checked.ok || Object.keys(problems).length > 0) return { ok: false, problems };
  const v = checked.values;
  return {
    ok: true,
    submission: v.submission,
    value: {
      ...(v.part && { at: v.part }),
      label: v.label,
      how: v.how,
      minutes: v.minutes,
      prepare: v.prepare as Preparation,
      risk: v.risk,
      ...(v.caution && { caution: v.caution }),
      results: { usual: v.usual, sign: v.sign },
      shows: { sign: shows },
      basis: `this plant: ${v.basis}`,
    },
  };
}

/** How a cause of the house ranks here for a symptom. */
export async function plantRank(fields: Record<string, string>): Promise<Checked<PlantRank>> {
  const checked = await check(rankSchema, fields);
  if (!checked.ok) return checked;
  const { submission: sent, ...value } = checked.values;
  return { ok: true, value, submission: sent };
}

/** Rows as they are kept, made into what an isolation reckons with. Ids of a plant's own never are those of the house. */
export function knowledgeOf(
  rows: readonly { id: string; cause: PlantCause | null; test: IsolationTest | null; rank: PlantRank | null }[],
): Omit<PlantKnowledge, "found"> {
  const known: Required<Omit<PlantKnowledge, "found" | "leanings">> = { causes: {}, tests: {}, ranks: {} };
  for (const { id, cause, test, rank } of rows) {
    if (cause) known.causes[`plant:${id}`] = cause;
    if (test) known.tests[`plant:${id}`] = test;
    if (rank) (known.ranks[rank.symptom] ??= {})[rank.cause] = rank.rank;
  }
  return known;
}
