import { runState } from "~/domain/runs/index.server";
import { guard, idParam } from "~/platform/guard.server";

/** What others did meanwhile in a procedure. */
export const loader = guard("technician", async ({ params }) => Response.json(await runState(idParam(params))));
