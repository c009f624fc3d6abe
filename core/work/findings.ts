/** Findings on opening: what kinds there are, what is written down of each, what is wrong with it and what it says. */
import { parseQuantity } from "../units/parse";
import { preferredUnit, type UnitPreference } from "../units/preference";
import { quantityOf, type QuantityId } from "../units/quantities";
import { formatNumber } from "../units/format";

export interface FindingField {
  name: string;
  label: string;
  /** A quantity as typed, a choice, or words. */
  quantity?: QuantityId;
  options?: readonly { id: string; label: string }[];
  optional?: true;
}

interface FindingKind {
  label: string;
  fields: readonly FindingField[];
}

const where: FindingField = { name: "where", label: "Where" };
const band = (quantity: QuantityId): FindingField[] => [
  { name: "value", label: "Measured", quantity },
  { name: "least", label: "Band from", quantity, optional: true },
  { name: "greatest", label: "Band to", quantity, optional: true },
];
const options = (...labels: readonly string[]) => labels.map((label) => ({ id: label, label }));

const decisions = [
  { id: "reuse", label: "used again" },
  { id: "polish", label: "polished" },
  { id: "oversize", label: "made oversize" },
  { id: "set", label: "replaced as a set" },
];

const define = <T extends Record<string, FindingKind>>(table: T) => table;

export const findingKinds = define({
  debris: {
    label: "Debris",
    fields: [
      where,
      { name: "what", label: "What" },
      { name: "magnetic", label: "Magnetic", options: options("yes", "no", "some of it") },
      { name: "size", label: "Largest piece", quantity: "clearance", optional: true },
    ],
  },
  wear: {
    label: "Wear",
    fields: [
      where,
      {
        name: "pattern",
        label: "Pattern",
        options: options("polished", "scored", "pitted", "stepped", "cracked", "blue from heat", "even, as expected"),
      },
    ],
  },
  clearance: { label: "Clearance", fields: [where, ...band("clearance")] },
  force: { label: "Spring or friction force", fields: [where, ...band("force")] },
  spool: {
    label: "Spool in its bore",
    fields: [
      {
        name: "falls",
        label: "By its own weight",
        options: options("falls at every turn", "sticks at a place", "does not move"),
      },
      { name: "where", label: "Where it sticks", optional: true },
    ],
  },
  seal: {
    label: "Seal",
    fields: [
      where,
      {
        name: "condition",
        label: "Condition",
        options: options("good", "hard", "cut or split", "extruded", "swollen", "missing"),
      },
      {
        name: "orientation",
        label: "Lips and back-up rings",
        options: options("right", "wrong way round", "not to be told"),
      },
    ],
  },
  suction: {
    label: "Suction felt",
    fields: [where, { name: "felt", label: "When drawn apart", options: options("strong", "weak", "none") }],
  },
  decision: {
    label: "Decision",
    fields: [
      { name: "where", label: "Which part" },
      { name: "decision", label: "It is", options: decisions },
      { name: "size", label: "Oversize: size", quantity: "bore", optional: true },
      { name: "why", label: "Why", optional: true },
    ],
  },
});

export type FindingKindId = keyof typeof findingKinds;
export const findingKindIds = Object.keys(findingKinds) as FindingKindId[];

/**
 * The fields of a kind of finding.
 * @param kind of the finding
 * @returns in order
 * @example findingFields("decision").map((field) => field.name) // ["where", "decision", "size", "why"]
 */
export const findingFields = (kind: FindingKindId): readonly FindingField[] => findingKinds[kind].fields;

const MOST_TEXT = 200;

/**
 * What is wrong with a finding as typed, by field.
 * @param kind of the finding
 * @param values as typed
 * @param units units of bare numbers
 * @returns messages by field; empty: nothing is wrong
 * @example findingProblems("decision", { where: "bore", decision: "oversize" }).size // "The next person needs the size: write it down."
 */
export function findingProblems(
  kind: FindingKindId,
  values: Readonly<Record<string, string>>,
  units: UnitPreference = {},
): Record<string, string> {
  const problems: Record<string, string> = {};
  for (const field of findingFields(kind)) {
    const text = (values[field.name] ?? "").trim();
    if (text === "") {
      if (!field.optional) problems[field.name] = field.options ? "Choose one." : "Write it down.";
    } else if (text.length > MOST_TEXT) problems[field.name] = `At most ${MOST_TEXT} characters.`;
    else if (field.options && !field.options.some((o) => o.id === text)) problems[field.name] = "Choose one.";
    else if (field.quantity) {
      const read = parseQuantity(text, field.quantity, { assume: preferredUnit(field.quantity, units) });
      if (!read.ok) problems[field.name] = read.message;
    }
  }
  if (kind === "decision" && values.decision === "oversize" && !values.size?.trim())
    problems.size = "The next person needs the size: write it down.";
  if (kind === "spool" && values.falls === "sticks at a place" && !values.where?.trim())
    problems.where = "Say where it sticks.";
  return problems;
}

