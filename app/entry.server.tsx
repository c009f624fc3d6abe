import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { PassThrough } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type AppLoadContext, type EntryContext } from "react-router";
import { log } from "./runtime/log.server";
import { NonceProvider } from "./ui/nonce";

const ABORT_MS = 10_000;

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  { nonce }: AppLoadContext,
) {
  const ready = isbot(request.headers.get("user-agent")) ? "onAllReady" : "onShellReady";
  return new Promise<Response>((done, fail) => {
    let shellSent = false;
    const { pipe, abort } = renderToPipeableStream(
      <NonceProvider value={nonce}>
        <ServerRouter context={context} url={request.url} nonce={nonce} />
      </NonceProvider>,
      {
        nonce,
        [ready]() {
          shellSent = true;
          const body = new PassThrough();
          headers.set("Content-Type", "text/html");
          done(new Response(createReadableStreamFromReadable(body), { headers, status }));
          pipe(body);
        },
        onShellError: fail,
        onError(error: unknown) {
          if (shellSent) log.error({ err: error }, "render");
        },
      },
    );
    setTimeout(abort, ABORT_MS);
  });
}

export function handleError(error: unknown, { request }: { request: Request }) {
  if (!request.signal.aborted) log.error({ err: error, url: request.url }, "request failed");
}
