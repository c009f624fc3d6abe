import { Form, redirect } from "react-router";
import type { Route } from "./+types/newDebris";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { now } from "~/runtime/clock.server";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { localInput } from "~/ui/site";
import { openDebris, circuitPlace, settingsPage } from "~/domain/oil/index.server";

export const meta = () => [{ title: "Open a debris event · Juncteral" }];

export const loader = guard("technician", async ({ params, request }) => {
  const id = idParam(params);
  const [place, { components }] = await Promise.all([circuitPlace(id), settingsPage(id)]);
  const asked = new URL(request.url).searchParams;
  return {
    what: (asked.get("what") ?? "").slice(0, 500),
    part: components.find((c) => c.id === asked.get("part"))?.id ?? "",
    circuitId: id,
    machine: place.machine,
    timeZone: place.timeZone,
    now: now(),
    parts: components.map((c) => ({ value: c.id, label: c.name })),
    submission: crypto.randomUUID(),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const place = await circuitPlace(id);
  const done = await openDebris(id, await formFields(request), user, place.timeZone);
  return done.ok ? redirect(`/oil/debris/${done.id}`) : refused(done);
});

export default function NewDebris({ loaderData: d, actionData }: Route.ComponentProps) {
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: d.machine, to: `/oil/${d.circuitId}` },
        ]}
        title={`Debris was found in ${d.machine}`}
      >
        Opening the event puts on one list what it threatens, how it is flushed, and when samples are due. It closes
        with a clean sample and a named source.
      </PageHead>
      <Notice tone="ochre" live={false}>
        Look before washing: keep the debris as it lay. Suspended loads are propped before a line is opened, pressure is
        released and proved zero at a gauge.
      </Notice>
      <Form method="post" noValidate>
        <input type="hidden" name="submission" value={d.submission} />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <TextArea
              name="what"
              label="What was found"
              defaultValue={d.what}
              placeholder="Bronze flakes on the return filter"
              maxLength={500}
            />
            <SelectField
              name="foundAtId"
              label="Where it was found"
              defaultValue={d.part}
              options={[{ value: "", label: "not known: suspect every component" }, ...d.parts]}
              hint="What lies below it comes first on the list; the rest is reached through the tank"
            />
            <TextField name="at" label="Found at" type="datetime-local" defaultValue={localInput(d.now, d.timeZone)} />
            <p>
              <Button>Open the event</Button>
            </p>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
