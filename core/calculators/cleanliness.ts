/** Cleanliness codes and classes, and the target of a circuit. */
import { as4059, as4059Table, nas1638, nas1638Table, type CleanlinessClass } from "../contamination/classes";
import { countsOfCode, iso4406, parseIso4406 } from "../contamination/iso4406";
import { overTarget, sensitiveKindIds, targetCode, typicalTargets, type SensitiveKind } from "../contamination/target";
import { calculator, choice, figure, maybePlain, plain, quantity, say, type Cell, type Outcome } from "./types";

const count = (label: string, example: string) => quantity("count", example, { label });

const MEMORY = "Table from memory; compare with the standard before a dispute.";

const iso = calculator({
  id: "iso-4406",
  group: "cleanliness",
  title: "Cleanliness code",
  asks: "Which ISO 4406 code is this, and is the target met?",
  fields: {
    over4: count("Over 4 µm(c)", "1500"),
    over6: count("Over 6 µm(c)", "450"),
    over14: count("Over 14 µm(c)", "60"),
    raw: maybePlain("Particles really counted over 14 µm", 0, 1e9, { hint: "Fewer than 20: that number carries ≥." }),
    t4: maybePlain("Target over 4", 0, 28, { example: "18" }),
    t6: maybePlain("Target over 6", 0, 28, { example: "16" }),
    t14: maybePlain("Target over 14", 0, 28, { example: "13" }),
  },
  compute(v) {
    const found = iso4406(v, v.raw === null ? {} : { raw: { over14: v.raw } });
    const target =
      v.t4 !== null && v.t6 !== null && v.t14 !== null
        ? { codes: [v.t4, v.t6, v.t14] as [number, number, number] }
        : null;
    const over = target ? overTarget(found, target) : null;
    const worst = over ? Math.max(...over.map((o) => o ?? -Infinity)) : null;
    const sizes = [4, 6, 14];
    const counts = [v.over4, v.over6, v.over14];
    return {
      answer: say(
        { text: found.text, strong: true },
        worst === null
          ? "."
          : worst <= 0
            ? ": the target is met."
            : `: ${worst} number${worst === 1 ? "" : "s"} over target, about ${2 ** worst} times the particles.`,
      ),
      tone: worst === null ? "plain" : worst <= 0 ? "good" : worst > 1 ? "bad" : "doubt",
      notes: ["A number is a doubling: from the middle of one to the middle of the next, twice the particles."],
      working: {
        formula: "scale number of each count per mL, upper bounds inclusive",
        source: `ISO 4406. ${MEMORY}`,
        rows: found.codes.flatMap((c, i) =>
          typeof c === "number" && c < 29
            ? [{ label: `over ${sizes[i]} µm: ${c} ends at`, value: countsOfCode(c).upTo, quantity: "count" as const }]
            : [],
        ),
      },
      chart: {
        x: { label: "size, µm(c)", log: true },
        y: { label: "particles over this size", quantity: "count", log: true },
        series: [
          { label: "sample", style: "line", points: sizes.map((s, i) => [s, Math.max(0.005, counts[i]!)]) },
          ...(target
            ? [
                {
                  label: "target",
                  style: "dashed" as const,
                  points: sizes.map((s, i): [number, number] => [s, countsOfCode(target.codes[i]!).upTo]),
                },
              ]
            : []),
        ],
      },
    };
  },
});

const target = calculator({
  id: "cleanliness-target",
  group: "cleanliness",
  title: "Target for a circuit",
  asks: "How clean must the oil be for what stands in this circuit?",
  fields: {
    kind1: choice(
      "Component",
      sensitiveKindIds.map((id) => ({ value: id, label: typicalTargets[id].label })),
    ),
    kind2: choice(
      "and",
      sensitiveKindIds.map((id) => ({ value: id, label: typicalTargets[id].label })),
    ),
    kind3: choice(
      "and",
      sensitiveKindIds.map((id) => ({ value: id, label: typicalTargets[id].label })),
    ),
    pressure: quantity("loadPressure", "210", { label: "Working pressure", take: "workingPressure" }),
  },
  compute(v) {
    const kinds = [...new Set([v.kind1, v.kind2, v.kind3])] as SensitiveKind[];
    const found = targetCode(kinds, v.pressure);
    return {
      answer: say(
        "The target is ",
        { text: found.text, strong: true },
        `, decided by the ${found.decidedBy.map((k) => typicalTargets[k].label).join(" and the ")}.`,
      ),
      tone: "plain",
      notes: ["Typical guidance. The manufacturer's figure for the component goes first."],
      working: {
        formula: "size by size the smallest code of the components at the pressure; above 210 bar the stricter row",
        source: "Typical guidance (memory).",
        rows: [{ label: "pressure", value: v.pressure, quantity: "loadPressure" }],
      },
      table: {
        head: ["component", "up to 210 bar", "above"],
        rows: kinds.map((k) => [
          typicalTargets[k].label,
          typicalTargets[k].upTo210.join("/"),
          typicalTargets[k].above.join("/"),
        ]),
      },
    };
  },
});

