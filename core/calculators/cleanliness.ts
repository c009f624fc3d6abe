/** Calculations about cleanliness, filters and wear metals. */
import { as4059, as4059Table, nas1638, nas1638Table, type CleanlinessClass } from "../contamination/classes";
import {
  cleanUpTime,
  correctedPressureDrop,
  countAfter,
  filterEfficiency,
  filtrationRatio,
  ingressFrom,
  steadyCount,
} from "../contamination/filter";
import { countsOfCode, iso4406, parseIso4406 } from "../contamination/iso4406";
import { overTarget, sensitiveKindIds, targetCode, typicalTargets, type SensitiveKind } from "../contamination/target";
import { wearMetalAmounts } from "../contamination/wearMetal";
import { kinematicViscosity } from "../fluid/viscosity";
import { theilSen } from "../trend/theilSen";
import { formatNumber } from "../units/format";
import {
  calculator,
  choice,
  figure,
  maybe,
  maybePlain,
  plain,
  quantity,
  rows,
  say,
  spaced,
  type Cell,
  type Outcome,
} from "./types";

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

const cleanUp = calculator({
  id: "clean-up",
  group: "cleanliness",
  title: "Cleaning up a tank",
  asks: "Where does the count settle, and how long until the target?",
  fields: {
    volume: quantity("volume", "400", { label: "Oil in the circuit", take: "volume" }),
    flow: quantity("flow", "60", { label: "Flow through the filter" }),
    beta: plain("Filtration ratio β", "200", 1.01, 1e6),
    ingress: quantity("ingress", "3000", { label: "Particles that enter" }),
    now: count("Count now", "40000"),
    goal: count("Target", "800"),
    loop: maybe("flow", { label: "Off-line loop of the same element" }),
  },
  compute(v) {
    const balance = { volume: v.volume, flow: v.flow + (v.loop ?? 0), beta: v.beta, ingress: v.ingress };
    const steady = steadyCount(balance);
    const time = cleanUpTime(balance, v.now, v.goal);
    const without = v.loop === null ? null : cleanUpTime({ ...balance, flow: v.flow }, v.now, v.goal);
    const span = time === null ? (8 * v.volume) / (balance.flow * filterEfficiency(v.beta)) : Math.max(1, 1.4 * time);
    return {
      answer:
        time === null
          ? say(
              { text: "Never with this filter.", strong: true },
              " More comes in than it takes: the count settles at ",
              figure(steady, "count"),
              ", above the target.",
            )
          : say(
              "The target is reached in ",
              figure(time / 60, "minutes", 3),
              " of running",
              ...(v.loop === null
                ? []
                : without === null
                  ? [" (never without the loop)"]
                  : [" (", figure(without / 60, "minutes", 3), " without the loop)"]),
              "; the count settles at ",
              figure(steady, "count"),
              ".",
            ),
      tone: time === null ? "bad" : "plain",
      notes: [
        "One well-mixed volume. Dirt that settles in dead legs comes out later: sample again after a day of running.",
      ],
      working: {
        formula: "V·dN/dt = R − Q·(1 − 1/β)·N",
        source: "Tank balance.",
        rows: [
          { label: "1 − 1/β", value: filterEfficiency(v.beta), digits: 4 },
          { label: "settles at R/(Q·η)", value: steady, quantity: "count", digits: 3 },
          {
            label: "time constant V/(Q·η)",
            value: v.volume / (balance.flow * filterEfficiency(v.beta)) / 60,
            quantity: "minutes",
            digits: 3,
          },
        ],
      },
      chart: {
        x: { label: "running", quantity: "minutes", least: 0 },
        y: { label: "particles", quantity: "count", log: true },
        series: [
          {
            label: "count",
            style: "line",
            points: spaced(0, span).map((t) => [t / 60, Math.max(0.01, countAfter(balance, v.now, t))]),
          },
        ],
        marks: [{ axis: "y", at: v.goal, label: "target", tone: "limit" }],
      },
    };
  },
});

const ratio = calculator({
  id: "filter-ratio",
  group: "cleanliness",
  title: "Filtration ratio",
  asks: "What does this element take out, from counts before and after it, and what dirt comes in?",
  fields: {
    before: count("Before the element", "2000"),
    after: count("After it", "10"),
    flow: quantity("flow", "60", { label: "Flow" }),
  },
  compute(v) {
    const beta = filtrationRatio(v.before, v.after);
    if (beta < 1) throw new RangeError("More after than before: the samples are swapped, or the element sheds dirt.");
    return {
      answer: say(
        "β ",
        { text: formatNumber(beta, beta < 10 ? 1 : 0), strong: true },
        `: it takes ${formatNumber(100 * filterEfficiency(beta), 2)} % in one pass. If the count before it is steady, `,
        figure(ingressFrom(v.before, v.flow, beta), "ingress"),
        " come in.",
      ),
      tone: beta < 75 ? "doubt" : "plain",
      notes: [
        "Counts at one size, taken together, machine at work. A flow that pulses lets more through than the rating says.",
      ],
      working: {
        formula: "β = N_before/N_after, 1 − 1/β; R = Q·(1 − 1/β)·N",
        source: "Definition of the filtration ratio (ISO 16889) and tank balance.",
        rows: [
          { label: "β", value: beta, digits: 3 },
          { label: "1 − 1/β", value: filterEfficiency(beta), digits: 4 },
          { label: "R", value: ingressFrom(v.before, v.flow, beta), quantity: "ingress", digits: 3 },
        ],
      },
    };
  },
});

