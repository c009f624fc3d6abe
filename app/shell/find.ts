import { guard } from "~/platform/guard.server";
import { find } from "~/domain/overview/shell.server";

/** What the find box, and pickers of one kind of record, ask while a person types. */
export const loader = guard("viewer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  return {
    found: await find(
      (search.get("q") ?? "").slice(0, 120),
      search.get("kind") === "component" ? "component" : undefined,
    ),
  };
});
