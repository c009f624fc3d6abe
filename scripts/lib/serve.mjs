/** The application as two processes: pages, and jobs beside them; for the demo and the tests a simulated tester too. */
import { spawn } from "node:child_process";
import { join } from "node:path";
import { projectDir, run, say } from "./process.mjs";

/** A page server that dies so often within so long is not started again: whoever watches over this command is told. */
const MOST_DEATHS = 5;
const DEATHS_WITHIN_MS = 60_000;

/** The built server, one function of it by its first argument. */
export const appScript = join(projectDir, "scripts/lib/app.mjs");

/** Run one function of the built server to its end. */
export function appCommand(what, env, argument) {
  return run(process.execPath, [appScript, what, ...(argument ? [argument] : [])], {
    env: { ...process.env, NODE_ENV: "production", ...env },
  });
}

function environmentOf(env, testerPort) {
  return {
    ...process.env,
    NODE_ENV: "production",
    ...env,
    ...(testerPort && { TESTER_PORT: String(testerPort), JUNCTERAL_TESTER: `http://127.0.0.1:${testerPort}` }),
  };
}

const startProcess = (what, environment) =>
  spawn(process.execPath, [appScript, what], {
    cwd: projectDir,
    env: environment,
    stdio: ["ignore", "inherit", "inherit", "ipc"],
  });

/** Ask processes to end, and end those that do not. */
async function endAll(children) {
  const gone = (child) =>
    child.exitCode !== null || child.signalCode !== null
      ? Promise.resolve()
      : new Promise((done) => child.once("exit", done));
  for (const child of children) child.kill("SIGTERM");
  const late = setTimeout(() => {
    for (const child of children) child.kill("SIGKILL");
  }, 6000);
  await Promise.all(children.map(gone));
  clearTimeout(late);
}

/** What runs beside pages: the worker, started again when it dies, and the simulated tester where it has a port. */
export function startHelpers(env, { worker: withWorker = true, testerPort } = {}) {
  const environment = environmentOf(env, testerPort);
  let stopping = false;
  let worker;
  const hire = () => {
    if (stopping) return;
    worker = startProcess("work", environment);
    worker.on("exit", () => setTimeout(hire, 2000));
  };
  const tester = testerPort ? startProcess("tester", environment) : undefined;
  if (withWorker) hire();
  return {
    stop() {
      stopping = true;
      return endAll([worker, tester].filter(Boolean));
    },
  };
}

/**
 * Start pages and worker; resolves once pages answer. Whichever dies is started again.
 * Returns { stop(), ended } where `ended` resolves with an exit code when the page server cannot be kept running.
 */
export async function startApp(env, { worker: withWorker = true, testerPort } = {}) {
  const environment = environmentOf(env, testerPort);
  let stopping = false;
  let web;
  let giveUp;
  const ended = new Promise((done) => (giveUp = done));
  const deaths = [];
  const open = () => {
    if (stopping) return;
    web = startProcess("serve", environment);
    web.on("exit", (code) => {
      if (stopping) return;
      deaths.push(Date.now());
      const lately = deaths.filter((at) => Date.now() - at < DEATHS_WITHIN_MS).length;
      if (lately >= MOST_DEATHS || (!answered && code !== null)) return giveUp(code || 1);
      say("The page server ended; starting it again.");
      setTimeout(open, 500);
    });
  };
  let answered = false;
  open();
  const helpers = startHelpers(env, { worker: withWorker, testerPort });
  const address = `http://${env.HOST ?? "127.0.0.1"}:${env.PORT}`;
  for (let tries = 0; ; tries++) {
    const answers = await fetch(`${address}/healthz`).then(
      () => true,
      () => false,
    );
    if (answers) break;
    if (tries > 200 || (web.exitCode !== null && web.exitCode !== undefined)) {
      await stop();
      throw new Error("The application did not start; its log stands above.");
    }
    await new Promise((next) => setTimeout(next, 100));
  }
  answered = true;
  async function stop() {
    stopping = true;
    await Promise.all([endAll([web]), helpers.stop()]);
  }
  return { stop, ended, address };
}

/**
 * Wait for Ctrl-C or a polite kill, then stop everything in order. A second Ctrl-C does not interrupt the stopping.
 * Returns the exit code: 0 when it was asked to stop, else that of the page server that could not be kept running.
 */
export async function untilInterrupted(app, cleanUp) {
  const code = await Promise.race([
    app.ended,
    new Promise((done) => {
      for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => done(0));
    }),
  ]);
  say(code === 0 ? "\nStopping …" : "\nThe page server could not be kept running; its log stands above. Stopping …");
  await app.stop();
  cleanUp();
  return code;
}
