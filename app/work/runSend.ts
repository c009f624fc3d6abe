import { receiveWork } from "~/domain/runs/index.server";
import { guardAction, idParam } from "~/platform/guard.server";
import { jsonOf } from "~/platform/request.server";

const MOST = 50;

/** A tablet sends what it kept of a procedure: each entry has its own fate, and one sent twice is taken once. */
export const action = guardAction("technician", async ({ params, request, user }) => {
  const items = await jsonOf(request);
  if (!Array.isArray(items) || items.length > MOST)
    return Response.json({ fates: [], message: "This cannot be read." }, { status: 400 });
  return Response.json({ fates: await receiveWork(idParam(params), items as unknown[], user) });
});
