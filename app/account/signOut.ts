import { redirect } from "react-router";
import { guardAction } from "~/platform/guard.server";
import { signOut } from "~/platform/session.server";

export const loader = () => redirect("/");

export const action = guardAction("viewer", async ({ request }) =>
  redirect("/sign-in", { headers: { "Set-Cookie": await signOut(request) } }),
);
