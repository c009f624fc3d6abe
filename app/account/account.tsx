import { Form, redirect, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/account";
import type { loader as rootLoader } from "~/root";
import { guard, guardAction } from "~/platform/guard.server";
import { Button, SelectField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { themeCookie, themeOf, themes } from "./theme.server";

export const meta = () => [{ title: "Account · Juncteral" }];

export const loader = guard("viewer", async ({ user, request }) => ({ user, theme: await themeOf(request) }));

export const action = guardAction("viewer", async ({ request }) => {
  const form = await request.formData();
  const theme = themes.find((t) => t === form.get("theme")) ?? null;
  return redirect("/account", { headers: { "Set-Cookie": await themeCookie(theme) } });
});

const may = {
  viewer: "You may look at everything and export it.",
  technician: "You may also log and correct readings, import them, and carry out work.",
  engineer: "You may also edit the fleet, change limits, book work and plan stops.",
};

export default function Account({ loaderData: { user, theme } }: Route.ComponentProps) {
  const root = useRouteLoaderData<typeof rootLoader>("root");
  return (
    <>
      <PageHead title={`${user.name}, ${user.role}`}>{may[user.role]}</PageHead>
      <div className="max-w-sm">
        <Section title="Light or dark">
          <Form method="post" reloadDocument className="mt-3 grid gap-3">
            <SelectField key={root?.theme} name="theme" label="Tones" defaultValue={theme ?? ""} options={[{ value: "", label: "As the device" }, { value: "light", label: "Light" }, { value: "dark", label: "Dark" }]} />
            <Button tone="plain">Use these tones</Button>
          </Form>
        </Section>
        <Section title="Session">
          <Form method="post" action="/sign-out" className="mt-3"><Button tone="plain">Sign out</Button></Form>
        </Section>
      </div>
    </>
  );
}
