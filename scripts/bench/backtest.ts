/**
 * Back-test of the forecast over simulated fleets: coverage of P10-P90, bias, α-λ and CRPS over the true time
 * left, beside straight lines and the single best curve.
 *
 *   tsx scripts/bench/backtest.ts [--set tuned|heldOut|unseen|all] [--lives N] [--seed N] [--peers none|ended|replaced] [--brief]
 */
import { parseArgs } from "node:util";
import { heldOutLaws, tunedLaws, unseenLaws } from "../../core/simulation/fleet";
import { binName, bins, median, scoreFleets, share, type Score, type Peers } from "./origins";
import { rivals } from "./rivals";

const { values: options } = parseArgs({
  options: {
    set: { type: "string", default: "heldOut" },
    lives: { type: "string", default: "12" },
    seed: { type: "string", default: "0" },
    peers: { type: "string", default: "none" },
    brief: { type: "boolean", default: false },
  },
});
const laws =
  options.set === "tuned"
    ? tunedLaws
    : options.set === "heldOut"
      ? heldOutLaws
      : options.set === "unseen"
        ? unseenLaws
        : [...tunedLaws, ...heldOutLaws, ...unseenLaws];
const scores = scoreFleets({
  laws,
  lives: Number(options.lives),
  seed: Number(options.seed) + (options.set === "tuned" ? 1000 : 500_000),
  peers: options.peers as Peers,
});

function table(title: string, key: (s: Score) => string): void {
  const groups = new Map<string, Score[]>();
  for (const s of scores) groups.set(key(s), [...(groups.get(key(s)) ?? []), s]);
  process.stdout.write(
    `\n${title.padEnd(28)} origins  covered  CRPS/true  bias   α-λ   ${Object.keys(rivals).join("  ")}\n`,
  );
  const f = (v: number, digits = 2) => v.toFixed(digits);
  for (const [name, group] of groups) {
    process.stdout.write(
      `${name.padEnd(28)} ${String(group.length).padStart(7)}  ${f(share(group.map((s) => s.covered)))}    ` +
        ` ${f(median(group.map((s) => s.relativeCrps)), 3)}      ` +
        `${f(median(group.map((s) => s.bias))).padStart(5)}  ${f(share(group.map((s) => s.alphaLambda)))}  ` +
        `${Object.keys(rivals)
          .map((r) => f(median(group.map((s) => s.rivals[r]!))).padStart(r.length))
          .join("  ")}\n`,
    );
  }
}

const order = bins.map(([low]) => binName(low));
scores.sort((a, b) => order.indexOf(binName(a.readings)) - order.indexOf(binName(b.readings)));
table(`${options.set}${options.peers === "none" ? "" : `, peers ${options.peers}`}`, () => "all");
table("by number of readings", (s) => binName(s.readings));
if (!options.brief) {
  table("by law", (s) => s.law);
  table("by noise", (s) => `noise ${s.noise}`);
}
process.stdout.write(
  `assess: median ${median(scores.map((s) => s.ms)).toFixed(1)} ms, at 50-70 readings ` +
    `${median(scores.filter((s) => s.readings >= 50 && s.readings <= 70).map((s) => s.ms)).toFixed(1)} ms\n`,
);
