import { readFileSync } from "node:fs";
for (const file of process.argv.slice(2)) {
  const rows = readFileSync(file, "utf8").split("\n").filter(Boolean).map((l) => JSON.parse(l)).filter((s) => s.readings >= 6);
  const at = (q, p) => q[Math.round(100 * p) - 1] ?? Infinity;
  const med = (v) => [...v].sort((a, b) => a - b)[v.length >> 1];
  const mean = (v) => v.reduce((s, x) => s + x, 0) / v.length;
  const line = (n, g) => g.length ? `${n} n${g.length} cov ${mean(g.map((s) => +(s.truth >= at(s.quantiles, .1) && s.truth <= at(s.quantiles, .9)))).toFixed(2)} p5 ${mean(g.map((s) => +(s.truth < at(s.quantiles, .05)))).toFixed(3)} crps ${med(g.map((s) => s.crps)).toFixed(3)} mean ${mean(g.map((s) => Math.min(3, s.crps))).toFixed(3)} late ${med(g.map((s) => at(s.quantiles, .5) / s.truth - 1)).toFixed(2)}` : n;
  console.log(file.split("/").pop().padEnd(16), line("all", rows));
  if (process.env.V) {
    console.log("   ", line("6-10", rows.filter((s) => s.readings <= 10)), "|", line(">50", rows.filter((s) => s.readings > 50)));
    console.log("   ", line("short", rows.filter((s) => s.life < 6000)), "|", line("mult", rows.filter((s) => s.family === "multiplies")));
  }
}
