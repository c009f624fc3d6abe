/** Runs one function of the built server in a process of its own: node scripts/lib/app.mjs serve */
import { constants, setPriority } from "node:os";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { projectDir } from "./process.mjs";

process.chdir(projectDir);
const [what = "", argument] = process.argv.slice(2);
const server = await import(pathToFileURL(resolve(projectDir, "build/server/index.js")).href);

switch (what) {
  case "serve":
    await server.serve();
    break;
  case "work":
    // pages come first where both want the processor
    setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
    await server.work();
    break;
  case "tester":
    await server.tester();
    break;
  case "migrate":
    await server.migrate();
    if (await server.firstEngineer()) process.stdout.write("first engineer added");
    await server.close();
    break;
  case "demo": {
    const loaded = await server.loadDemo(JSON.parse(argument ?? "{}"));
    await server.close();
    process.stdout.write(loaded ? "loaded" : "there");
    break;
  }
  default:
    throw new Error(`There is no ${what}.`);
}
process.exit(0);
