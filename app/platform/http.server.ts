/** The HTTP face: headers, origin check, upload limit, static files, then the application. */
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import staticGzip from "express-static-gzip";
import express, { type NextFunction, type Request, type RequestHandler, type Response } from "express";
import helmet from "helmet";
import { randomBytes } from "node:crypto";
import { resolve } from "node:path";
import { pinoHttp } from "pino-http";
import type { AppLoadContext } from "react-router";
import { sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { config } from "~/runtime/config.server";
import { workerHealth } from "./heartbeat.server";
import { log } from "~/runtime/log.server";
import { isSignedIn, type SignedInUser } from "./session.server";

declare module "react-router" {
  interface AppLoadContext {
    nonce: string;
    address: string;
    secure: boolean;
    /** Who asks, once the first loader has looked it up. */
    user?: Promise<SignedInUser | undefined>;
  }
}

/**
 * The whole server in front of the pages.
 * @param build the built pages
 * @param files while developing, what serves files in place of the built ones; it writes its own scripts into pages,
 *   which the content security policy would not let in, so there is none then
 */
export function makeApp(build: () => Promise<unknown>, { files }: { files?: RequestHandler } = {}): express.Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("trust proxy", config.trustedProxies);
  // room for a whole page, so that rendering does not wait on the compressor at every chunk
  app.use(compression({ level: 4, chunkSize: 1 << 20, ...{ highWaterMark: 1 << 22 } }));
  app.use((_request, response, next) => {
    response.locals.nonce = files ? "" : randomBytes(16).toString("base64");
    next();
  });
  const nonce = (_request: unknown, response: unknown) => `'nonce-${(response as Response).locals.nonce}'`;
  /** The plan's solver is WebAssembly: its thread alone may compile it, no page. */
  const compiles = (request: unknown) =>
    (request as express.Request).path.startsWith("/assets/planner.worker") ? "'wasm-unsafe-eval'" : "'self'";
  const policy = {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", nonce, compiles],
      // style attributes set by components (places on a ruler); no style comes from user text
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", "data:", "blob:"],
      connectSrc: ["'self'"],
      fontSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  };
  app.use(
    helmet({
      contentSecurityPolicy: files ? false : policy,
      strictTransportSecurity: false,
      crossOriginOpenerPolicy: false,
      referrerPolicy: { policy: "same-origin" },
    }),
  );
  app.use((_request, response, next) => {
    response.setHeader("Permissions-Policy", "geolocation=(), microphone=(), payment=(), usb=()");
    next();
  });
  if (files) app.use(files);
  else serveBuilt(app);
  // pages can be served: for whoever sends requests here or elsewhere
  app.get("/readyz", async (_request, response) => {
    const database = await db()
      .execute(sql`select 1`)
      .then(
        () => true,
        () => false,
      );
    response.status(database ? 200 : 503).json({ database });
  });
  // all is well, the worker too: for whoever is woken when it is not
  app.get("/healthz", async (_request, response) => {
    const worker = await workerHealth().catch(() => null);
    response.status(worker?.runs ? 200 : 503).json({
      database: worker !== null,
      ...(worker && {
        worker: worker.runs ? "runs" : "stopped",
        lastSeen: worker.lastSeen && new Date(worker.lastSeen).toISOString(),
        waiting: worker.waiting,
        failed: worker.failed,
      }),
    });
  });
  app.use(readable);
  app.use(pinoHttp({ logger: log, autoLogging: false }));
  app.use(sameOrigin);
  app.use(withinUploadLimit);
  app.all(
    "/{*splat}",
    createRequestHandler({
      build: build as Parameters<typeof createRequestHandler>[0]["build"],
      getLoadContext: (request, response): AppLoadContext => ({
        nonce: String(response.locals.nonce),
        address: request.ip ?? "",
        secure: request.secure,
      }),
    }),
  );
  app.use(unreadable);
  return app;
}

/** An address that the router cannot take apart is answered as one that cannot be read, and no stack reaches the log. */
function unreadable(error: { status?: unknown }, _request: Request, response: Response, next: NextFunction) {
  if (response.headersSent || error.status !== 400) return next(error);
  response.status(400).type("text").send("This request cannot be read.");
}

