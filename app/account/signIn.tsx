import { Form, redirect, useActionData } from "react-router";
import type { Route } from "./+types/signIn";
import { openAction, openLoader, problems } from "~/platform/guard.server";
import { cleanText } from "~/platform/validate";
import { nobodyYet, signIn, userOf } from "~/platform/session.server";
import { formOf } from "~/platform/request.server";
import { Button, FormProblemsProvider, TextField } from "~/ui/form";
import { Mark } from "~/ui/mark";

export const meta = () => [{ title: "Sign in · Juncteral" }];

export const loader = openLoader(async ({ request }) => {
  if (await userOf(request)) throw redirect("/");
  return { nobodyYet: await nobodyYet() };
});

/** Only an address of our own may follow a sign-in. */
function ownAddress(to: string | null): string {
  if (!to || !to.startsWith("/") || !URL.canParse(to, "http://own.invalid")) return "/";
  const { origin, pathname, search } = new URL(to, "http://own.invalid");
  return origin === "http://own.invalid" && !pathname.startsWith("//") ? pathname + search : "/";
}

export const action = openAction(async ({ request, context }) => {
  const form = await formOf(request);
  const name = cleanText(String(form.get("name") ?? "")).trim();
  const password = cleanText(String(form.get("password") ?? ""));
  if (!name || !password)
    return problems({
      ...(!name && { name: "Enter your sign-in name." }),
      ...(!password && { password: "Enter your password." }),
    });
  if (name.length > 100 || password.length > 200) return problems({ form: "Name and password do not match." }, 401);
  const result = await signIn(name, password, context.address, context.secure, request);
  if (!result.ok) return problems({ form: result.message }, result.status);
  return redirect(ownAddress(new URL(request.url).searchParams.get("to")), {
    headers: { "Set-Cookie": result.cookie },
  });
});

export default function SignIn({ loaderData }: Route.ComponentProps) {
  const answer = useActionData<typeof action>();
  if (loaderData.nobodyYet)
    return (
      <main className="mx-auto flex min-h-screen max-w-sm flex-col justify-center px-6 pb-24">
        <Mark large />
        <h1 className="mt-6">Nobody may sign in yet</h1>
        <p className="mt-2 text-ink-2">
          This database is new. The window in which the server was started shows an address that begins with this one's
          and ends in /first/…: open it to make the first engineer. If it is gone, start the server again, and it prints
          a new one.
        </p>
      </main>
    );
  return (
    <main className="mx-auto flex min-h-screen max-w-sm flex-col justify-center px-6 pb-24">
      <Mark large />
      <h1 className="mt-6">Sign in</h1>
      <p className="mt-1 mb-5 text-ink-2">Readings, trends and planned stops of your hydraulic machines.</p>
      <Form method="post">
        <FormProblemsProvider problems={answer?.problems}>
          <div className="grid gap-4">
            <TextField name="name" label="Sign-in name" autoComplete="username" required autoFocus />
            <TextField name="password" label="Password" type="password" autoComplete="current-password" required />
            <Button>Sign in</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </main>
  );
}
