/** The samples and the end of a debris event. */
import { Form, Link } from "react-router";
import type { Route } from "./+types/debris";
import { Button, CheckField, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

type Loaded = Route.ComponentProps["loaderData"];
type Problems = Record<string, string> | undefined;

/** What samples said since the event: the proof that it is over. */
export function SamplesSince({ page, since, mayLog }: Pick<Loaded, "page" | "since" | "mayLog">) {
  const site = useSite();
  const { event } = page;
  const open = event.closedAt === null;
  return (
    <Section title="Samples since" aside={page.target ? `target ${page.target.text}` : undefined}>
      {since.length === 0 ? (
        <p className="py-2 text-ink-2">
          None yet.{" "}
          {mayLog && open ? (
            <Link to={`/oil/${event.circuitId}/sample`} className="way">
              Enter a sample
            </Link>
          ) : null}
        </p>
      ) : (
        <ul>
          {since.map((s) => (
            <li key={s.id} className="ruled flex justify-between gap-3 py-1.5">
              <Link to={`/oil/samples/${s.id}`} className="way">
                {s.number}
              </Link>
              <span>{s.code ?? "no code"}</span>
              <span className={s.clean ? "text-ink" : "text-ink-2"}>
                {s.clean === null ? "not comparable" : s.clean ? "clean" : "not clean"}
              </span>
              <span className="text-ink-2">{dayText(s.at, site)}</span>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}

/** Closing it with its source, or with what was checked. */
export function CloseDebris({ page, problems }: Pick<Loaded, "page"> & { problems: Problems }) {
  return (
    <Section title="Close it">
      <Form method="post" noValidate className="mt-3 max-w-xl" preventScrollReset>
        <input type="hidden" name="intent" value="close" />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <SelectField
              name="sourceComponentId"
              label="The source"
              options={[
                { value: "", label: "not a component of the circuit" },
                ...page.parts.map((p) => ({ value: p.id, label: p.name })),
              ]}
            />
            <TextArea
              name="source"
              label="In words"
              placeholder="Bypass valve of the return filter held open by a burr"
              maxLength={500}
            />
            <CheckField name="notFound" label="It was not found; describe what was checked" />
            <p>
              <Button>Close the event</Button>
            </p>
          </div>
        </FormProblemsProvider>
      </Form>
    </Section>
  );
}

/** It was not over. */
export function ReopenDebris({ problems }: { problems: Problems }) {
  return (
    <Section title="Not finished after all?">
      <Form method="post" noValidate className="mt-3 max-w-xl" preventScrollReset>
        <input type="hidden" name="intent" value="reopen" />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <TextField
              name="why"
              label="Why it is opened again"
              placeholder="Brass in the sample of 2 December"
              maxLength={500}
            />
            <p>
              <Button tone="plain">Open it again</Button>
            </p>
          </div>
        </FormProblemsProvider>
      </Form>
    </Section>
  );
}
