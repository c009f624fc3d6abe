import { guard } from "~/platform/guard.server";
import { exportFleet } from "~/domain/assets/index.server";

/** The fleet file. */
export const loader = guard(
  "viewer",
  async () =>
    new Response(JSON.stringify(await exportFleet(), null, 2), {
      headers: {
        "Content-Type": "application/json; charset=utf-8",
        "Content-Disposition": 'attachment; filename="fleet.json"',
      },
    }),
);
