/** What a plant's own step asks to be written down, as it stands in the text of a procedure: "=> pressure: At the port". */
import { pointQuantityIds, quantityOf, type Ask } from "@core";

const LONGEST_LABEL = 80;
/** Quantities by the word for them. */
const quantities = new Map(pointQuantityIds.map((id) => [quantityOf(id).label.toLowerCase(), id]));
const plain = { text: "What", count: "How many", day: "On what day" } as const;
type Plain = keyof typeof plain;

/** Kinds that can be written, for a hint and for a message. */
export const askWords = [...Object.keys(plain), "torque", "lines", "pressure", "temperature", "flow", "clearance"].join(
  ", ",
);

/** As it is written; empty: nothing is asked, or nothing that a line can say. */
export function askText(ask: Ask | undefined): string {
  switch (ask?.kind) {
    case "torque":
    case "lines":
      return ask.kind;
    case "text":
    case "day":
      return ask.optional ? "" : `${ask.kind}: ${ask.label}`;
    case "count":
      return ask.equals === undefined ? `count: ${ask.label}` : "";
    case "value": {
      const bare = [ask.least, ask.greatest, ask.above, ask.below, ask.optional].every((bound) => bound === undefined);
      const word = quantityOf(ask.quantity).label.toLowerCase();
      return bare && quantities.get(word) === ask.quantity ? `${word}: ${ask.label}` : "";
    }
    default:
      return "";
  }
}

/** Read it; undefined: it is none. Without words of its own the field is called by its kind. */
export function askFrom(text: string): Ask | undefined {
  const [word = "", ...rest] = text.split(":");
  const kind = word.trim().toLowerCase();
  const label = rest.join(":").trim().slice(0, LONGEST_LABEL);
  if (kind === "torque" || kind === "lines") return { kind };
  if (Object.hasOwn(plain, kind)) return { kind: kind as Plain, label: label || plain[kind as Plain] };
  const quantity = quantities.get(kind);
  return quantity && { kind: "value", quantity, label: label || quantityOf(quantity).label };
}
