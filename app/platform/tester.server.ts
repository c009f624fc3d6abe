/** A live tester on the plant's network, reached through the server: the browser talks to nobody else. */
import { config } from "~/runtime/config.server";

export const testerKnown = () => config.tester !== null;

/** The tester's stream as it comes. Ends when the reader goes away. */
export async function testerStream(signal: AbortSignal): Promise<Response> {
  if (!config.tester) return new Response("No tester is set.", { status: 404 });
  try {
    const answer = await fetch(`${config.tester}/stream`, { signal });
    if (!answer.ok || !answer.body) return new Response("The tester does not answer.", { status: 502 });
    return new Response(answer.body, {
      headers: { "Content-Type": "application/x-ndjson", "Cache-Control": "no-transform" },
    });
  } catch {
    return new Response("The tester does not answer.", { status: 502 });
  }
}

export async function turnKnobs(knobs: unknown): Promise<Response> {
  if (!config.tester) return Response.json({ error: "No tester is set." }, { status: 404 });
  try {
    const answer = await fetch(`${config.tester}/knobs`, {
      method: "POST",
      body: JSON.stringify(knobs).slice(0, 2000),
      signal: AbortSignal.timeout(3000),
    });
    return Response.json(await answer.json(), { status: answer.status });
  } catch {
    return Response.json({ error: "The tester does not answer." }, { status: 502 });
  }
}