const written = calculator({
  id: "code-counts",
  group: "cleanliness",
  title: "What a code stands for",
  asks: "How many particles does this number stand for?",
  fields: {
    over4: plain("Number over 4 µm(c)", "18", 0, 28),
    over6: plain("over 6 µm(c)", "16", 0, 28),
    over14: plain("over 14 µm(c)", "13", 0, 28),
  },
  compute(v) {
    const codes = [v.over4, v.over6, v.over14].map(Math.round);
    const found = parseIso4406(codes.join("/"));
    return {
      answer: say(
        { text: found.text, strong: true },
        " is up to ",
        figure(countsOfCode(codes[0]!).upTo, "count"),
        " over 4 µm, ",
        figure(countsOfCode(codes[1]!).upTo, "count"),
        " over 6 µm and ",
        figure(countsOfCode(codes[2]!).upTo, "count"),
        " over 14 µm.",
      ),
      tone: "plain",
      working: {
        formula: "range of each scale number",
        source: `ISO 4406. ${MEMORY}`,
        rows: codes.map((c, i) => ({
          label: `over ${[4, 6, 14][i]} µm, above`,
          value: countsOfCode(c).over,
          quantity: "count",
        })),
      },
      table: {
        head: ["size", "above", "up to"],
        rows: codes.map((c, i): Cell[] => [
          `over ${[4, 6, 14][i]} µm(c)`,
          { value: countsOfCode(c).over, quantity: "count" },
          { value: countsOfCode(c).upTo, quantity: "count" },
        ]),
      },
    };
  },
});

function classOutcome(
  found: CleanlinessClass,
  sizes: readonly string[],
  counts: readonly (number | null)[],
  formula: string,
  source: string,
): Outcome {
  return {
    answer: say({ text: found.text, strong: true }, `; the size ${found.decides} µm decides.`),
    tone: "plain",
    working: { formula, source: `${source} ${MEMORY}`, rows: [] },
    table: {
      head: ["size, µm", "per 100 mL", "class"],
      rows: sizes.map((s, i): Cell[] => [
        s,
        counts[i] === null ? "not counted" : { value: counts[i]! },
        found.classes[i] ?? "–",
      ]),
    },
  };
}

const per100 = (label: string, example: string) => plain(label, example, 0, 1e9, { suffix: "per 100 mL" });

const maybePer100 = (label: string, example: string) => maybePlain(label, 0, 1e9, { suffix: "per 100 mL", example });

const nas = calculator({
  id: "nas-1638",
  group: "cleanliness",
  title: "Class by NAS 1638",
  asks: "Which NAS 1638 class is this sample?",
  fields: {
    a: per100("5 to 15 µm", "30000"),
    b: maybePer100("15 to 25 µm", "5000"),
    c: maybePer100("25 to 50 µm", "800"),
    d: maybePer100("50 to 100 µm", "120"),
    e: maybePer100("over 100 µm", "20"),
  },
  compute: ({ a, b, c, d, e }) =>
    classOutcome(
      nas1638([a, b, c, d, e]),
      nas1638Table.sizes,
      [a, b, c, d, e],
      "worst class of the size bands",
      "NAS 1638 (withdrawn, still asked for).",
    ),
});

const as = calculator({
  id: "as-4059",
  group: "cleanliness",
  title: "Class by AS4059",
  asks: "Which SAE AS4059 class is this sample?",
  fields: {
    a: per100("over 4 µm(c)", "90000"),
    b: maybePer100("over 6 µm(c)", "30000"),
    c: maybePer100("over 14 µm(c)", "5000"),
    d: maybePer100("over 21 µm(c)", "900"),
    e: maybePer100("over 38 µm(c)", "100"),
    f: maybePer100("over 70 µm(c)", "10"),
  },
  compute: ({ a, b, c, d, e, f }) =>
    classOutcome(
      as4059([a, b, c, d, e, f]),
      as4059Table.sizes,
      [a, b, c, d, e, f],
      "worst class of the cumulative sizes",
      "SAE AS4059.",
    ),
});

export const cleanlinessCalculators = [iso, target, written, nas, as];
