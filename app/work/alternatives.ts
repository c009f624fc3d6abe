import { alternativesOf } from "~/domain/plan/index.server";
import { guard, notFound } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";

/** Ways of doing one component's work, priced; asked for by its page when somebody wants to see them. */
export const loader = guard("viewer", async ({ request }) => {
  const component = new URL(request.url).searchParams.get("component");
  if (!isUuid(component)) throw notFound("component");
  return { alternatives: await alternativesOf(component) };
});