const element = calculator({
  id: "filter-drop",
  group: "cleanliness",
  title: "Differential pressure of a filter",
  asks: "Is the element blocking, or is the oil just cold?",
  fields: {
    drop: quantity("pressureDrop", "2.2", { label: "As read" }),
    flow: quantity("flow", "55", { label: "Flow" }),
    temperature: quantity("oilTemperature", "28", { label: "Oil temperature" }),
    referenceFlow: quantity("flow", "60", { label: "Reference flow" }),
    referenceTemperature: quantity("oilTemperature", "50", {
      label: "Reference temperature",
      take: "referenceTemperature",
    }),
    kv40: quantity("viscosity", "46", { label: "Viscosity at 40 °C", take: "kv40" }),
    kv100: quantity("viscosity", "6.8", { label: "Viscosity at 100 °C", take: "kv100" }),
    housing: maybe("pressureDrop", { label: "Housing's part at the reference flow" }),
    limit: quantity("pressureDrop", "2.8", { label: "Change at" }),
  },
  compute(v) {
    const [nu, nuRef] = [kinematicViscosity(v, v.temperature), kinematicViscosity(v, v.referenceTemperature)];
    const corrected = correctedPressureDrop(
      { drop: v.drop, flow: v.flow, viscosity: nu },
      { flow: v.referenceFlow, viscosity: nuRef },
      v.housing ?? 0,
    );
    return {
      answer: say(
        "At the reference it is ",
        figure(corrected, "pressureDrop"),
        corrected >= v.limit
          ? ": change the element."
          : v.drop >= v.limit
            ? ": the oil is cold, the element is not blocked."
            : ": not blocked.",
      ),
      tone: corrected >= v.limit ? "bad" : corrected > 0.7 * v.limit ? "doubt" : "good",
      notes: ["A drop that falls by itself points to an open bypass or a torn element."],
      working: {
        formula: "Δp_ref = Δp·(Q_ref/Q)·(ν_ref/ν), the housing's part with Q²",
        source: "Laminar flow through the element; viscosity by ASTM D341.",
        rows: [
          { label: "ν", value: nu, quantity: "viscosity", digits: 4 },
          { label: "ν_ref", value: nuRef, quantity: "viscosity", digits: 4 },
          { label: "Δp_ref", value: corrected, quantity: "pressureDrop", digits: 3 },
        ],
      },
    };
  },
});

const metal = calculator({
  id: "wear-metal",
  group: "cleanliness",
  title: "Wear metal corrected for top-ups",
  asks: "How fast is metal made, once oil that was lost and topped up is put back into the sum?",
  fields: {
    volume: quantity("volume", "200", { label: "Oil in the circuit", take: "volume" }),
    samples: rows(
      "Samples",
      [
        { id: "hours", label: "Hours since the oil change" },
        { id: "ppm", label: "ppm" },
      ],
      "0 2\n500 9\n1000 14\n1500 21\n2000 24",
      3,
      "One a line: hours since the oil change, ppm.",
    ),
    events: rows(
      "Top-ups and losses",
      [
        { id: "hours", label: "Hours" },
        { id: "lost", label: "Litres lost" },
        { id: "added", label: "Litres added" },
        { id: "ppm", label: "New oil, ppm", optional: true },
      ],
      "700 20 20 1\n1700 30 30 1",
      0,
      "One a line: hours, litres lost, litres added, ppm of the new oil.",
    ),
  },
  compute(v) {
    const amounts = wearMetalAmounts(
      v.samples.map((s) => ({ hours: s.hours!, concentration: s.ppm! })),
      v.events.map((e) => ({ hours: e.hours!, lost: e.lost!, added: e.added!, newOil: e.ppm ?? 0 })),
      v.volume,
    );
    const line = (key: "raw" | "corrected") =>
      theilSen(
        amounts.map((a) => a.hours),
        amounts.map((a) => a[key]),
      );
    const [raw, corrected] = [line("raw"), line("corrected")];
    return {
      answer: say(
        "It makes ",
        { text: `${formatNumber(1000 * corrected.slope, 2)} ppm per 1000 h`, strong: true },
        ` (${formatNumber(1000 * corrected.low, 2)} to ${formatNumber(1000 * corrected.high, 2)}, 95 %); as ` +
          `read it looks like ${formatNumber(1000 * raw.slope, 2)}.`,
      ),
      tone: "plain",
      working: {
        formula: "M = V·C + Σ(lost·mean C) − Σ(added·C of the new oil), over V; slope by Theil-Sen",
        source: "Mass balance; Sen (1968).",
        rows: amounts.map((a) => ({ label: `at ${formatNumber(a.hours, 0)} h, ppm`, value: a.corrected, digits: 3 })),
      },
      chart: {
        x: { label: "hours since the oil change", quantity: "runningHours", least: 0 },
        y: { label: "ppm", least: 0 },
        series: [
          { label: "corrected", style: "line", points: amounts.map((a) => [a.hours, a.corrected]) },
          { label: "as read", style: "points", points: amounts.map((a) => [a.hours, a.raw]) },
        ],
      },
    };
  },
});

export const cleanlinessCalculators = [iso, target, written, cleanUp, ratio, element, metal, nas, as];
