import { guard } from "~/platform/guard.server";
import { find } from "~/domain/overview/index.server";

/** What the find box, and pickers of one kind of record, ask while a person types. */
export const loader = guard("viewer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const asked = (search.get("q") ?? "").slice(0, 120);
  return {
    /** Whose answer it is: one that comes late must not stand under another text. */
    asked: asked.trim(),
    found: await find(asked, search.get("kind") === "component" ? "component" : undefined),
  };
});
