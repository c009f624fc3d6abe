/** On the Node that runs this: the build, the tests of the core, and the application served from an empty database. */
import { rmSync } from "node:fs";
import { join } from "node:path";
import { ensureBuild } from "./build.mjs";
import { freePort } from "./ports.mjs";
import { bin, command, follow, projectDir, say } from "./process.mjs";
import { appCommand, startApp } from "./serve.mjs";
import { NOW, withDatabase } from "./testing.mjs";

/** Addresses that answer before anybody has signed in. */
const OPEN = ["/healthz", "/sign-in"];

async function step(name, work) {
  const begun = Date.now();
  await work();
  say(`✓ ${name}, ${Math.round((Date.now() - begun) / 1000)} s`);
}

await command(async () => {
  say(`Node ${process.version}`);
  await step("it builds", () => {
    rmSync(join(projectDir, "build/.built-from"), { force: true });
    return ensureBuild();
  });
  await step("the tests of the core pass", async () => {
    const { code, output } = await follow(bin("jest"), ["--silent", "core"], { show: false });
    if (code !== 0) throw new Error(output.split("\n").slice(-60).join("\n"));
  });
  await step("it migrates an empty database and is served", () =>
    withDatabase("test", "quick", async (url) => {
      const env = { DATABASE_URL: url, JUNCTERAL_NOW: NOW, JUNCTERAL_LOG: "fatal" };
      appCommand("migrate", env);
      const app = await startApp({ ...env, PORT: String(await freePort(5200)) });
      try {
        for (const path of OPEN) {
          const { status } = await fetch(app.address + path);
          if (status !== 200) throw new Error(`${path} answered ${status}`);
        }
      } finally {
        await app.stop();
      }
    }),
  );
});
process.exit();
