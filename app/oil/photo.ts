import { guard, idParam } from "~/platform/guard.server";
import { photoResponse } from "~/platform/photo.server";
import { photoOf } from "~/domain/oil/index.server";

/** A photograph of a sample. */
export const loader = guard("viewer", async ({ params }) => photoResponse(await photoOf(idParam(params))));
