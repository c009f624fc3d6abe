import { guardAction, idParam } from "~/platform/guard.server";
import { jsonOf } from "~/platform/request.server";
import { receive } from "~/domain/rounds/index.server";

const MOST = 50;

/** A tablet sends what it kept: each entry has its own fate, and one sent twice is taken once. */
export const action = guardAction("technician", async ({ params, request, user }) => {
  const items = await jsonOf(request);
  if (!Array.isArray(items) || items.length > MOST)
    return Response.json({ fates: [], message: "This cannot be read." }, { status: 400 });
  return Response.json({ fates: await receive(idParam(params), items as unknown[], user) });
});
