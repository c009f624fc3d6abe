import { runState } from "~/domain/runs/run.server";
import { guard, idParam } from "~/platform/guard.server";

/** What others did meanwhile in a procedure. */
export const loader = guard("technician", async ({ params }) => Response.json(await runState(idParam(params))));
