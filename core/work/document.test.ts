import { readFileSync, writeFileSync } from "node:fs";
import { proceduresPage } from "./document";
import { stepsOf } from "./progress";
import { workProcedures } from "./procedures/index";

test("docs/procedures.md is what the procedures say (WRITE_DOCS=1 writes it)", () => {
  if (process.env.WRITE_DOCS) writeFileSync("docs/procedures.md", proceduresPage());
  expect(readFileSync("docs/procedures.md", "utf8")).toBe(proceduresPage());
});

test("every hold point of every procedure is on the page", () => {
  const page = proceduresPage();
  for (const p of workProcedures) {
    expect(page).toContain(`## ${p.title}`);
    for (const s of stepsOf(p)) if (s.hold) expect(page).toContain(`| ${s.text} | ${s.hold} |`);
  }
});
