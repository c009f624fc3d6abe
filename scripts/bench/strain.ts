/**
 * What the application does under strain, with pages and worker running: a point with a very long life, a million rows
 * that are imported while people look at pages, readings that are saved at once, and nonsense at every form.
 */
import { readFileSync } from "node:fs";
import pg from "pg";
import { closeConnections } from "~/db/client.server";
import { beginStage, importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { closeQueue } from "~/platform/jobs.server";
import { saveMapping } from "~/domain/readings/index.server";
import { fuzz } from "../../e2e/fuzz";
import { fuzzJson, fuzzPages } from "../../e2e/support";
import { median, page, say, signedIn, time } from "./timing";

const base = process.env.BENCH_URL!;
const client = new pg.Pool({ connectionString: process.env.DATABASE_URL });
const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
const quantile = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;
const ask = async <T>(sql: string, values: unknown[] = []) => (await client.query(sql, values)).rows as T[];

/** Save one reading as a browser does. Returns the status. */
async function save(point: { id: string; state: string }, at: Date, cookie: string): Promise<number> {
  const body = new URLSearchParams({
    value: "1.5",
    temperature: "50",
    pressure: "205",
    hours: "",
    takenAt: at.toISOString().slice(0, 16),
    state: point.state,
    keptBecause: "bench",
    submission: crypto.randomUUID(),
  });
  return (
    await fetch(`${base}/points/${point.id}`, {
      method: "POST",
      redirect: "manual",
      headers: { Origin: base, Cookie: cookie, "Content-Type": "application/x-www-form-urlencoded" },
      body,
    })
  ).status;
}

/** (e) one more reading, and the page, of points with ever longer lives. */
async function longLives(cookie: string): Promise<void> {
  const points = await ask<{ id: string; state: string; life: string }>(
    "select p.id, p.state, l.id as life from points p join lives l on l.component_id = p.component_id " +
      "and l.ended_at is null join machines m on m.id = (select machine_id from circuits k join components " +
      "c on c.circuit_id = k.id where c.id = p.component_id) where p.quantity = 'caseDrainFlow' and " +
      "l.started_at < now() - interval '4 years' order by m.tag limit 3",
  );
  const found: { saved: number; opened: number }[] = [];
  for (const [i, count] of [1_000, 16_000, 100_000].entries()) {
    const point = points[i]!;
    await client.query(
      "insert into readings (point_id, life_id, taken_at, value, entered, temperature, pressure, hours, " +
        "taken_by) select $1, $2, now() - interval '2 days' - n * (interval '1400 days' / $3::int), 1.4 + " +
        "random() * 0.05, '1.4 L/min', 48 + random() * 4, 203 + random() * 6, null, 'bench' from " +
        "generate_series(1, $3::int) n on conflict do nothing",
      [point.id, point.life, count],
    );
    await client.query("analyze readings");
    const saves: number[] = [];
    for (let k = 0; k < 8; k++) {
      const { ms, value } = await time(() => save(point, new Date(Date.now() - 86_400_000 + k * 600_000), cookie));
      if (value !== 302) throw new Error(`A reading was answered ${value}`);
      if (k > 1) saves.push(ms);
    }
    found.push({ saved: median(saves), opened: await page(`/points/${point.id}`, cookie) });
    say(
      `    ${count} readings at one point: one more saved and judged in ${found[i]!.saved.toFixed(0)} ms, page ${found[i]!.opened.toFixed(0)} ms`,
    );
  }
  say(
    `(e) 100 000 readings at a point over 1 000: saving ` +
      `${(found[2]!.saved / found[0]!.saved).toFixed(2)}, page ` +
      `${(found[2]!.opened / found[0]!.opened).toFixed(2)} (aim at about 1)`,
  );
}

const looked = ["/", "/fleet", "/rounds", "/oil"];

/** Times of pages that are opened one after another until `done` is there. */
async function lookAround(cookie: string, done: () => boolean): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; !done(); i++) {
    const { ms } = await time(async () =>
      (await fetch(base + looked[i % looked.length]!, { headers: { Cookie: cookie } })).text(),
    );
    times.push(ms);
    await sleep(20);
  }
  return times;
}

