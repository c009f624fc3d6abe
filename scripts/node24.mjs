/**
 * npm run node24: a quick check that what runs on Node 20, the floor, runs on Node 24 too. Its binary comes as a registry package and
 * is kept in .data/node24; build, tests of the core and the served application then run on it.
 */
import { existsSync } from "node:fs";
import { join } from "node:path";
import { ensurePackages } from "./lib/install.mjs";
import { command, follow, Instruction, projectDir, run, say } from "./lib/process.mjs";

const MAJOR = 24;

await command(async () => {
  ensurePackages();
  const name = `node-${process.platform}-${process.arch}`;
  const home = join(projectDir, ".data/node24");
  const bin = join(home, "node_modules", name, "bin");
  if (!existsSync(join(bin, "node"))) {
    say(`Installing Node ${MAJOR} (once) …`);
    run("npm", ["install", "--prefix", home, "--no-save", "--no-audit", "--no-fund", `${name}@${MAJOR}`]);
  }
  // programs of the packages find the first node of the path
  const env = { ...process.env, PATH: `${bin}:${process.env.PATH}` };
  const { code } = await follow(join(bin, "node"), ["scripts/lib/quickCheck.mjs"], { env });
  if (code !== 0) throw new Instruction(`It does not run on Node ${MAJOR}: what failed stands above.`);
});
