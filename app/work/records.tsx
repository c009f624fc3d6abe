import { Form, Link } from "react-router";
import type { Route } from "./+types/records";
import { findRecords } from "~/domain/record/index.server";
import { guard } from "~/platform/guard.server";
import { Button, fieldClass } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { interventionLabels } from "~/domain/bookings/index";

export const meta = () => [{ title: "Records of work · Juncteral" }];

export const loader = guard("viewer", async ({ request }) => {
  const text = (new URL(request.url).searchParams.get("find") ?? "").slice(0, 200);
  return { text, ...(await findRecords(text)) };
});

export default function Records({ loaderData: { text, records, more } }: Route.ComponentProps) {
  const site = useSite();
  return (
    <>
      <PageHead
        crumbs={[{ label: "Work", to: "/work" }, { label: "Records" }]}
        title={
          text
            ? `${records.length}${more ? " and more" : ""} record${records.length === 1 ? "" : "s"} with “${text}”`
            : "Work that was done"
        }
      />
      <Form className="mb-4 flex max-w-2xl flex-wrap items-end gap-3" role="search">
        <label className="min-w-0 grow text-sm text-ink-2">
          Machine, part number or serial, finding, person
          <input name="find" defaultValue={text} className={`${fieldClass} text-ink`} maxLength={200} />
        </label>
        <Button>Find</Button>
      </Form>
      {records.length === 0 ? (
        <Empty>{text ? "No record has all of these words." : "No work has been recorded yet."}</Empty>
      ) : (
        <ul>
          {records.map((r) => (
            <li key={r.id} className="ruled grid gap-x-4 py-2 sm:grid-cols-[minmax(0,1fr)_8rem_8rem]">
              <span className="min-w-0 [overflow-wrap:anywhere]">
                <Link to={`/work/${r.id}/record`} className="font-semibold hover:underline">
                  {r.machine}, {r.component}
                </Link>
                <span className="block text-ink-2">
                  {interventionLabels[r.kind]}
                  {r.findings || r.note ? `: ${(r.findings || r.note).slice(0, 160)}` : ""}
                </span>
              </span>
              <span className="text-ink-2">{dayText(r.doneAt, site)}</span>
              <span className={r.signed ? "text-ink-2" : "text-ochre"}>
                {r.interim ? "stop-gap" : r.signed ? "signed" : "not signed"}
              </span>
            </li>
          ))}
        </ul>
      )}
      {more ? <p className="py-2 text-ink-2">The newest sixty. Add a word to find fewer.</p> : null}
    </>
  );
}