/** (f) other pages while a million rows are read and imported by the worker. */
async function millionRows(cookie: string): Promise<void> {
  const rows = 1_000_000;
  const [point] = await ask<{ id: string }>(
    "select p.id from points p join lives l on l.component_id = p.component_id and l.ended_at is null " +
      "where p.quantity = 'strokeTime' and l.started_at < now() - interval '5 years' limit 1",
  );
  // a page's first answers, while its code is still cold, are no part of either figure
  for (const address of looked) await page(address, cookie);
  let quiet = false;
  setTimeout(() => (quiet = true), 20_000);
  const before = await lookAround(cookie, () => quiet);
  const from = Date.now() - 1_700 * 86_400_000;
  const lines = Array.from(
    { length: rows },
    (_, i) => `${new Date(from + i * 140_000).toISOString().slice(0, 19)}Z,${(3 + (i % 20) / 100).toFixed(2)}`,
  );
  const id = await storeUpload("million.csv", Buffer.from(["taken_at,value", ...lines].join("\n")), "bench");
  const problems = await saveMapping(id, {
    delimiter: ",",
    decimalMark: ".",
    hasHeader: true,
    titleLines: 0,
    dateOrder: "ymd",
    columns: { takenAt: 0, value: 1 },
    units: {},
    pointId: point!.id,
    skipBad: false,
  });
  if (problems) throw new Error(JSON.stringify(problems));
  for (const stage of ["previewing", "importing"] as const) {
    let ended = false;
    await beginStage(id, stage);
    const start = performance.now();
    const waiting = (async () => {
      for (;;) {
        const record = await importRecord(id);
        if (!record.stage) return record;
        await sleep(250);
      }
    })().then((record) => {
      ended = true;
      return record;
    });
    const times = await lookAround(cookie, () => ended);
    const record = await waiting;
    if (record.failure || (stage === "importing" && record.added !== rows))
      throw new Error(record.failure ?? `${record.added} added`);
    const seconds = (performance.now() - start) / 1000;
    say(
      `(f) a million rows, ${stage}: ${seconds.toFixed(0)} s; other pages meanwhile p50 ` +
        `${median(times).toFixed(0)} ms, p99 ${quantile(times, 0.99).toFixed(0)} ms, at rest p50 ` +
        `${median(before).toFixed(0)} ms, p99 ${quantile(before, 0.99).toFixed(0)} ms: p99 ` +
        `${(quantile(times, 0.99) / quantile(before, 0.99)).toFixed(2)} times (aim under 100 ms)`,
    );
  }
}

/** (g) how late the page server's loop runs while eight people save readings without a pause. */
async function savingAtOnce(cookie: string): Promise<void> {
  const points = await ask<{ id: string; state: string }>(
    "select id, state from points where quantity in ('vacuum', 'caseDrainFlow') and state <> 'cycle' order by id limit 8",
  );
  const loop = () =>
    JSON.parse(readFileSync(process.env.BENCH_LOOP!, "utf8")) as { pid: number; p50: number; p99: number; max: number };
  process.kill(loop().pid, "SIGUSR2");
  const until = Date.now() + 20_000;
  const statuses = new Map<number, number>();
  const begun = Date.now() - 20 * 86_400_000;
  await Promise.all(
    points.map(async (point) => {
      for (let i = 0; Date.now() < until; i++) {
        const status = await save(point, new Date(begun + i * 60_000), cookie);
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
      }
    }),
  );
  await sleep(700);
  const { p50, p99, max } = loop();
  say(
    `(g) loop of the page server while ${[...statuses].map(([s, n]) => `${n} answered ${s}`).join(", ")} ` +
      `in 20 s: p50 ${p50.toFixed(1)} ms, p99 ${p99.toFixed(1)} ms, longest ${max.toFixed(0)} ms (aim: p99 ` +
      `at most 20 ms)`,
  );
}

/** (h) nonsense. */
async function nonsense(cookie: string): Promise<void> {
  const { sent, forms, faults, statuses } = await fuzz(
    { base, cookie, pages: await fuzzPages(ask), json: await fuzzJson(ask) },
    { requests: Number(process.env.FUZZ_REQUESTS ?? 10_000), seed: 42 },
  );
  say(
    `(h) nonsense: ${sent} requests at ${forms} forms, ${faults.length} faults of the server; ${JSON.stringify(statuses)}`,
  );
  for (const fault of faults.slice(0, 10)) say(`    ${JSON.stringify(fault)}`);
}

const cookie = await signedIn();
const parts = { g: savingAtOnce, e: longLives, f: millionRows, h: nonsense };
for (const [name, part] of Object.entries(parts))
  if ((process.env.BENCH_PARTS ?? "gefh").includes(name)) await part(cookie);
await client.end();
await closeQueue();
await closeConnections();
process.exit(0);
