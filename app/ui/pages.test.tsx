/** States of a page that are seldom seen: made here on purpose. */
import { ErrorPage } from "./errorPage";
import { CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "./form";
import { Empty, PageHead, Section } from "./page";
import { rendered } from "./testing";

describe("error pages say what to do next", () => {
  test.each([
    [503, { kind: "database" }, "The database does not answer"],
    [503, { kind: "busy" }, "Many people ask at this moment"],
    [403, { kind: "forbidden", needs: "engineer", has: "viewer" }, "This is for an engineer"],
    [404, { kind: "missing", what: "machine" }, "There is no such machine"],
    [404, undefined, "There is no such page"],
    [500, undefined, "This page could not be made"],
  ])("%d %p", (status, detail, heading) => {
    const html = rendered(<ErrorPage status={status} detail={detail} />);
    expect(html).toContain(heading);
    expect(html).toContain('href="/"');
  });
});

describe("fields", () => {
  const form = (problems?: Record<string, string>) =>
    rendered(
      <FormProblemsProvider problems={problems}>
        <TextField name="value" label="Value" hint="as typed" defaultValue="3.4 gal/min" />
        <SelectField name="kind" label="Kind" options={[{ value: "a", label: "A" }]} />
        <CheckField name="sure" label="Sure" />
      </FormProblemsProvider>,
    );
  test("a label belongs to each, and a hint stands where there is no problem", () => {
    const html = form();
    for (const name of ["value", "kind"])
      expect(html).toContain(`id="${new RegExp(`for="([^"]*f-${name})"`).exec(html)![1]}"`);
    expect(html).toContain("as typed");
    expect(html).not.toContain('aria-invalid="true"');
  });
  test("a problem stands beside its field, is tied to it, and leaves what was typed", () => {
    const html = form({ value: "Not a number.", sure: "Tick it.", form: "Nothing was saved." });
    expect(html).toContain('aria-invalid="true"');
    const [, tied] = /aria-describedby="([^"]*p-value)"/.exec(html)!;
    expect(html).toContain(`<p id="${tied}"`);
    expect(html).toContain("3.4 gal/min");
    expect(html).toContain("Tick it.");
    expect(html).toMatch(/role="alert"[^>]*>Nothing was saved\./);
    expect(html).not.toContain("as typed");
  });
  test("two forms of a page may hold fields of one name: no id stands twice", () => {
    const one = (
      <FormProblemsProvider problems={{ why: "Say why." }}>
        <TextField name="why" label="Why" />
      </FormProblemsProvider>
    );
    const ids = [
      ...rendered(
        <>
          {one}
          {one}
        </>,
      ).matchAll(/ id="([^"]+)"/g),
    ].map((m) => m[1]);
    expect(ids).toHaveLength(4);
    expect(new Set(ids).size).toBe(4);
  });
  test("a notice is heard according to its weight", () => {
    expect(rendered(<Notice tone="verm">x</Notice>)).toContain('role="alert"');
    expect(rendered(<Notice>x</Notice>)).toContain('role="status"');
    expect(rendered(<Notice live={false}>x</Notice>)).toContain('role="note"');
  });
});

test("a page has one heading, its way there, and sections", () => {
  const html = rendered(
    <>
      <PageHead crumbs={[{ label: "Fleet", to: "/fleet" }, { label: "Lock" }]} title="All is well">
        24 Nov
      </PageHead>
      <Section title="Readings" aside="3">
        <Empty>None yet.</Empty>
      </Section>
    </>,
  );
  expect(html.match(/<h1/g)).toHaveLength(1);
  expect(html).toContain('href="/fleet"');
  expect(html).toContain("None yet.");
});
