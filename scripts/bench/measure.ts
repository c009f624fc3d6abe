/**
 * The measurements of `npm run bench`: import against \copy, assessments a second, server time of the
 * pages against the same data read by plain SQL. Run by scripts/bench.mjs.
 */
import { assess, defaultPrior, random, simulateLife, type AssessContext, type AssessPoint } from "@core";
import { readFileSync, rmSync, writeFileSync, createReadStream } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { pipeline } from "node:stream/promises";
import { closeConnections } from "~/db/client.server";
import { importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { runImport, saveMapping } from "~/domain/readings/index.server";
import { median, page, say, signedIn, sqlTime, time } from "./timing";

const client = new pg.Client({ connectionString: process.env.DATABASE_URL });

/** (a) 100 000 readings as CSV through the import, against \copy of the same rows into the same table. */
async function importing(): Promise<void> {
  const rows = 100_000;
  const { rows: points } = await client.query<{ id: string; life: string; code: string }>(
    "select p.id, l.id as life, m.tag || '/' || c.name || '/' || p.name as code from points p join " +
      "components c on c.id = p.component_id join circuits k on k.id = c.circuit_id join machines m on " +
      "m.id = k.machine_id join lives l on l.component_id = c.id and l.ended_at is null and l.started_at < " +
      "'2022-01-01' where p.quantity in ('caseDrainFlow', 'strokeTime', 'pressureDrop') order by 3 limit 40",
  );
  const at = (i: number) => new Date(Date.UTC(2022, 0, 1) + Math.floor(i / points.length) * 600_000 + 13).toISOString();
  const csv = join(tmpdir(), `bench-${process.pid}.csv`);
  const copy = join(tmpdir(), `bench-${process.pid}.copy`);
  writeFileSync(
    csv,
    [
      "point,taken_at,value,oil_c,load_bar,hours_h,note",
      ...Array.from({ length: rows }, (_, i) =>
        [
          `"${points[i % points.length]!.code}"`,
          at(i),
          (1 + (i % 100) / 100).toFixed(2),
          45 + (i % 10),
          200 + (i % 20),
          1000 + Math.floor(i / points.length),
          "round",
        ].join(","),
      ),
    ].join("\n"),
  );
  writeFileSync(
    copy,
    Array.from({ length: rows }, (_, i) =>
      [
        points[i % points.length]!.id,
        points[i % points.length]!.life,
        at(i),
        (1 + (i % 100) / 100).toFixed(2),
        "1 L/min",
        45 + (i % 10),
        200 + (i % 20),
        1000 + Math.floor(i / points.length),
        "round",
        "bench",
      ].join("\t"),
    ).join("\n") + "\n",
  );
  const remove = () =>
    client
      .query("delete from readings where taken_by = 'bench' or note = 'round'")
      .then(() => client.query("vacuum readings"));
  const ratios: number[] = [];
  for (let run = 0; run < 3; run++) {
    const plain = await time(async () => {
      await client.query("begin");
      await pipeline(
        createReadStream(copy),
        client.query(
          copyFrom(
            "copy readings (point_id, life_id, taken_at, value, entered, temperature, pressure, hours, note, taken_by) from stdin",
          ),
        ),
      );
      await client.query("commit");
    });
    await remove();
    const ours = await time(async () => {
      const id = await storeUpload("bench.csv", readFileSync(csv), "bench");
      const problems = await saveMapping(id, {
        delimiter: ",",
        decimalMark: ".",
        hasHeader: true,
        dateOrder: "ymd",
        columns: { point: 0, takenAt: 1, value: 2, temperature: 3, pressure: 4, hours: 5, note: 6 },
        units: {},
        pointId: "",
        skipBad: false,
      });
      if (problems) throw new Error(JSON.stringify(problems));
      const result = await runImport(await importRecord(id));
      if (!result.ok || result.added !== rows) throw new Error(JSON.stringify(result));
    });
    await remove();
    ratios.push(ours.ms / plain.ms);
    say(`    \\copy ${plain.ms.toFixed(0)} ms, import ${ours.ms.toFixed(0)} ms`);
  }
  say(`(a) import of 100 000 readings over \\copy: ${median(ratios).toFixed(2)} (aim at most 3)`);
  rmSync(csv);
  rmSync(copy);
  await client.query("update assessments set stale = false");
}

/** (b) assessments a second at 60 readings, and how it grows at 600. */
function assessing(): void {
  const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
  const now = Date.UTC(2026, 10, 24);
  const point: AssessPoint = {
    quantity: "caseDrainFlow",
    limit: { basis: "absolute", upper: 6.5, lower: null },
    reference: { pressure: 210, temperature: 50 },
    fullFlow: 65.25,
    knownWhenNew: true,
    makersNew: null,
  };
  const context: AssessContext = {
    now,
    fluid,
    measured: [],
    contamination: null,
    prior: defaultPrior,
    duty: { hoursPerDay: 9, deviation: 0.1 },
    stops: [{ id: "s", at: now + 5e9 }],
    leadTimeDays: 30,
    runInHours: 50,
    lifeStartHours: 0,
    lifeStartedAt: null,
    meterChanges: [],
    readingsInAll: null,
    partReadyAt: null,
    nextChanceDays: 28,
    accepted: 0.3,
    repairedAt: null,
    seed: 0,
  };
  const lives = (n: number, count: number) =>
    Array.from({ length: count }, (_, k) => {
      const times = Array.from({ length: n }, (_, i) => ({
        at: now - (n - i) * (1826 / n) * 86_400_000,
        hours: (i * 16_400) / n,
      }));
      return simulateLife(
        {
          asNew: 1.37,
          end: 4,
          timeScale: 22_000,
          law: (["linear", "clearance", "exponential"] as const)[k % 3]!,
          a: 1,
          b: 0.7,
          reference: point.reference!,
          fluid,
          pressure: { mean: 208, scatter: 4 },
          noise: 0.03,
        },
        times,
        random(k),
      ).map((r, i) => ({
        id: String(i),
        at: r.at,
        hours: r.hours,
        value: r.value,
        pressure: r.pressure,
        temperature: r.temperature,
        uncertainty: null,
        doubtful: false,
        recalled: false,
      }));
    });
  const run = (set: ReturnType<typeof lives>) => {
    const start = performance.now();
    for (const life of set) assess(life, point, context);
    return (performance.now() - start) / set.length;
  };
  const short = lives(60, 60);
  const long = lives(600, 12);
  run(short);
  const at60 = median([run(short), run(short), run(short)]);
  const at600 = median([run(long), run(long), run(long)]);
  say(
    `(b) assessment of a life of 60 readings: ${at60.toFixed(1)} ms, ${(1000 / at60).toFixed(0)} a ` +
      `second; of 600: ${at600.toFixed(1)} ms, ${(at600 / at60).toFixed(1)} times as long for ten times the readings`,
  );
}

/** Enough fleet and readings: 5000 points, 1 000 000 readings, made in SQL. */
async function enlarge(): Promise<void> {
  await client.query(`
    insert into machines (site_id, name, tag, area) select (select id from sites
      limit 1), 'Bench machine ' || i, 'BM-' || i, 'Bench ' || i % 20 from generate_series(1, 235) i;
    insert into circuits (machine_id, name, fluid_id) select id, 'Circuit', (select id from fluids limit 1) from machines where tag like 'BM-%';
    insert into components (circuit_id, kind, name, position) select k.id, 'axialPistonPump', 'Pump ' || i, i
      from circuits k join machines m on m.id = k.machine_id, generate_series(1, 4) i where m.tag like 'BM-%';
    insert into lives (component_id, started_at) select c.id, '2010-01-01' from components c
      join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id where m.tag like 'BM-%';
    insert into points (component_id, name, quantity, state, unit, reference_pressure, reference_temperature, limit_basis, limit_upper, last_reading_at)
      select c.id, 'Case drain ' || i, 'caseDrainFlow', 'fullStroke', 'L/min', 210, 50, 'absolute', 6, now()
        from components c join circuits k on k.id = c.circuit_id
        join machines m on m.id = k.machine_id, generate_series(1, 5) i where m.tag like 'BM-%';
    insert into readings (point_id, life_id, taken_at, value, entered, pressure, temperature, hours, taken_by)
      select p.id, l.id, now() - interval '1 day' - n * interval '10 days', 2 + random() * 0.1, '2 L/min', 205 +
        random() * 10, 45 + random() * 10, 40000 - n * 80, 'bench' from points p
        join lives l on l.component_id = p.component_id, generate_series(1, 210) n where p.name like 'Case drain _';`);
  await client.query(`
    insert into assessments (point_id, life_id, state, urgency, readings, verdict, margin, detail, p10, p50, p90)
      select p.id, l.id, 'steady', random() * 5, 210, s.verdict, s.margin, s.detail, now() + interval '3 years', null,
        null from points p join lives l on l.component_id = p.component_id,
        (select verdict, margin, detail from assessments where state = 'steady' and detail is not null
          and (detail->>'readings')::int > 50 and detail->'correction' is not null limit 1) s where p.name like 'Case drain _'
          on conflict do nothing;
    analyze;`);
}

/** (c) pages with 5000 points and 1 000 000 readings, against the same data by plain SQL. */
async function pages(): Promise<void> {
  await enlarge();
  // else the pages are measured while the database tidies up a million new rows
  await client.query("vacuum analyze");
  const {
    rows: [size],
  } = await client.query<{ points: string; readings: string }>(
    "select (select count(*) from points) as points, (select count(*) from readings) as readings",
  );
  say(`    ${size!.points} points, ${size!.readings} readings`);
  const cookie = await signedIn();
  const {
    rows: [one],
  } = await client.query<{ id: string; machine: string }>(
    "select p.id, m.id as machine from points p join components c on c.id = p.component_id join circuits " +
      "k on k.id = c.circuit_id join machines m on m.id = k.machine_id where m.tag = 'BM-7' limit 1",
  );
  const living = "p.retired_at is null and c.retired_at is null and k.retired_at is null and m.retired_at is null";
  const joins =
    "join components c on c.id = p.component_id join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id";
  const judged = `from assessments a join points p on p.id = a.point_id ${joins} where ${living}`;
  const soon = "current_date + 30";
  /** What the frame of every page reads. */
  const frame: [string, unknown[]][] = [
    ["select u.* from sessions s join users u on u.id = s.user_id where s.expires_at > now() limit 1", []],
    ["select name, time_zone from sites where retired_at is null order by name limit 1", []],
    ["select count(*) from interventions where done_at is null and cancelled_at is null", []],
    ["select count(*) from oil_assessments where urgency >= 30", []],
    [`select count(*) ${judged} and (a.state in ('alarm', 'alert') or a.asks_again)`, []],
  ];
  const today: [string, unknown[]][] = [
    ...frame,
    [
      `select p.id, p.name, c.name, m.name, a.state, a.verdict, a.margin, a.detail -> 'series' ${judged} and a.urgency >= 10
        order by a.urgency desc limit 40`,
      [],
    ],
    ["select circuit_id, detail from circuit_diagnoses where share is not null limit 12", []],
    [
      `select k.id, m.name, o.state, o.verdict, o.margin from oil_assessments o join circuits k on k.id = o.circuit_id
        join machines m on m.id = k.machine_id where o.state in ('alarm', 'alert') order by o.urgency desc limit 6`,
      [],
    ],
    [`select a.state, count(*) ${judged} group by a.state`, []],
    [
      `select m.name, c.name, a.state, a.p10, a.p50, a.p90 ${judged} and a.p10 < now() + interval '1 year'
        and a.state in ('drifting', 'alert', 'alarm') order by a.p50 limit 10`,
      [],
    ],
    [
      "select r.id, r.name, count(*), min(p.last_reading_at + p.interval_days * interval '1 day') from " +
        "points p join round_points rp on rp.point_id = p.id join rounds r on r.id = rp.round_id where " +
        "p.last_reading_at + p.interval_days * interval '1 day' < now() + interval '7 days' group by r.id",
      [],
    ],
    ["select * from stops where starts_on >= current_date order by starts_on limit 8", []],
    [
      `select p.id, m.name, p.name, a.state, a.state_before ${judged} and a.state_since > now() - interval '7 days'`,
      [],
    ],
    ["select count(*) from interventions where done_at > now() - interval '7 days'", []],
    [`select * from interventions where interim and looked_again_at is null and look_again_on <= ${soon}`, []],
    [
      `select c.id, c.exercise_days, max(v.at) from components c left join component_moves v on v.component_id = c.id
        where c.exercise_days is not null group by c.id`,
      [],
    ],
    [
      "select circuit_id, oldest_hose from circuit_diagrams where oldest_hose is not null order by oldest_hose limit 5",
      [],
    ],
    [`select * from oil_events where change_back_by <= ${soon} and withdrawn_at is null`, []],
    [`select * from campaigns where closed_at is null and due_on <= ${soon}`, []],
    ["select * from interventions where done_at > now() - interval '180 days' and signed_at is null", []],
  ];
  const fleet: [string, unknown[]][] = [
    ...frame,
    ["select distinct area from machines where retired_at is null", []],
    [
      `select m.id, m.name, m.tag, m.area, count(p.id), max(a.urgency), count(*) filter (where a.urgency >= 30)
        from machines m left join circuits k on k.machine_id = m.id left join components c on c.circuit_id = k.id
        left join points p on p.component_id = c.id left join assessments a on a.point_id = p.id where m.retired_at is null
        group by m.id order by m.area, m.name`,
      [],
    ],
    [
      `select distinct on (m.id, p.quantity) m.id, p.quantity, p.id, a.state, a.urgency, a.margin -> 'value' ${judged}
        order by m.id, p.quantity, a.urgency desc`,
      [],
    ],
    [
      `select distinct on (k.machine_id) k.machine_id, k.id, o.state, o.margin -> 'value' from oil_assessments o
        join circuits k on k.id = o.circuit_id order by k.machine_id, o.urgency desc`,
      [],
    ],
  ];
  const point: [string, unknown[]][] = [
    ...frame,
    [
      "select r.*, i.tag from readings r left join instruments i on i.id = r.instrument_id where " +
        "r.point_id = $1 and r.superseded_at is null order by r.taken_at",
      [one!.id],
    ],
    ["select * from assessments where point_id = $1", [one!.id]],
    [`select p.*, c.*, k.*, m.* from points p ${joins} where p.id = $1`, [one!.id]],
    ["select l.* from lives l join points p on p.component_id = l.component_id where p.id = $1", [one!.id]],
    ["select count(*) from readings where point_id = $1 and superseded_at is not null", [one!.id]],
  ];
  const empty = await page("/healthz", cookie);
  for (const [name, path, sql] of [
    ["Today", "/", today],
    ["Fleet", "/fleet", fleet],
    ["Point", `/points/${one!.id}`, point],
  ] as const) {
    const html = await page(path, cookie);
    const loaded = await page(`${path === "/" ? "/_root" : path}.data`, cookie);
    const plain = await sqlTime(client, sql);
    say(
      `    ${name}: plain SQL ${plain.toFixed(1)} ms, data of the page ${loaded.toFixed(1)} ms, whole page ` +
        `${html.toFixed(1)} ms (an empty answer ${empty.toFixed(1)} ms)`,
    );
    say(
      `(c) ${name}: data over plain SQL ${(loaded / plain).toFixed(2)}, page over plain SQL ${(html / plain).toFixed(2)} (aim at most 2)`,
    );
  }
}

await client.connect();
// computation first: the database is still busy with itself after the import
assessing();
await importing();
await pages();
await client.end();
await closeConnections();
process.exit(0);
