/** Runs one function of the built server in a process of its own: node scripts/lib/app.mjs serve */
import { constants, setPriority } from "node:os";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { projectDir } from "./process.mjs";
import { ADVICE, PORT_TAKEN } from "./exits.mjs";

process.chdir(projectDir);
const [what = ""] = process.argv.slice(2);

/** End with a sentence for the person who started it; anything else is a fault of ours and shows its stack. */
function end(error) {
  if (error.code === "EADDRINUSE") process.exit(PORT_TAKEN);
  const sentence = server ? server.startProblem(error) : error.message;
  process.stderr.write(`${sentence ?? error.stack}\n`);
  process.exit(sentence ? ADVICE : 1);
}

let server;
try {
  // settings are checked as it loads
  server = await import(pathToFileURL(resolve(projectDir, "build/server/index.js")).href);
  await run();
} catch (error) {
  end(error);
}
process.exit(0);

async function run() {
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
    case "first-address":
      process.stdout.write((await server.firstAddress()) ?? "");
      await server.close();
      break;
    case "demo": {
      const loaded = await server.loadDemo(JSON.parse(process.env.JUNCTERAL_SIGN_INS ?? "{}"));
      await server.close();
      process.stdout.write(loaded ? "loaded" : "there");
      break;
    }
    default:
      throw new Error(`There is no ${what}.`);
  }
}