export interface FindingSays {
  /** One line for lists and the record. */
  text: string;
  /** Something that has to be dealt with. */
  bad: boolean;
  /** What follows by the practice of the trade; empty: nothing. */
  advice: string;
}

const badWear = ["scored", "pitted", "stepped", "cracked", "blue from heat"];

type Values = Readonly<Record<string, string>>;

const figure = (text: string | undefined, quantity: QuantityId): number | null => {
  const result = text?.trim() ? parseQuantity(text, quantity, { assume: quantityOf(quantity).unit }) : null;
  return result?.ok ? result.parsed.value : null;
};

/** Is a measured figure outside its band? Null: it is within, or there is no band, or no figure. */
function outside(values: Values, quantity: QuantityId): "below" | "above" | null {
  const value = figure(values.value, quantity);
  const least = figure(values.least, quantity);
  const greatest = figure(values.greatest, quantity);
  if (value === null) return null;
  if (least !== null && value < least) return "below";
  return greatest !== null && value > greatest ? "above" : null;
}

/** How much more passes a gap that grew beyond its band, since leakage goes with its cube. */
function leakageOf(values: Values): string {
  const share = figure(values.value, "clearance")! / figure(values.greatest, "clearance")!;
  return `It lets through ${formatNumber(share ** 3, 1)} times what the widest permitted gap does (cube of the clearance).`;
}

/**
 * What a finding says.
 * @param kind of the finding
 * @param values as typed, without problems
 * @returns a line for the record, whether it is bad, and what follows from it
 * @example
 * findingSays("wear", { where: "bore", pattern: "scored" }).bad // true
 */
export function findingSays(kind: FindingKindId, values: Readonly<Record<string, string>>): FindingSays {
  const says = (text: string, bad = false, advice = ""): FindingSays => ({ text, bad, advice });
  switch (kind) {
    case "debris":
      return says(
        `${values.what} at ${values.where}, magnetic: ${values.magnetic}${values.size ? `, up to ${values.size}` : ""}`,
        true,
        "Metal comes from a part upstream: open a debris event, find the source, flush before the new part runs.",
      );
    case "wear": {
      const bad = badWear.includes(values.pattern ?? "");
      return says(
        `${values.where}: ${values.pattern}`,
        bad,
        bad ? "Scored or cracked parts are replaced as a set; a seat is never polished." : "",
      );
    }
    case "clearance":
    case "force": {
      const off = outside(values, kind);
      const bandText =
        values.least || values.greatest
          ? `, band ${values.least || "–"} to ${values.greatest || "–"}`
          : ", no band stated";
      return says(
        `${values.where}: ${values.value}${bandText}${off ? `, ${off} it` : ""}`,
        off !== null,
        off === null
          ? ""
          : kind === "clearance"
            ? off === "above"
              ? leakageOf(values)
              : "Tighter than permitted: it may bind when warm."
            : "Outside its band: adjust once, then renew.",
      );
    }
    case "spool": {
      const bad = values.falls !== "falls at every turn";
      return says(
        `Spool ${values.falls}${values.where ? `: ${values.where}` : ""}`,
        bad,
        bad ? "A burr or varnish there: clean, polish the spot, try again; scored, it is replaced as a set." : "",
      );
    }
    case "seal": {
      const bad = values.condition !== "good" || values.orientation === "wrong way round";
      return says(
        `${values.where}: ${values.condition}, orientation ${values.orientation}`,
        bad,
        values.orientation === "wrong way round"
          ? "It was fitted wrongly: note it with the last work on this part."
          : "",
      );
    }
    case "suction":
      return says(`${values.where}: suction ${values.felt} (felt, not measured)`, values.felt !== "strong");
    case "decision":
      return says(
        `${values.where}: ${decisions.find((o) => o.id === values.decision)?.label ?? ""}` +
          `${values.decision === "oversize" ? `, ${values.size}` : ""}${values.why ? ` (${values.why})` : ""}`,
      );
  }
}
