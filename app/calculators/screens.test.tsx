/** A calculation's page: its example worked, what a component gives, and input that cannot be read. */
import { calculatorGroups, calculatorOf, calculators } from "@core";
import { rendered, renderedPage, wordsOf } from "~/ui/testing";
import CalculatorPage from "./calculator";
import Calculators from "./calculators";

type Page = Parameters<typeof CalculatorPage>[0]["loaderData"];
const show = (id: string, search = "", taken: object | null = null) =>
  renderedPage(CalculatorPage, { id, search, taken } as unknown as Page);

describe.each(calculators.map((c) => [c.id, c] as const))("%s", (id, calculator) => {
  const html = show(id);
  const said = wordsOf(html);
  test("asks its question, shows every input by its label and its result with the working", () => {
    expect(said).toContain(calculator.asks);
    for (const field of Object.values(calculator.fields)) expect(said).toContain(field.label);
    expect(said).toContain("Copy as text");
    expect(said).not.toMatch(/NaN|undefined|\[object/);
  });
  test("its caution stands on the page, and not behind a press", () => {
    if (calculator.caution) expect(said).toContain(calculator.caution);
    else expect(html).not.toContain('role="note"');
  });
  test("every input has a label of its own", () => {
    const ids = [...html.matchAll(/<(?:input|select|textarea)[^>]* id="([^"]+)"/g)].map((m) => m[1]);
    expect(new Set(ids).size).toBe(ids.length);
    for (const each of ids) expect(html).toContain(`for="${each}"`);
  });
});

describe("what was typed", () => {
  const orifice = calculatorOf("orifice")!;
  test("is in the fields again from the address", () => {
    const html = show("orifice", "?diameter=3.5&discharge=0.7");
    expect(html).toMatch(/name="diameter"[^>]*value="3\.5"|value="3\.5"[^>]*name="diameter"/);
  });
  test("what cannot be read gives no result and no text to copy; its message is beside its field alone", () => {
    const html = show("orifice", "?diameter=abc");
    expect(html.match(/aria-invalid="true"/g)).toHaveLength(1);
    expect(html).toMatch(/id="[^"]*p-diameter"/);
    expect(wordsOf(html)).not.toContain("Copy as text");
  });
  test("what lies outside what can be is refused", () =>
    expect(show("orifice", "?discharge=3")).toMatch(/id="[^"]*p-discharge"/));
  test("a component that gave its figures is named, with a way to leave it", () => {
    const id = calculators.find((c) => Object.values(c.fields).some((f) => f.take === "displacement"))!.id;
    const html = show(id, "?from=c1", { componentId: "c1", name: "Outer gate, Pump A", facts: { displacement: 71 } });
    expect(wordsOf(html)).toContain("Taken from Outer gate, Pump A; what you change is yours.");
    expect(html).toContain('value="71"');
    expect(wordsOf(show(id))).not.toContain("Leave it");
  });
  test("no component is asked for where none has such a figure", () => {
    expect(Object.values(orifice.fields).some((f) => f.take)).toBe(wordsOf(show("orifice")).includes("component"));
  });
});

test("the list has every calculation once, under its group, and some of its questions", () => {
  const html = rendered(<Calculators />);
  for (const c of calculators) expect(html.split(`href="/calculators/${c.id}"`).length).toBeGreaterThanOrEqual(2);
  const said = wordsOf(html);
  for (const group of new Set(calculators.map((c) => calculatorGroups[c.group]))) expect(said).toContain(group);
  expect(said).toContain(
    "Choose a calculation. Each shows its working and its source; its address holds what you entered, so it can be kept and sent.",
  );
  expect(said).not.toContain("No calculation by that name.");
});