/** What was built for the browser. */
function serveBuilt(app: express.Express) {
  app.use(
    "/assets",
    staticGzip(resolve("build/client/assets"), {
      enableBrotli: true,
      orderPreference: ["br"],
      serveStatic: { immutable: true, maxAge: "1y", fallthrough: false },
    }),
  );
  // asked for at every visit: a new one must not wait an hour
  app.get("/sw.js", (_request, response) =>
    response.sendFile(resolve("build/client/sw.js"), { cacheControl: false, headers: { "Cache-Control": "no-cache" } }),
  );
  app.use(express.static(resolve("build/client"), { maxAge: "1h", index: false }));
}

/** A write must come from one of our own pages. */
function sameOrigin(request: Request, response: Response, next: NextFunction) {
  if (request.method === "GET" || request.method === "HEAD") return next();
  const origin = request.get("Origin");
  const site = request.get("Sec-Fetch-Site");
  const host = origin && URL.canParse(origin) ? new URL(origin).host : undefined;
  if (host === request.get("Host") && (!site || site === "same-origin")) return next();
  response.status(403).type("text").send("This request did not come from a page of this application.");
}

function canBeDecoded(text: string): boolean {
  try {
    // the result is used: a bundler drops a call whose result nobody looks at
    return decodeURIComponent(text) !== null;
  } catch {
    return false;
  }
}

/** An address and a host that our own pages can have; anything else is no request of a browser. */
function readable(request: Request, response: Response, next: NextFunction) {
  const host = request.get("Host") ?? "";
  const good =
    request.url.startsWith("/") &&
    !/%00/i.test(request.url) &&
    canBeDecoded(request.path) &&
    /^[A-Za-z0-9._:[\]-]{1,255}$/.test(host) &&
    URL.canParse(`http://${host}/`);
  if (!good) {
    response.status(400).type("text").send("This request cannot be read.");
    return;
  }
  // pages carry what a person may see: nobody between keeps them
  response.setHeader("Cache-Control", "private, no-store");
  next();
}

/** Bodies of people who are not signed in, and forms without a file: nothing of ours is larger. */
const SMALL_BODY = 16 * 1024;
const FORM_BODY = 512 * 1024;
/** What tablets send at once, photographs among it. */
const SYNC_BODY = 32 * 1024 * 1024;

function limitFor(request: Request): number {
  const type = request.get("Content-Type") ?? "";
  if (/^multipart\/form-data/i.test(type)) return config.uploadLimit;
  return /^application\/json/i.test(type) ? SYNC_BODY : FORM_BODY;
}

/** Of a body that is refused, so much is still let in and thrown away: a browser shows the answer only when it could send. */
const THROWN_AWAY = 128 * 1024 * 1024;
const THROWN_AWAY_MS = 30_000;

function letItEnd(request: Request) {
  let bytes = 0;
  const end = setTimeout(() => request.destroy(), THROWN_AWAY_MS).unref();
  request.on("close", () => clearTimeout(end));
  request.on("data", (part: Buffer) => {
    bytes += part.length;
    if (bytes > THROWN_AWAY) request.destroy();
  });
}

function withinUploadLimit(request: Request, response: Response, next: NextFunction) {
  if (request.method === "GET" || request.method === "HEAD") return next();
  const refuse = (status: number, message: string) => {
    letItEnd(request);
    response.status(status).type("text").send(message);
  };
  if (!request.get("Content-Length") && request.get("Transfer-Encoding"))
    return refuse(411, "State the length of what you send.");
  const length = Number(request.get("Content-Length") ?? 0);
  const limit = limitFor(request);
  if (length > limit)
    return refuse(
      413,
      limit >= 1_048_576
        ? `Too large: at most ${Math.floor(limit / 1_048_576)} MB.`
        : `Too large: at most ${Math.floor(limit / 1024)} kB.`,
    );
  if (length <= SMALL_BODY) return next();
  isSignedIn(request.get("Cookie")).then(
    (known) => (known ? next() : refuse(413, "Sign in first.")),
    () => refuse(503, "The database does not answer. Try again in a moment."),
  );
}
