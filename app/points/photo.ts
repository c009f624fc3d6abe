import { guard, idParam } from "~/platform/guard.server";
import { photoResponse } from "~/platform/photo.server";
import { photoOf } from "~/domain/readings/index.server";

/** A photograph that was taken at a point. */
export const loader = guard("viewer", async ({ params }) => photoResponse(await photoOf(idParam(params))));
