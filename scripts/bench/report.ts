/** Writes the tables and plots of docs/forecast.md anew: tsx scripts/bench/report.ts [lives]. */
import { readFileSync, writeFileSync } from "node:fs";
import { heldOutLaws, tunedLaws, unseenLaws } from "../../core/simulation/fleet";
import { binName, bins, median, NOISES, scoreFleets, share, type Score } from "./origins";
import { rivals } from "./rivals";

const lives = Number(process.argv[2] ?? 16);
/** Fewer lives where peers were replaced: their figures stand in the text, not in the plots. */
const fewer = Math.ceil(lives / 2);
const sets = [
  { name: "laws tuned on", laws: tunedLaws, seed: 31_000 },
  { name: "laws kept apart", laws: heldOutLaws, seed: 700_000 },
  { name: "laws added last", laws: unseenLaws, seed: 900_000 },
];
const runs = sets.flatMap(({ name, laws, seed }) => [
  { name: `${name}, no peers`, scores: scoreFleets({ laws, lives, seed, peers: "none" }) },
  { name: `${name}, eight peers`, scores: scoreFleets({ laws, lives, seed, peers: "ended" }) },
]);
const replaced = sets.map(({ name, laws, seed }) => ({
  name: `${name}, eight peers that were replaced`,
  scores: scoreFleets({ laws, lives: fewer, seed, peers: "replaced" }),
}));
const together = (name: string, of: typeof runs) => ({
  name: `all twenty laws, ${name}`,
  scores: of.flatMap((r) => r.scores),
});

const f = (v: number, digits = 2) => (Number.isFinite(v) ? v.toFixed(digits) : "–");
const cells = (group: Score[]) => [
  String(group.length),
  f(share(group.map((s) => s.covered))),
  f(median(group.map((s) => s.relativeCrps)), 3),
  f(median(group.map((s) => s.bias))),
  f(share(group.map((s) => s.alphaLambda))),
  f(median(group.map((s) => s.horizonShare))),
  ...Object.keys(rivals).map((r) => f(median(group.map((s) => s.rivals[r]!)))),
];
const head = [
  "",
  "origins",
  "P10-P90 covers",
  "CRPS/true",
  "bias of P50",
  "α-λ",
  "horizon/life",
  "line through last five",
  "line through all",
  "best curve",
];
const tableOf = (rows: [string, Score[]][]) =>
  [
    `| ${head.join(" | ")} |`,
    `|${head.map(() => "---").join("|")}|`,
    ...rows.filter(([, g]) => g.length > 0).map(([name, g]) => `| ${[name, ...cells(g)].join(" | ")} |`),
  ].join("\n");

const tables = [
  together(
    "no peers",
    runs.filter((_, i) => i % 2 === 0),
  ),
  together(
    "eight peers",
    runs.filter((_, i) => i % 2 === 1),
  ),
  together("eight peers that were replaced", replaced),
  ...runs,
  ...replaced,
];
/** The first tables are over all laws. */
const IN_ALL = 3;
const parts = tables.map(({ name, scores }, i) => {
  const laws = i < IN_ALL ? [] : [...new Set(scores.map((s) => s.law))];
  const rows: [string, Score[]][] = [
    ["**all**", scores],
    ["6 readings and more", scores.filter((s) => s.readings >= 6)],
    ...bins.map(([low]): [string, Score[]] => [
      `${binName(low)} readings`,
      scores.filter((s) => binName(s.readings) === binName(low)),
    ]),
    ...laws.map((law): [string, Score[]] => [law, scores.filter((s) => s.law === law)]),
    ...NOISES.map((noise): [string, Score[]] => [`noise ${noise}`, scores.filter((s) => s.noise === noise)]),
  ];
  return `### ${name[0]!.toUpperCase()}${name.slice(1)}\n\n${tableOf(rows)}`;
});

