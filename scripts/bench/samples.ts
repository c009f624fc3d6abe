/**
 * The oil in numbers: 200 000 samples through the import of a laboratory's file against \copy of the same rows, what
 * judging a circuit takes, and the server time of its page with 8000 samples. Run by scripts/bench.mjs.
 */
import { readFileSync, rmSync, writeFileSync, createReadStream } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import pg from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { closeConnections } from "~/db/client.server";
import { importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { assessCircuits, assessStaleCircuits } from "~/domain/condition/index.server";
import { runLabImport, saveLabMapping } from "~/domain/oil/index.server";
import { median, page, say, signedIn, sqlTime, time } from "./timing";

const ROWS = 200_000;
const client = new pg.Client({ connectionString: process.env.DATABASE_URL });

async function importing(): Promise<void> {
  const { rows: circuits } = await client.query<{ id: string; tag: string }>(
    "select k.id, m.tag from circuits k join machines m on m.id = k.machine_id where m.tag not like 'BM-%' order by m.tag",
  );
  const csv = join(tmpdir(), `bench-${process.pid}.csv`);
  const copy = join(tmpdir(), `bench-${process.pid}.copy`);
  const at = (i: number) =>
    new Date(Date.UTC(2022, 0, 1) + Math.floor(i / circuits.length) * 5 * 3_600_000).toISOString();
  const counts = (i: number) => [900 + (i % 300), 240 + (i % 60), 30 + (i % 9)] as const;
  writeFileSync(
    csv,
    [
      "sample number,machine,date,hours,>4 µm,>6 µm,>14 µm,Fe,Cu,water,kv40",
      ...Array.from({ length: ROWS }, (_, i) =>
        [
          `B-${i}`,
          circuits[i % circuits.length]!.tag,
          at(i),
          "",
          ...counts(i),
          i % 3 ? (i % 20) / 2 : "<1",
          (i % 11) / 2,
          60 + (i % 50),
          45 + (i % 10) / 10,
        ].join(","),
      ),
    ].join("\n"),
  );
  writeFileSync(
    copy,
    `${Array.from({ length: ROWS }, (_, i) => {
      const [over4, over6, over14] = counts(i);
      return [
        circuits[i % circuits.length]!.id,
        `B-${i}`,
        at(i),
        JSON.stringify({
          over4: { value: over4 },
          over6: { value: over6 },
          over14: { value: over14 },
          iron: { value: 1 },
          copper: { value: 1 },
          water: { value: 60 },
          kv40: { value: 45 },
        }),
      ].join("\t");
    }).join("\n")}\n`,
  );
  const remove = async () => {
    await client.query("delete from samples where number like 'B-%'");
    await client.query("vacuum samples");
  };
  const ratios: number[] = [];
  for (let run = 0; run < 3; run++) {
    await remove();
    const plain = await time(async () => {
      await client.query("begin");
      await pipeline(
        createReadStream(copy),
        client.query(copyFrom("copy samples (circuit_id, number, taken_at, results) from stdin")),
      );
      await client.query("commit");
    });
    await remove();
    const ours = await time(async () => {
      const id = await storeUpload("bench.csv", readFileSync(csv), "bench", "Bench laboratory");
      const columns = {
        number: 0,
        machine: 1,
        takenAt: 2,
        hours: 3,
        over4: 4,
        over6: 5,
        over14: 6,
        iron: 7,
        copper: 8,
        water: 9,
        kv40: 10,
      };
      const problems = await saveLabMapping(id, {
        delimiter: ",",
        decimalMark: ".",
        hasHeader: true,
        dateOrder: "ymd",
        countsPer: "/mL",
        water: "ppm",
        columns,
        skipBad: false,
      });
      if (problems) throw new Error(JSON.stringify(problems));
      const result = await runLabImport(await importRecord(id));
      if (!result.ok || result.added !== ROWS) throw new Error(JSON.stringify(result));
    });
    ratios.push(ours.ms / plain.ms);
    say(`    \\copy ${plain.ms.toFixed(0)} ms, import ${ours.ms.toFixed(0)} ms`);
  }
  say(`(e) import of 200 000 samples of 7 results over \\copy of the same rows: ${median(ratios).toFixed(2)}`);
  rmSync(csv);
  rmSync(copy);
}

async function circuitPage(): Promise<void> {
  await client.query("vacuum analyze samples");
  const judged = await time(assessStaleCircuits);
  const {
    rows: [one],
  } = await client.query<{ id: string; n: string }>(
    "select circuit_id as id, count(*) as n from samples group by 1 order by 2 desc limit 1",
  );
  const single = await time(() => assessCircuits([one!.id]));
  say(
    `    judging the oil of the whole harbour ${judged.ms.toFixed(0)} ms, of one circuit with ${one!.n} samples ${single.ms.toFixed(0)} ms`,
  );
  const cookie = await signedIn();
  const plain = await sqlTime(client, [
    ["select * from samples where circuit_id = $1 and withdrawn_at is null order by taken_at desc limit 80", [one!.id]],
    ["select * from oil_assessments where circuit_id = $1", [one!.id]],
    [
      "select k.id, m.name, m.tag, o.state, o.code, o.target from circuits k join machines m on m.id = " +
        "k.machine_id left join oil_assessments o on o.circuit_id = k.id order by o.urgency desc nulls last",
      [],
    ],
    ["select * from debris_events where circuit_id = $1 order by opened_at desc limit 6", [one!.id]],
  ]);
  const path = `/oil/${one!.id}`;
  const loaded = await page(`${path}.data`, cookie);
  const html = await page(path, cookie);
  say(
    `    circuit's oil: plain SQL ${plain.toFixed(1)} ms, data of the page ${loaded.toFixed(1)} ms, whole page ${html.toFixed(1)} ms`,
  );
  say(
    `(f) circuit's oil with ${one!.n} samples: data over plain SQL ${(loaded / plain).toFixed(2)}, page over plain SQL ${(html / plain).toFixed(2)}`,
  );
}

await client.connect();
await importing();
await circuitPage();
await client.end();
await closeConnections();
process.exit(0);
