import { guardAction, idParam } from "~/platform/guard.server";
import { receive } from "./commands.server";
import type { Outgoing } from "./outgoing";
import { roundRow } from "./queries.server";

const MOST = 50;

/** A tablet sends what it kept: each entry has its own fate, and one sent twice is taken once. */
export const action = guardAction("technician", async ({ params, request, user }) => {
  const round = await roundRow(idParam(params));
  const items: unknown = await request.json().catch(() => null);
  if (!Array.isArray(items) || items.length > MOST || !items.every(isOutgoing)) return Response.json({ fates: [], message: "This cannot be read." }, { status: 400 });
  return Response.json({ fates: await receive(round.id, items, user) });
});

function isOutgoing(item: unknown): item is Outgoing {
  if (typeof item !== "object" || item === null) return false;
  const { kind, submission, pointId, at, fields, reason, base64, mediaType } = item as Record<string, unknown>;
  if (typeof submission !== "string" || typeof pointId !== "string" || typeof at !== "number" || !Number.isFinite(at)) return false;
  if (kind === "reading") return typeof fields === "object" && fields !== null && Object.values(fields).every((v) => typeof v === "string");
  if (kind === "skip") return typeof reason === "string";
  return kind === "photo" && typeof base64 === "string" && typeof mediaType === "string";
}
