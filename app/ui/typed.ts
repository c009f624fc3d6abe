/** What stands in the fields of a calculation: from the address, else from the fleet, else the worked example. */
import {
  exampleOf,
  findUnit,
  formatNumber,
  fromCore,
  preferredUnit,
  quantityOf,
  type Calculator,
  type FactId,
  type UnitPreference,
} from "@core";

export type Typed = Record<string, string>;

/** Names in the address that are no fields. */
const RESERVED = "from";

export function typedFrom(
  calculator: Calculator,
  search: URLSearchParams,
  facts: Partial<Record<FactId, number>>,
  units: UnitPreference,
  { example = true } = {},
): Typed {
  const typed: Typed = example
    ? exampleOf(calculator, units)
    : Object.fromEntries(
        Object.entries(exampleOf(calculator, units)).map(([id, text]) => [
          id,
          calculator.fields[id]!.usual ? text : "",
        ]),
      );
  for (const [id, field] of Object.entries(calculator.fields)) {
    const given = search.get(id);
    const fact = field.take === undefined ? undefined : facts[field.take];
    if (given !== null) typed[id] = given;
    else if (fact !== undefined && field.kind === "quantity") typed[id] = factText(fact, field.quantity, units);
  }
  return typed;
}

function factText(core: number, quantity: Parameters<typeof quantityOf>[0], units: UnitPreference): string {
  const unit = findUnit(preferredUnit(quantity, units), quantityOf(quantity).dimension)!;
  return String(Number(fromCore(core, unit).toPrecision(6)));
}

/** The address that holds the inputs, to keep or to send. */
export function addressOf(
  calculator: Calculator,
  typed: Typed,
  from: string | null,
  units: UnitPreference = {},
): string {
  const search = new URLSearchParams();
  // what stands there by itself is left out: for this reader, in whose units it would be read again
  const example = exampleOf(calculator, units);
  for (const id of Object.keys(calculator.fields))
    if ((typed[id] ?? "") !== example[id] || from) search.set(id, typed[id] ?? "");
  if (from) search.set(RESERVED, from);
  const query = search.toString();
  return `/calculators/${calculator.id}${query ? `?${query}` : ""}`;
}

export function cellNumber(value: number): string {
  return formatNumber(value, Number.isInteger(value) ? 0 : 3);
}

/** What was typed with the unit that it was typed in: "3000" becomes "3000 psi". Empty stays empty. */
export function withUnit(text: string, unit: string): string {
  const bare = text.trim();
  return bare === "" || /[a-zµ°"%]/i.test(bare) ? bare : `${bare} ${unit}`;
}
