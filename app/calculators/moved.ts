import { redirect, type LoaderFunctionArgs } from "react-router";
import { guard } from "~/platform/guard.server";

/** Addresses that people kept when the calculators were called the Bench. */
export const loader = guard("viewer", async ({ params, request }: LoaderFunctionArgs) =>
  redirect(`/calculators/${params["*"] ?? ""}${new URL(request.url).search}`, 301),
);
