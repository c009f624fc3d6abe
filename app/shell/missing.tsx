import { guard, notFound } from "~/platform/guard.server";

export const loader = guard("viewer", async () => {
  throw notFound("page");
});

export default function Missing() {
  return null;
}
