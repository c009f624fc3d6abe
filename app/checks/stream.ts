import { guard, guardAction } from "~/platform/guard.server";
import { testerStream, turnKnobs } from "~/platform/tester.server";

export const loader = guard("technician", async ({ request }) => testerStream(request.signal));

export const action = guardAction("technician", async ({ request }) =>
  turnKnobs(await request.json().catch(() => null)),
);
