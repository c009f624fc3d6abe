import { guard, idParam } from "~/platform/guard.server";
import { photoOf } from "./queries.server";

/** A photograph of a sample. It never changes, so a browser may keep it. */
export const loader = guard("viewer", async ({ params }) => {
  const { mediaType, content } = await photoOf(idParam(params));
  return new Response(new Uint8Array(content), { headers: { "Content-Type": mediaType, "Cache-Control": "private, max-age=86400, immutable", "X-Content-Type-Options": "nosniff" } });
});
