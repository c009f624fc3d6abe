/** The application as two processes: pages, and jobs beside them; for the demo and the tests a simulated tester too. */
import { spawn, spawnSync } from "node:child_process";
import { join } from "node:path";
import { ADVICE, PORT_TAKEN } from "./exits.mjs";
import { freePort } from "./ports.mjs";
import { Instruction, projectDir, say } from "./process.mjs";

/** A page server that dies so often within so long is not started again: whoever watches over this command is told. */
const MOST_DEATHS = 5;
const DEATHS_WITHIN_MS = 60_000;

/** The built server, one function of it by its first argument. */
export const appScript = join(projectDir, "scripts/lib/app.mjs");

/** Run one function of the built server to its end. What the person has to do is a sentence, not a stack. */
export function appCommand(what, env) {
  const done = spawnSync(process.execPath, [appScript, what], {
    cwd: projectDir,
    encoding: "utf8",
    stdio: ["ignore", "pipe", "pipe"],
    maxBuffer: 64 * 1024 * 1024,
    env: { ...process.env, NODE_ENV: "production", ...env },
  });
  if (done.error) throw done.error;
  if (done.status === ADVICE) throw new Instruction(done.stderr.trim());
  if (done.status !== 0) throw new Error(`“${what}” ended with ${done.status}\n${done.stderr.trim()}`);
  return done.stdout;
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

/** A start waits as long as its process lives, up to this, and says so now and then: a machine that boots is slow. */
const LONGEST_START_MS = 15 * 60_000;
const SAY_EVERY_MS = 20_000;

/**
 * Start pages and worker; resolves once pages answer. Whichever dies is started again.
 * Returns { stop(), ended } where `ended` resolves with an exit code when the page server cannot be kept running.
 * `otherPort`: where its port is taken by then, the next free one is as good.
 */
export async function startApp(given, { worker: withWorker = true, testerPort, otherPort = false } = {}) {
  let env = given;
  let environment = environmentOf(env, testerPort);
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
      if (code === PORT_TAKEN && !answered && otherPort) return void takeNextPort();
      deaths.push(Date.now());
      const lately = deaths.filter((at) => Date.now() - at < DEATHS_WITHIN_MS).length;
      if (lately >= MOST_DEATHS || (!answered && code !== null)) return giveUp(code || 1);
      say("The page server ended; starting it again.");
      setTimeout(open, 500);
    });
  };
  let answered = false;
  let failed;
  async function takeNextPort() {
    const port = await freePort(Number(env.PORT) + 1);
    say(`Port ${env.PORT} was taken meanwhile; using ${port}.`);
    env = { ...env, PORT: String(port) };
    environment = environmentOf(env, testerPort);
    open();
  }
  void ended.then((code) => (failed = code));
  open();
  const helpers = startHelpers(env, { worker: withWorker, testerPort });
  const addressNow = () => `http://${env.HOST ?? "127.0.0.1"}:${env.PORT}`;
  const begun = Date.now();
  let said = begun;
  while (!(await answers(addressNow()))) {
    if (failed !== undefined || Date.now() - begun > LONGEST_START_MS) {
      await stop();
      throw new Instruction(
        failed === PORT_TAKEN
          ? `Port ${env.PORT} is taken by another program. Set PORT to a free one, for example PORT=${Number(env.PORT) + 1} npm start.`
          : failed === ADVICE
            ? "The application did not start: the reason stands above."
            : failed !== undefined
              ? `The page server ended with ${failed} before it answered. JUNCTERAL_LOG=debug shows more.`
              : "The page server runs and has not answered for a quarter of an hour. Look at what else this machine does.",
      );
    }
    if (Date.now() - said > SAY_EVERY_MS) {
      said = Date.now();
      say(`Waiting for the page server to answer (${Math.round((said - begun) / 1000)} s) …`);
    }
    await new Promise((next) => setTimeout(next, 100));
  }
  answered = true;
  const address = addressNow();
  async function stop() {
    stopping = true;
    await Promise.all([endAll([web]), helpers.stop()]);
  }
  return { stop, ended, address };
}

/** Does it serve, whether or not its database does? */
const answers = (address) =>
  fetch(`${address}/readyz`).then(
    () => true,
    () => false,
  );

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
