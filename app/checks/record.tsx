import { Link } from "react-router";
import type { Route } from "./+types/record";
import { decimalsFor, formatNumber } from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { OutcomeView } from "~/ui/calculation";
import { PageHead, Section } from "~/ui/page";
import { momentText, useShow, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { recordPage } from "~/domain/checks/index.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [{ title: `${loaderData?.title ?? "Test"} · Juncteral` }];

export const loader = guard("viewer", async ({ params, user }) => ({
  ...(await recordPage(idParam(params))),
  mayIsolate: mayAct(user.role, "technician"),
}));

export default function RecordPage({ loaderData: r }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const line = (outcome: typeof r.outcome) => outcome.working.rows.find((row) => row.label === r.compares);
  const [now, before] = [line(r.outcome), r.before ? line(r.before.outcome) : undefined];
  const text = (row: NonNullable<typeof now>) =>
    row.quantity
      ? show(row.value, row.quantity, { digits: row.digits ?? 3 })
      : formatNumber(row.value, decimalsFor(row.value, row.digits ?? 3));
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Tests", to: "/tests" },
          { label: r.title, to: `/tests/${r.test}?component=${r.componentId}` },
          { label: `${r.machine}, ${r.component}`, to: `/fleet/machines/${r.machineId}` },
        ]}
        title={`${r.title}, ${momentText(r.at, site)}`}
      >
        {`By ${r.by}. ${r.note}`}{" "}
        <Link to={`/tests/${r.test}?component=${r.componentId}`} className="way ml-2">
          Make it again
        </Link>
        {r.mayIsolate ? (
          <Link to={`/isolate/new?circuit=${r.circuitId}`} className="way ml-4">
            Isolate the fault behind it
          </Link>
        ) : null}
      </PageHead>
      <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_300px]">
        <div className="min-w-0">
          <OutcomeView title={r.title} outcome={r.outcome} />
        </div>
        <div>
          <Section title="Against last time">
            {r.before === null ? (
              <p className="pt-2 text-ink-2">The first of its kind on this component.</p>
            ) : (
              <>
                {now && before ? (
                  <p className="pt-2">
                    {r.compares}
                    {": "}
                    <strong>{text(now)}</strong>
                    {`, was ${text(before)}${before.value !== 0 ? ` (${formatNumber(now.value / before.value, 2)} times)` : ""}.`}
                  </p>
                ) : null}
                <p className="pt-1 text-sm text-ink-2">
                  {momentText(r.before.at, site)}, {r.before.by}: <Verdict parts={r.before.outcome.answer} />
                </p>
              </>
            )}
          </Section>
          <Section title="As entered">
            <dl className="pt-1 text-sm">
              {Object.entries(r.typed)
                .filter(([, v]) => v.trim())
                .map(([k, v]) => (
                  <div key={k} className="flex justify-between gap-3 py-0.5">
                    <dt className="text-ink-2">{r.fields[k] ?? k}</dt>
                    <dd className="text-right whitespace-pre-line">{v}</dd>
                  </div>
                ))}
            </dl>
          </Section>
        </div>
      </div>
    </>
  );
}
