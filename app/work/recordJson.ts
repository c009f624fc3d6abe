import { recordPage } from "~/domain/record/index.server";
import { guard, idParam } from "~/platform/guard.server";

/** The record of a piece of work for programs: what its page shows, photographs by their address. */
export const loader = guard("viewer", async ({ params, request }) => {
  const { work, runs, photos, ...rest } = await recordPage(idParam(params));
  const { submission: _form, signedById: _signed, checkedById: _checked, ...shown } = work;
  const { origin } = new URL(request.url);
  return Response.json(
    {
      format: "juncteral-work-record",
      version: 1,
      ...rest,
      work: shown,
      procedures: runs.map(({ stand: _stand, ...r }) => r),
      photographs: photos.map((p) => ({ ...p, address: `${origin}/work/photos/${p.id}` })),
    },
    { headers: { "Content-Disposition": `attachment; filename="work-${work.id}.json"` } },
  );
});
