import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/tests";
import { formOf } from "~/platform/request.server";
import { guard, guardAction, notFound } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { Button } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, momentText, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { putBack, allTests, openChanges, recentRecords } from "~/domain/checks/index.server";

export const meta = () => [{ title: "Tests · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => {
  const [tests, changes, records] = await Promise.all([allTests(), openChanges(), recentRecords()]);
  return {
    tests,
    changes,
    records,
    mayRecord: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
  };
});

export const action = guardAction("technician", async ({ request, user }) => {
  const id = String((await formOf(request)).get("putBack") ?? "");
  if (!isUuid(id)) throw notFound("change");
  await putBack(id, user);
  return redirect("/tests");
});

export default function Tests({ loaderData: { tests, changes, records, mayRecord, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  const title = (id: string) => tests.find((t) => t.id === id)?.title ?? "A test";
  return (
    <>
      <PageHead
        crumbs={[{ label: "Rounds", to: "/rounds" }, { label: "Tests" }]}
        title={
          changes.length === 0
            ? "Nothing is altered for a test"
            : `${changes.length} temporary change${changes.length === 1 ? " is" : "s are"} not put back`
        }
      >
        A test that is made the same way each time can be compared.
        {mayEdit ? (
          <Link to="/tests/new" className="way ml-3">
            Add a test of your own
          </Link>
        ) : null}
      </PageHead>
      {changes.length > 0 ? (
        <Section title="To be put back">
          <ul>
            {changes.map((c) => (
              <li key={c.id} className="ruled flex flex-wrap items-center justify-between gap-3 py-2">
                <span>
                  <strong className="text-ochre">{c.what}</strong>
                  {c.before ? `, was ${c.before}` : ""}{" "}
                  <span className="block text-sm text-ink-2">
                    <Link to={`/fleet/machines/${c.machineId}`} className="way">
                      {c.machine}
                    </Link>
                    {c.component ? `, ${c.component}` : ""}; {momentText(c.at, site)}, {c.by}
                  </span>
                </span>
                {mayRecord ? (
                  <Form method="post">
                    <Button name="putBack" value={c.id} tone="plain">
                      It is put back
                    </Button>
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      <div className="grid gap-x-8 lg:grid-cols-2">
        <Section title="Tests">
          <ul>
            {tests.map((t) => (
              <li key={t.id} className="ruled py-1.5">
                <Link
                  to={`/tests/${t.id}`}
                  className="inline-flex min-h-8 items-center hover:underline max-lg:min-h-11"
                >
                  {t.title}
                </Link>
                {t.own ? <span className="ml-2 text-sm text-ink-2">the plant's own</span> : null}
                <span className="block text-sm text-ink-2">{t.asks}</span>
              </li>
            ))}
          </ul>
        </Section>
        <Section title="Made lately">
          {records.length === 0 ? (
            <Empty>No test yet.</Empty>
          ) : (
            <ul>
              {records.map((r) => (
                <li key={r.id} className="ruled py-2">
                  <Link to={`/tests/records/${r.id}`} className="way">
                    {title(r.test)}
                  </Link>
                  , {r.machine}, {r.component}, {dayText(r.at, site)}
                  <span className="block text-sm text-ink-2">
                    <Verdict parts={r.answer} />
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
    </>
  );
}
