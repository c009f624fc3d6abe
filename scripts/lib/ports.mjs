/** Free loopback ports. Node alone. */
import { createServer } from "node:net";

function isFree(port) {
  return new Promise((done) => {
    const probe = createServer();
    probe.once("error", () => done(false));
    probe.listen({ port, host: "127.0.0.1", exclusive: true }, () => probe.close(() => done(true)));
  });
}

/** The first free port from `first` on; throws after 200 taken ones. */
export async function freePort(first) {
  for (let port = first; port < first + 200; port++) if (await isFree(port)) return port;
  throw new Error(`No free port between ${first} and ${first + 199}.`);
}
