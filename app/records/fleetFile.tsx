import { Form, Link, data as answerWith } from "react-router";
import type { Route } from "./+types/fleetFile";
import { guard, guardAction } from "~/platform/guard.server";
import { formOf } from "~/platform/request.server";
import { Button, Notice } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { importFleet } from "~/domain/assets/index.server";

export const meta = () => [{ title: "Fleet file · Juncteral" }];

export const loader = guard("engineer", async () => null);

export const action = guardAction("engineer", async ({ request, user }) => {
  const file = (await formOf(request)).get("file");
  if (!(file instanceof File) || file.size === 0) return answerWith({ messages: ["Choose a file."] }, { status: 422 });
  const result = await importFleet(await file.text(), user);
  return result.ok ? answerWith({ done: result }) : answerWith({ messages: result.messages }, { status: 422 });
});

export default function FleetFilePage({ actionData }: Route.ComponentProps) {
  const messages =
    actionData && "messages" in actionData
      ? actionData.messages
      : actionData && "problems" in actionData
        ? Object.values(actionData.problems)
        : [];
  const done = actionData && "done" in actionData ? actionData.done : null;
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead crumbs={[{ label: "Records", to: "/records" }]} title="Import a fleet file">
        It adds what is missing and changes nothing that is there: the same file twice adds nothing.
      </PageHead>
      {done ? (
        <Notice>
          {`${
            Object.keys(done.added).length
              ? `Added ${Object.entries(done.added)
                  .map(([what, n]) => `${n} ${what}`)
                  .join(", ")}`
              : "Nothing to add"
          }; ${done.there} were there already.`}{" "}
          <Link to="/fleet" className="way">
            Open the fleet
          </Link>
        </Notice>
      ) : null}
      {messages.length ? (
        <Notice tone="verm">
          <p>Nothing was added.</p>
          <ul className="list-disc pl-4">
            {messages.map((m: string) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </Notice>
      ) : null}
      <Form method="post" encType="multipart/form-data">
        <label htmlFor="f-file" className="mb-1 block text-sm text-ink-2">
          Fleet file, JSON
        </label>
        <input
          id="f-file"
          type="file"
          name="file"
          accept=".json,application/json"
          className="block w-full border border-line-2 bg-sheet p-3 file:mr-4 file:border-0 file:bg-sea-soft file:px-3 file:py-2 file:text-ink"
        />
        <div className="mt-3">
          <Button>Import it</Button>
        </div>
      </Form>
    </div>
  );
}
