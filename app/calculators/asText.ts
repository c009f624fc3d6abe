/** A calculation as plain text, for a message or a report. */
import { decimalsFor, formatNumber, type Calculator, type Outcome } from "@core";
import { partText } from "~/ui/verdict";
import { quantityText, type SiteContext } from "~/ui/site";
import type { Typed } from "~/ui/typed";

/** One figure of the working, in the reader's units. */
function valueText(row: Outcome["working"]["rows"][number], site: SiteContext): string {
  if (!row.quantity) return formatNumber(row.value, row.digits ? decimalsFor(row.value, row.digits) : 0);
  return quantityText(row.value, row.quantity, site, row.digits === undefined ? {} : { digits: row.digits });
}

export function asText(
  calculator: Calculator,
  typed: Typed,
  outcome: Outcome,
  site: SiteContext,
  address: string,
): string {
  const inputs = Object.entries(calculator.fields)
    .filter(([id]) => (typed[id] ?? "").trim() !== "")
    .map(([id, field]) => {
      const text = typed[id]!.trim();
      const chosen = field.kind === "choice" ? field.options.find((o) => o.value === text)?.label : undefined;
      return `  ${field.label}: ${(chosen ?? text).replace(/\n/g, " | ")}`;
    });
  const rows = outcome.working.rows.map((r) => `  ${r.label}: ${valueText(r, site)}`);
  return [
    calculator.title,
    outcome.answer.map((p) => partText(p, site)).join(""),
    ...(outcome.notes ?? []),
    "",
    "Given",
    ...inputs,
    "",
    `Worked out: ${outcome.working.formula}`,
    ...rows,
    `  ${outcome.working.source}${outcome.working.note ? ` ${outcome.working.note}` : ""}`,
    ...(calculator.caution ? ["", calculator.caution] : []),
    "",
    address,
  ].join("\n");
}
