/** Child processes for the set-up scripts. Node alone: these files run before npm install. */
import { spawn, spawnSync } from "node:child_process";
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const projectDir = resolve(dirname(fileURLToPath(import.meta.url)), "../..");
export const isRoot = process.getuid?.() === 0;

/** One line to the person who started the command. */
export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** Stop with a plain sentence and no stack: the reader has to act, not debug. */
export class Instruction extends Error {}

/** Run to the end; throw with the tail of the output when it fails. */
export function run(command, args, { quiet = true, ...options } = {}) {
  const result = spawnSync(command, args, {
    cwd: projectDir,
    encoding: "utf8",
    stdio: quiet ? ["ignore", "pipe", "pipe"] : ["ignore", "inherit", "inherit"],
    maxBuffer: 64 * 1024 * 1024,
    ...options,
  });
  if (result.error) throw result.error;
  if (result.status !== 0) {
    const tail = `${result.stdout ?? ""}${result.stderr ?? ""}`.trim().split("\n").slice(-15).join("\n");
    throw new Error(`${command} ${args.join(" ")} ended with ${result.status}\n${tail}`);
  }
  return result.stdout ?? "";
}

/** Does the command end with 0? */
export function succeeds(command, args, options = {}) {
  return spawnSync(command, args, { stdio: "ignore", cwd: projectDir, ...options }).status === 0;
}

/** Run with the output shown as it comes; resolves with the exit code and what was printed. */
export function follow(command, args, { env = process.env, show = true } = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: projectDir, env, stdio: ["ignore", "pipe", "pipe"] });
    let output = "";
    for (const [stream, out] of [
      [child.stdout, process.stdout],
      [child.stderr, process.stderr],
    ]) {
      stream.setEncoding("utf8");
      stream.on("data", (text) => {
        output += text;
        if (show) out.write(text);
      });
    }
    child.on("error", fail);
    child.on("close", (code) => done({ code: code ?? 1, output }));
  });
}

/** A program of the project's own packages, without going through npx. */
export function bin(name) {
  return resolve(projectDir, "node_modules/.bin", name);
}

/** Run `main`, turning an Instruction into one clear line and any other error into its message. */
export async function command(main) {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`\n${error instanceof Instruction ? error.message : (error.stack ?? error)}\n`);
    process.exitCode = 1;
  }
}
