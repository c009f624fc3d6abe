import { isAnalyte } from "@core";
import { guard, idParam, notFound } from "~/platform/guard.server";
import { metalOf } from "~/domain/oil/index.server";

/** The series of one metal, fetched when it is chosen. */
export const loader = guard("viewer", async ({ params }) => {
  const metal = params.metal ?? "";
  if (!isAnalyte(metal)) throw notFound("metal");
  return { id: metal, points: await metalOf(idParam(params), metal) };
});
