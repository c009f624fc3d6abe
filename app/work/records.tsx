import { Form, Link } from "react-router";
import type { Route } from "./+types/records";
import { findRecords } from "~/domain/work/record.server";
import { guard } from "~/platform/guard.server";
import { Button, fieldClass } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { interventionLabels } from "~/domain/work/form";
import { records as texts } from "./texts";

export const meta = () => [{ title: texts.recordsOfWorkJuncteral }];

export const loader = guard("viewer", async ({ request }) => {
  const text = (new URL(request.url).searchParams.get("find") ?? "").slice(0, 200);
  return { text, ...(await findRecords(text)) };
});

export default function Records({ loaderData: { text, records, more } }: Route.ComponentProps) {
  const site = useSite();
  return (
    <>
      <PageHead
        crumbs={[{ label: texts.work, to: "/work" }, { label: texts.records }]}
        title={text ? texts.recordWith(records.length, more ? texts.andMore : "", text) : texts.workThatWasDone}
      />
      <Form className="mb-4 flex max-w-2xl flex-wrap items-end gap-3" role="search">
        <label className="min-w-0 grow text-sm text-ink-2">
          {texts.machinePartNumberOr}
          <input name="find" defaultValue={text} className={`${fieldClass} text-ink`} maxLength={200} />
        </label>
        <Button>{texts.find}</Button>
      </Form>
      {records.length === 0 ? (
        <Empty>{text ? texts.noRecordHasAll : texts.noWorkHasBeen}</Empty>
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
                {r.interim ? texts.stopGap : r.signed ? texts.signed : texts.notSigned}
              </span>
            </li>
          ))}
        </ul>
      )}
      {more ? <p className="py-2 text-ink-2">{texts.theNewestSixtyAdd}</p> : null}
    </>
  );
}
