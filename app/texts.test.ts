/** Texts files: every text is said by the page that it stands under, and no wording stands there twice. */
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { isValidElement } from "react";

const files = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(dir, entry.name)) : [join(dir, entry.name)],
  );
const textsFiles = files("app").filter((f) => /\/texts\.tsx?$/.test(f));
type Text = string | ((...parts: string[]) => unknown);

/** A section with the sources that import it. */
async function sectionsOf(file: string) {
  const sections = (await import(join(process.cwd(), file))) as Record<string, Record<string, Text>>;
  const sources = files(dirname(file))
    .filter((f) => /\.tsx?$/.test(f) && !/texts\.tsx?$|\.test\./.test(f))
    .map((f) => readFileSync(f, "utf8"));
  return Object.entries(sections).map(([name, section]) => ({
    name,
    section,
    sources: sources.filter((s) => new RegExp(`import \\{ ${name} as texts \\}`).test(s)),
  }));
}

test("a place with pages has its texts", () => expect(textsFiles.length).toBeGreaterThan(15));

describe.each(textsFiles)("%s", (file) => {
  let sections: Awaited<ReturnType<typeof sectionsOf>>;
  beforeAll(async () => {
    sections = await sectionsOf(file);
    expect(sections.length).toBeGreaterThan(0);
  });
  test("each section belongs to one file", () => {
    for (const { name, sources } of sections) expect([name, sources.length]).toEqual([name, 1]);
  });
  test("no text is left that nothing says", () => {
    const unused = sections.flatMap(({ name, section, sources }) =>
      Object.keys(section).flatMap((key) =>
        sources.some((s) => new RegExp(`\\btexts\\s*\\.${key}\\b`).test(s)) ? [] : [`${name}.${key}`],
      ),
    );
    expect(unused).toEqual([]);
  });
  test("no wording stands under two keys of one section", () => {
    const twice = sections.flatMap(({ name, section }) => {
      const plain = Object.values(section).filter((t) => typeof t === "string");
      return plain.filter((t, i) => plain.indexOf(t) !== i).map((t) => `${name}: ${t}`);
    });
    expect(twice).toEqual([]);
  });
  test("a text with gaps says what stands in them, and nothing else that was not written", () => {
    for (const { name, section } of sections)
      for (const [key, text] of Object.entries(section)) {
        if (typeof text !== "function") continue;
        const filled = text(...Array.from({ length: text.length }, (_, i) => `part ${i}`));
        if (typeof filled === "string")
          expect([name, key, filled]).not.toContainEqual(expect.stringMatching(/undefined|NaN|\[object/));
        else expect(isValidElement(filled)).toBe(true);
      }
  });
});
