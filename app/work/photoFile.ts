import { guard, idParam, notFound } from "~/platform/guard.server";
import { photoResponse } from "~/platform/photo.server";
import { photoContent } from "~/platform/photoStore.server";

/** A photograph of work. */
export const loader = guard("viewer", async ({ params }) => {
  const content = await photoContent(idParam(params));
  if (!content) throw notFound("photograph");
  return photoResponse({ mediaType: "image/jpeg", content });
});
