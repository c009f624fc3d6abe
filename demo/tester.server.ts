/**
 * The stand-in for a portable tester: a process of its own that speaks the line protocol of docs/formats.md
 * on loopback. GET /stream: a JSON line every 100 ms. POST /knobs: changes knobs. GET /: what it is.
 */
import { createServer, type Server } from "node:http";
import { random, restingKnobs, simulateTester, type TesterKnobs } from "@core";

const EVERY_MS = 100;
const LARGEST_BODY = 2000;

/** The hidden pump: worn, and a little short at its inlet. */
const hidden = {
  displacement: 45,
  speed: 1450,
  noLoadShare: 0.97,
  conductance: 0.9,
  fluid: { kv40: 46, kv100: 6.8, density15: 875 },
};

const limits: Record<Exclude<keyof TesterKnobs, "stuck" | "oil">, [number, number]> = {
  relief: [0, 350],
  speed: [0, 3000],
  noise: [0, 0.2],
  dropout: [0, 1],
  nonsense: [0, 1],
};

function changed(knobs: TesterKnobs, wanted: unknown): TesterKnobs | null {
  if (typeof wanted !== "object" || wanted === null) return null;
  const next: TesterKnobs = { ...knobs };
  for (const [name, value] of Object.entries(wanted)) {
    if (name === "stuck" && typeof value === "boolean") next.stuck = value;
    else if (name === "oil" && (value === null || (typeof value === "number" && value >= 0 && value <= 100)))
      next.oil = value;
    else if (name in limits && typeof value === "number" && Number.isFinite(value)) {
      const [low, high] = limits[name as keyof typeof limits];
      next[name as keyof typeof limits] = Math.min(high, Math.max(low, value));
    } else return null;
  }
  return next;
}

function parsed(knobs: TesterKnobs, body: string): TesterKnobs | null {
  try {
    return changed(knobs, JSON.parse(body));
  } catch {
    return null;
  }
}

/** Serve the tester. Knobs are shared by all who watch, as on the real thing. */
export function serveTester(port: number, host = "127.0.0.1"): Promise<Server> {
  let knobs: TesterKnobs = { ...restingKnobs };
  const step = simulateTester(hidden, random(Date.now() % 100_000));
  const watchers = new Set<(line: string) => void>();
  setInterval(() => {
    const line = step(EVERY_MS / 1000, knobs);
    if (line !== null) for (const watch of watchers) watch(`${JSON.stringify(line)}\n`);
  }, EVERY_MS).unref();
  const server = createServer((request, response) => {
    if (request.method === "GET" && request.url === "/stream") {
      response.writeHead(200, { "Content-Type": "application/x-ndjson", "Cache-Control": "no-store, no-transform" });
      const watch = (line: string) => void response.write(line);
      watchers.add(watch);
      request.on("close", () => watchers.delete(watch));
    } else if (request.method === "POST" && request.url === "/knobs") {
      let body = "";
      request.on("data", (chunk: Buffer) => {
        body += chunk.toString("utf8");
        if (body.length > LARGEST_BODY) request.destroy();
      });
      request.on("end", () => {
        const next = parsed(knobs, body);
        if (next) knobs = next;
        response
          .writeHead(next ? 200 : 400, { "Content-Type": "application/json" })
          .end(JSON.stringify(next ?? { error: "knobs are numbers within their limits, and stuck true or false" }));
      });
    } else if (request.method === "GET" && request.url === "/") {
      response
        .writeHead(200, { "Content-Type": "application/json" })
        .end(JSON.stringify({ protocol: "hydraulic-tester-lines", version: 1, name: "Simulated tester", knobs }));
    } else response.writeHead(404).end();
  });
  return new Promise((done, fail) => server.once("error", fail).listen(port, host, () => done(server)));
}
