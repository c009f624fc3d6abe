/** Every procedure that ships as a page: its hold points and what it answers. docs/procedures.md is this text; a test keeps it so. */
import { stepsOf } from "./progress";
import { workProcedures } from "./procedures/index";
import type { WorkProcedure } from "./types";

/** Mistakes of the trade that a step or hold point is there against, by the ids that it has. */
const against: readonly { mistake: string; steps: readonly string[] }[] = [
  { mistake: "evidence washed away", steps: ["look"] },
  { mistake: "old seals reused", steps: ["unions", "seals", "one-by-one", "adapters"] },
  { mistake: "lines swapped, thread forced", steps: ["tags", "by-hand"] },
  { mistake: "open lines left to the dirt, plugs left in", steps: ["plugs-back", "covers-back"] },
  { mistake: "small parts lost or left over", steps: ["small-in"] },
  { mistake: "tightened unevenly", steps: ["torque"] },
  { mistake: "dry start", steps: ["filled", "primed"] },
  { mistake: "case port plugged", steps: ["case-open"] },
  { mistake: "settings left as they were for the test", steps: ["restored", "tight", "set"] },
  { mistake: "new part fails again: debris not flushed", steps: ["broke-up", "two-samples"] },
  { mistake: "stop-gap forgotten", steps: ["interim", "leak-open"] },
  {
    mistake: "judged by ear, nobody proved it",
    steps: [
      "again",
      "shut-in-again",
      "port-after",
      "holding-after",
      "weep-after",
      "peak-after",
      "drop-after",
      "clean-dp",
      "cool",
      "new-bench",
      "same",
    ],
  },
  { mistake: "pressure left in the line", steps: ["zero"] },
  { mistake: "the wrong part or oil fits too", steps: ["plate", "code", "rating", "bottle", "new"] },
];

function section(procedure: WorkProcedure): string {
  const steps = stepsOf(procedure);
  const ids = new Set(steps.map((s) => s.id));
  const answers = against.filter((a) => a.steps.some((s) => ids.has(s))).map((a) => a.mistake);
  return [
    `## ${procedure.title}`,
    "",
    procedure.purpose,
    "",
    `${steps.length} steps: ${procedure.phases.map((p) => p.title.toLowerCase()).join(", ")}.`,
    ...(procedure.renew.length > 0 ? [`Always renewed: ${procedure.renew.join(", ")}.`] : []),
    ...(procedure.notRecommended ? ["", `Not recommended: ${procedure.notRecommended}`] : []),
    ...(answers.length > 0 ? ["", `Against: ${answers.join("; ")}.`] : []),
    "",
    "| hold point | nobody goes on without it, since |",
    "|---|---|",
    ...steps.filter((s) => s.hold).map((s) => `| ${s.text} | ${s.hold} |`),
  ].join("\n");
}

/**
 * The page of all procedures.
 * @returns Markdown
 */
export function proceduresPage(): string {
  return [
    "# Procedures",
    "",
    `${workProcedures.length} procedures ship with Juncteral. They are common practice in general words; the manufacturer's current`,
    "document for the part is asked for by number and revision, and goes first. A plant makes copies of its own, for all",
    "machines or for one; each version is kept, and a record keeps the one it was done with.",
    "",
    "A **hold point** bars everything after it until it is done. A technician cannot skip it; an engineer can, with a reason",
    "that stands on the record for ever, at its top. Where the plant says so (the site's settings), an engineer releases",
    "each hold point after it was done. What a step alters goes on the machine's register of temporary changes until the",
    "step that puts it back is done; work is not recorded as done while anything there is open, unless an engineer",
    "accepts it by name. What is entered is checked at once: plugs and small parts come back as many as went out, zero is",
    "at most 0.5 bar, a torque within a tenth of the stated one.",
    "",
    "This page is written by `core/work/document.ts` from the procedures themselves.",
    "",
    ...workProcedures.map(section).flatMap((s) => [s, ""]),
  ].join("\n");
}
