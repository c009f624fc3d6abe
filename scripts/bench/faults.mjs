/** (i) the database is restarted five times and the page server killed once while twelve people save readings: none is lost, none doubled. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { interruptCluster } from "../lib/cluster.mjs";
import { projectDir, say } from "../lib/process.mjs";

const sleep = (ms) => new Promise((done) => setTimeout(done, ms));
const form = (fields) => ({ method: "POST", redirect: "manual", body: new URLSearchParams(fields) });

export async function measureFaults({ address, ask, name }) {
  const headers = { Origin: address, "Content-Type": "application/x-www-form-urlencoded" };
  const signedIn = await fetch(`${address}/sign-in`, {
    ...form({ name: "technician", password: "bench-technician" }),
    headers,
  });
  const cookie = signedIn.headers.get("set-cookie").split(";")[0];
  const points = ask("select id || ' ' || state from points where quantity = 'caseDrainFlow' limit 12")
    .trim()
    .split("\n")
    .map((line) => line.split(" "));
  const acknowledged = [];
  let refused = 0;
  let broken = 0;
  let over = false;
  const people = points.map(async ([id, state]) => {
    for (let i = 0; !over; i++) {
      const submission = crypto.randomUUID();
      const takenAt = new Date(Date.now() - 20 * 86_400_000 + i * 60_000).toISOString().slice(0, 16);
      try {
        const answer = await fetch(`${address}/points/${id}`, {
          ...form({
            value: "2",
            temperature: "50",
            pressure: "200",
            hours: "",
            takenAt,
            state,
            keptBecause: "bench",
            submission,
          }),
          headers: { ...headers, Cookie: cookie },
        });
        if (answer.status === 302) acknowledged.push(submission);
        else refused++;
      } catch {
        broken++;
        await sleep(100);
      }
    }
  });
  for (let restart = 0; restart < 5; restart++) {
    await sleep(2500);
    interruptCluster(name, "stop");
    await sleep(600);
    interruptCluster(name, "start");
  }
  await sleep(3000);
  const alive = await fetch(`${address}/healthz`).then(
    (a) => a.status,
    () => "no answer",
  );
  execFileSync("pkill", ["-9", "-f", join(projectDir, "scripts/lib/app.mjs") + " serve"]);
  await sleep(4000);
  const again = await fetch(`${address}/healthz`).then(
    (a) => a.status,
    () => "no answer",
  );
  over = true;
  await Promise.all(people);
  const stored = new Set(ask("select submission from readings where submission is not null").trim().split("\n"));
  const doubled = Number(
    ask(
      "select count(*) from (select submission from readings where submission is not null group by 1 having count(*) > 1) twice",
    ).trim(),
  );
  say(
    `(i) five restarts of the database (pages answer ${alive} after them) and the page server killed ` +
      `(${again} after 4 s): ${acknowledged.length} readings acknowledged, ` +
      `${acknowledged.filter((s) => !stored.has(s)).length} missing, ${doubled} doubled, ${refused} ` +
      `refused, ${broken} broken off`,
  );
}
