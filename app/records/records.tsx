import { Form, Link } from "react-router";
import type { Route } from "./+types/records";
import { formatNumber } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Button, CheckField, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { recordsPage } from "~/domain/readings/index.server";

export const meta = () => [{ title: "Records · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  page: await recordsPage(),
  mayImport: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
}));

export default function Records({ loaderData: { page, mayImport, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  return (
    <>
      <PageHead
        title={
          page.readings > 0
            ? `${page.more ? "More than " : ""}${formatNumber(page.readings, 0)} readings on record`
            : "The record is empty so far"
        }
      >
        Readings are never changed or deleted: a correction supersedes, and both stay.
      </PageHead>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <div>
          <Section title="Bring readings in">
            <p className="py-2 text-ink-2">From any CSV: map the columns, see the fate of every row, then import.</p>
            {mayImport ? (
              <Link to="/records/import" className="act">
                Import readings
              </Link>
            ) : (
              <p className="text-sm text-ink-2">A technician can import.</p>
            )}
          </Section>
          <Section title="Take readings out">
            <Form method="get" action="/records/readings.csv" reloadDocument className="mt-3 grid grid-cols-2 gap-3">
              <div className="col-span-2">
                <SelectField
                  name="machine"
                  label="Machine"
                  options={[
                    { value: "", label: "the whole fleet" },
                    ...page.machines.map((m) => ({ value: m.id, label: m.name })),
                  ]}
                />
              </div>
              <TextField name="from" label="From" type="date" />
              <TextField name="to" label="To" type="date" />
              <div className="col-span-2">
                <CheckField name="superseded" label="With superseded readings" />
              </div>
              <div className="col-span-2">
                <Button tone="plain">Export as CSV</Button>
              </div>
            </Form>
          </Section>
          <Section title="Samples of oil">
            <p className="flex gap-5 py-2">
              <a href="/oil/samples.csv" className="way" download="samples.csv">
                Export all samples as CSV
              </a>
              {mayImport ? (
                <Link to="/oil/import" className="way">
                  Import a laboratory’s file
                </Link>
              ) : null}
            </p>
          </Section>
          <Section title="The fleet as one file">
            <p className="py-2 text-ink-2">
              Sites, machines, hour meters, circuits, components with every life, points with their limits, fluids,
              instruments with their calibrations, rounds and stops, as JSON with a published schema. With the readings
              it brings the record back into an empty database.
            </p>
            <p className="flex gap-5">
              <a href="/records/fleet.json" className="way" download="fleet.json">
                Export the fleet file
              </a>
              {mayEdit ? (
                <Link to="/records/fleet" className="way">
                  Import a fleet file
                </Link>
              ) : null}
            </p>
          </Section>
        </div>
        <div>
          {page.failed.length > 0 ? (
            <Section title="Could not be assessed" aside="tried again by itself">
              <ul className="text-sm">
                {page.failed.map((f) => (
                  <li key={f.to} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    <Link to={f.to} className="hover:underline">
                      {f.what}
                    </Link>
                    : {f.failure}{" "}
                    <span className="text-ink-2">
                      ({f.failures} {f.failures === 1 ? "time" : "times"}
                      {f.triedAt ? `, last ${momentText(f.triedAt, site)}` : ""})
                    </span>
                  </li>
                ))}
              </ul>
            </Section>
          ) : null}
          <Section title="Corrected readings">
            {page.corrections.length === 0 ? (
              <p className="py-2 text-ink-2">None yet.</p>
            ) : (
              <ul className="text-sm">
                {page.corrections.map((c) => (
                  <li key={c.id} className="ruled py-1.5">
                    <Link to={`/points/${c.pointId}?view=table`} className="hover:underline">
                      {c.point}
                    </Link>
                    : <s>{c.entered}</s>, {c.why}{" "}
                    <span className="text-ink-2">
                      ({c.by}, {c.at ? momentText(c.at.getTime(), site) : ""})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          <Section title="Imports">
            {page.done.length === 0 ? (
              <p className="py-2 text-ink-2">None yet.</p>
            ) : (
              <ul className="text-sm">
                {page.done.map((i) => (
                  <li key={i.id} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    <>
                      {i.fileName}: {i.added} added
                    </>{" "}
                    <span className="text-ink-2">
                      ({i.by}, {i.doneAt ? momentText(i.doneAt.getTime(), site) : ""})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          <Section title="Changes to the fleet">
            {page.edits.length === 0 ? (
              <p className="py-2 text-ink-2">None yet.</p>
            ) : (
              <ul className="text-sm">
                {page.edits.map((e) => (
                  <li key={e.id} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    {e.what}{" "}
                    <span className="text-ink-2">
                      ({e.by}, {momentText(e.at.getTime(), site)})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
        </div>
      </div>
    </>
  );
}
