/** Loaded into the page server by the bench: how late its event loop runs, written twice a second to the file that BENCH_LOOP names. */
import { writeFileSync } from "node:fs";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { isMainThread } from "node:worker_threads";

const file = process.env.BENCH_LOOP;

if (file && isMainThread && process.argv.includes("serve")) {
  const delay = monitorEventLoopDelay({ resolution: 2 });
  delay.enable();
  process.on("SIGUSR2", () => delay.reset());
  setInterval(
    () =>
      writeFileSync(
        file,
        JSON.stringify({
          pid: process.pid,
          p50: delay.percentile(50) / 1e6,
          p99: delay.percentile(99) / 1e6,
          max: delay.max / 1e6,
        }),
      ),
    500,
  ).unref();
}