/** A small plot: a line a run over the numbers of readings. */
function plot(
  title: string,
  value: (g: Score[]) => number,
  low: number,
  high: number,
  band?: [number, number],
): string {
  const [width, height, left, bottom] = [640, 300, 52, 40];
  const x = (i: number) => left + 30 + (i * (width - left - 190)) / (bins.length - 1);
  const y = (v: number) => height - bottom - ((v - low) / (high - low)) * (height - bottom - 40);
  const tones = ["#0a6a6b", "#14252b", "#855300", "#a9301a", "#4b4a8f", "#6a6a3a"];
  const lines = runs.map(({ name, scores }, k) => {
    const points = bins.map(
      ([b], i) => [x(i), y(Math.min(high, value(scores.filter((s) => binName(s.readings) === binName(b)))))] as const,
    );
    const end = points[points.length - 1]!;
    const dots = points.map(
      ([px, py]) => `<circle cx="${px.toFixed(1)}" cy="${py.toFixed(1)}" r="3" fill="${tones[k]}"/>`,
    );
    return [
      `<polyline fill="none" stroke="${tones[k]}" stroke-width="1.8"${k % 2 ? "" : ' stroke-dasharray="5 4"'}`,
      ` points="${points.map((p) => p.map((v) => v.toFixed(1)).join(",")).join(" ")}"/>`,
      ...dots,
      `<text x="${(end[0] + 8).toFixed(1)}" y="${(46 + 16 * k).toFixed(1)}" fill="${tones[k]}" font-size="11">${name}</text>`,
    ].join("");
  });
  const ticks = Array.from({ length: 5 }, (_, i) => low + ((high - low) * i) / 4);
  const right = width - 150;
  const banded = band
    ? `<rect x="${left}" y="${y(band[1])}" width="${right - left}" height="${y(band[0]) - y(band[1])}" fill="#d7e7e3"/>`
    : "";
  const muted = 'fill="#4d6068"';
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="12">`,
    `<rect width="${width}" height="${height}" fill="#fbfaf5"/>`,
    `<text x="${left}" y="22" font-weight="600" fill="#14252b">${title}</text>`,
    banded,
    ...ticks.flatMap((t) => [
      `<line x1="${left}" x2="${right}" y1="${y(t)}" y2="${y(t)}" stroke="#d9d4c6"/>`,
      `<text x="${left - 8}" y="${y(t) + 4}" text-anchor="end" ${muted}>${t.toFixed(2)}</text>`,
    ]),
    ...bins.map(([b], i) => `<text x="${x(i)}" y="${height - 18}" text-anchor="middle" ${muted}>${binName(b)}</text>`),
    ...lines,
    `<text x="${left}" y="${height - 3}" ${muted}>readings at the origin</text></svg>\n`,
  ].join("");
}

writeFileSync(
  "docs/forecast-coverage.svg",
  plot(
    "Share of origins whose true time left lies in P10 to P90",
    (g) => share(g.map((s) => s.covered)),
    0.5,
    1,
    [0.7, 0.9],
  ),
);
writeFileSync(
  "docs/forecast-crps.svg",
  plot("Median of CRPS over true time left", (g) => median(g.map((s) => s.relativeCrps)), 0, 0.6),
);
const file = "docs/forecast.md";
const text = readFileSync(file, "utf8");
const [before] = text.split("<!-- tables -->");
// law by law they would fill most of the page: those go to the terminal
writeFileSync(file, `${before}<!-- tables -->\n\n${parts.slice(0, IN_ALL).join("\n\n")}\n`);
process.stdout.write(`${parts.slice(IN_ALL).join("\n\n")}\n`);
const times = runs.flatMap((r) => r.scores);
process.stdout.write(
  `assess: median ${median(times.map((s) => s.ms)).toFixed(1)} ms, at 50-70 readings ` +
    `${median(times.filter((s) => s.readings >= 50 && s.readings <= 70).map((s) => s.ms)).toFixed(1)} ms\n`,
);
