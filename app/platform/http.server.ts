/** The HTTP face: headers, origin check, upload limit, static files, then the application. */
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type NextFunction, type Request, type Response } from "express";
import helmet from "helmet";
import { randomBytes } from "node:crypto";
import { resolve } from "node:path";
import { pinoHttp } from "pino-http";
import type { AppLoadContext } from "react-router";
import { config } from "./config.server";
import { workerHealth } from "./heartbeat.server";
import { log } from "./log.server";
import type { SignedInUser } from "./session.server";

declare module "react-router" {
  interface AppLoadContext {
    nonce: string;
    address: string;
    secure: boolean;
    /** Who asks, once the first loader has looked it up. */
    user?: Promise<SignedInUser | undefined>;
  }
}

export function makeApp(build: () => Promise<unknown>): express.Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("trust proxy", config.trustedProxies);
  // room for a whole page, so that rendering does not wait on the compressor at every chunk
  app.use(compression({ level: 4, chunkSize: 1 << 20, ...{ highWaterMark: 1 << 22 } }));
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    next();
  });
  const nonce = (_request: unknown, response: unknown) => `'nonce-${(response as Response).locals.nonce}'`;
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", nonce],
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
      },
      strictTransportSecurity: false,
      crossOriginOpenerPolicy: false,
      referrerPolicy: { policy: "same-origin" },
    }),
  );
  app.use("/assets", express.static(resolve("build/client/assets"), { immutable: true, maxAge: "1y", fallthrough: false }));
  // asked for at every visit: a new one must not wait an hour
  app.get("/sw.js", (_request, response) => response.sendFile(resolve("build/client/sw.js"), { cacheControl: false, headers: { "Cache-Control": "no-cache" } }));
  app.use(express.static(resolve("build/client"), { maxAge: "1h", index: false }));
  app.get("/healthz", async (_request, response) => {
    const worker = await workerHealth().catch(() => null);
    response.status(worker ? 200 : 503).json({ database: worker !== null, ...(worker && { worker: worker.runs ? "runs" : "stands still", lastSeen: worker.lastSeen && new Date(worker.lastSeen).toISOString(), waiting: worker.waiting, failed: worker.failed }) });
  });
  app.use(pinoHttp({ logger: log, autoLogging: false }));
  app.use(sameOrigin);
  app.use(withinUploadLimit);
  app.all(
    "/{*splat}",
    createRequestHandler({
      build: build as Parameters<typeof createRequestHandler>[0]["build"],
      getLoadContext: (request, response): AppLoadContext => ({ nonce: String(response.locals.nonce), address: request.ip ?? "", secure: request.secure }),
    }),
  );
  return app;
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

function withinUploadLimit(request: Request, response: Response, next: NextFunction) {
  const length = Number(request.get("Content-Length") ?? 0);
  if (request.method !== "GET" && request.method !== "HEAD" && !request.get("Content-Length") && request.get("Transfer-Encoding")) {
    response.status(411).type("text").send("State the length of what you send.");
    return;
  }
  if (length <= config.uploadLimit) return next();
  response.status(413).type("text").send(`Too large: at most ${Math.floor(config.uploadLimit / 1_048_576)} MB.`);
}
