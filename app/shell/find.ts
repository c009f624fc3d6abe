import { guard } from "~/platform/guard.server";
import { find } from "./queries.server";

/** What the find box asks while a person types. */
export const loader = guard("viewer", async ({ request }) => ({ found: await find((new URL(request.url).searchParams.get("q") ?? "").slice(0, 120)) }));
