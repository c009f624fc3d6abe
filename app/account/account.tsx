import { Form, Link, redirect, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/account";
import { preferableDimensions, unitsOf, validPreference } from "@core";
import type { loader as rootLoader } from "~/root";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { sessionHash } from "~/platform/session.server";
import { fieldsOf } from "~/platform/validate";
import { formOf } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { saveUnits, changeOwnPassword } from "~/domain/access/index.server";
import { letterKeysCookie, letterKeysOff } from "./letterKeys.server";
import { themeCookie, themeOf, themes } from "./theme.server";

export const meta = () => [{ title: "Account · Juncteral" }];

export const loader = guard("viewer", async ({ user, request }) => ({
  user,
  theme: await themeOf(request),
  keysOff: await letterKeysOff(request),
  mayEdit: mayAct(user.role, "engineer"),
  said: new URL(request.url).searchParams.get("said"),
}));

export const action = guardAction("viewer", async ({ request, user }) => {
  const form = await formOf(request);
  if (form.get("intent") === "units") {
    await saveUnits(user.id, validPreference(Object.fromEntries(form)));
    return redirect("/account");
  }
  if (form.get("intent") === "password") {
    const done = await changeOwnPassword(user.id, fieldsOf(form), user, await sessionHash(request));
    return done.ok ? redirect("/account?said=password") : refused(done);
  }
  if (form.get("intent") === "keys")
    return redirect("/account", { headers: { "Set-Cookie": await letterKeysCookie(form.get("keys") === "off") } });
  const theme = themes.find((t) => t === form.get("theme")) ?? null;
  return redirect("/account", { headers: { "Set-Cookie": await themeCookie(theme) } });
});

const dimensionLabels: Record<(typeof preferableDimensions)[number], string> = {
  pressure: "Pressure",
  flow: "Flow",
  temperature: "Temperature",
  temperatureDifference: "Temperature difference",
  length: "Length",
  displacement: "Displacement",
  volume: "Volume",
  torque: "Torque",
  force: "Force",
  power: "Power",
  vacuum: "Vacuum",
  area: "Area",
};

const may = {
  viewer: "You may view and export everything.",
  technician: "You may also log and correct readings, import them, and carry out work.",
  engineer: "You may also edit the fleet, change limits, book work and plan stops.",
};

export default function Account({
  loaderData: { user, theme, keysOff, mayEdit, said },
  actionData,
}: Route.ComponentProps) {
  const root = useRouteLoaderData<typeof rootLoader>("root");
  return (
    <>
      <PageHead title={`${user.name}, ${user.role}`}>
        {may[user.role]}
        {mayEdit ? (
          <>
            {" "}
            <Link to="/account/people" className="way">
              People who may sign in
            </Link>
          </>
        ) : null}
      </PageHead>
      {said === "password" ? <Notice>Your password is changed; you are signed out everywhere else.</Notice> : null}
      <div className="max-w-sm">
        <Section title="Light or dark">
          <Form method="post" reloadDocument className="mt-3 grid gap-3">
            <SelectField
              key={root?.theme}
              name="theme"
              label="Tones"
              defaultValue={theme ?? ""}
              options={[
                { value: "", label: "As the device" },
                { value: "light", label: "Light" },
                { value: "dark", label: "Dark" },
              ]}
            />
            <Button tone="plain">Use these tones</Button>
          </Form>
        </Section>
        <Section title="Units">
          <Form method="post" className="mt-3 grid gap-3">
            <input type="hidden" name="intent" value="units" />
            <p className="text-sm text-ink-2">
              Values are shown in these units, and numbers typed without a unit are read in them. A unit you type always
              counts and is kept as typed.
            </p>
            <div className="grid grid-cols-2 gap-3">
              {preferableDimensions.map((d) => (
                <SelectField
                  key={d}
                  name={d}
                  label={dimensionLabels[d]}
                  defaultValue={user.units[d] ?? ""}
                  options={[
                    { value: "", label: "as the point is set" },
                    ...unitsOf(d).map((u) => ({ value: u.symbol, label: u.symbol })),
                  ]}
                />
              ))}
            </div>
            <Button tone="plain">Use these units</Button>
          </Form>
        </Section>
        <Section title="One-letter keys">
          <Form method="post" reloadDocument className="mt-3 grid gap-3">
            <input type="hidden" name="intent" value="keys" />
            <SelectField
              key={String(keysOff)}
              name="keys"
              label="On this device"
              hint="/ finds, n logs a reading, t shows a point's table. Off for speech input, which types letters anywhere."
              defaultValue={keysOff ? "off" : "on"}
              options={[
                { value: "on", label: "They work" },
                { value: "off", label: "They are off" },
              ]}
            />
            <Button tone="plain">Save</Button>
          </Form>
        </Section>
        <Section title="Password">
          <Form method="post" noValidate className="mt-3" key={said}>
            <input type="hidden" name="intent" value="password" />
            <FormProblemsProvider problems={actionData && "problems" in actionData ? actionData.problems : undefined}>
              <div className="grid gap-3">
                <TextField
                  name="old"
                  label="The one you have"
                  type="password"
                  autoComplete="current-password"
                  maxLength={200}
                />
                <TextField
                  name="password"
                  label="The new one"
                  type="password"
                  autoComplete="new-password"
                  hint="At least 10 characters"
                  maxLength={200}
                />
                <Button tone="plain">Change it</Button>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
        <Section title="Session">
          <Form
            method="post"
            action="/sign-out"
            className="mt-3"
            onSubmit={() => navigator.serviceWorker?.controller?.postMessage({ forget: true })}
          >
            <Button tone="plain">Sign out</Button>
          </Form>
        </Section>
      </div>
    </>
  );
}
