import { Form, redirect } from "react-router";
import type { Route } from "./+types/plantTest";
import { componentKindIds, componentKinds, pointQuantityIds } from "@core";
import { formOf } from "~/platform/request.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { fieldsOf } from "~/platform/validate";
import { Button, FormProblemsProvider, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { addPlantTest } from "~/domain/checks/index.server";

export const meta = () => [{ title: "A test of your own · Juncteral" }];

export const loader = guard("engineer", async () => null);

export const action = guardAction("engineer", async ({ request, user }) => {
  const form = await formOf(request);
  const added = await addPlantTest(fieldsOf(form), form.getAll("kinds").map(String), user);
  return added.ok ? redirect(`/tests/${added.id}`) : refused(added);
});

export default function PlantTestPage({ actionData }: Route.ComponentProps) {
  return (
    <div className="max-w-2xl">
      <PageHead crumbs={[{ label: "Tests", to: "/tests" }]} title="Add a test of your own">
        Readings with their bounds, and what must be true before it starts.
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="grid gap-4">
            <TextField name="title" label="Name" maxLength={120} />
            <TextField
              name="asks"
              label="The question that it answers"
              maxLength={220}
              placeholder="Does the latch let go in time?"
            />
            <fieldset>
              <legend className="text-sm text-ink-2">On which kinds of component</legend>
              <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
                {componentKindIds.map((k) => (
                  <label key={k} className="flex min-h-9 items-center gap-2 max-lg:min-h-11">
                    <input type="checkbox" name="kinds" value={k} className="size-4 accent-sea" />
                    {componentKinds[k].label}
                  </label>
                ))}
              </div>
              {actionData?.problems.kinds ? (
                <p className="text-sm font-medium text-verm">{actionData.problems.kinds}</p>
              ) : null}
            </fieldset>
            <TextArea name="before" label="What must be true before it starts" hint="One a line." rows={3} />
            <TextArea name="caution" label="Caution" rows={2} />
            <TextArea name="steps" label="Steps" hint="One a line." rows={3} />
            <TextArea name="alters" label="What is altered for it" hint="One a line; put back afterwards." rows={2} />
            <TextArea
              name="readings"
              label="Readings"
              hint={`One a line: name; quantity; least; greatest. Bounds may be empty. Quantities: ${pointQuantityIds.join(", ")}.`}
              rows={4}
              placeholder="Latch pressure; pressure; 40 bar; 60 bar"
            />
            <Button>Add the test</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
