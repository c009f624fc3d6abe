import { Link } from "react-router";
import type { Route } from "./+types/jobs";
import { jobList, type JobRow } from "~/domain/bookings/index.server";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { counted } from "~/ui/counted";
import { waitsFor } from "./stages";

export const meta = () => [{ title: "Jobs · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  ...(await jobList()),
  mayBegin: mayAct(user.role, "technician"),
}));

function Rows({ jobs }: { jobs: readonly JobRow[] }) {
  const site = useSite();
  return (
    <ul>
      {jobs.map((j) => (
        <li key={j.id} className="ruled">
          <Link
            to={`/jobs/${j.id}`}
            className="grid min-h-11 grid-cols-[3rem_minmax(0,1fr)] items-center gap-x-4 py-1.5 hover:underline sm:grid-cols-[3rem_minmax(0,1fr)_16rem]"
          >
            <span className="text-ink-2">{j.number}</span>
            <span className="min-w-0 [overflow-wrap:anywhere]">
              <strong className="font-semibold">{j.machine}</strong>
              <span className="line-clamp-2 text-sm text-ink-2">{j.noticed}</span>
            </span>
            <span className="text-sm text-ink-2 max-sm:col-start-2">
              {j.here ? `${waitsFor[j.here]} · ` : ""}
              {dayText(j.openedAt, { ...site, timeZone: j.timeZone })}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

export default function Jobs({ loaderData: { open, over, mayBegin } }: Route.ComponentProps) {
  return (
    <>
      <PageHead
        crumbs={[{ label: "Work", to: "/work" }, { label: "Jobs" }]}
        title={open.length === 0 ? "No job is open" : `${counted(open.length, "job")} open`}
      >
        {mayBegin ? (
          <Link to="/jobs/new" className="act">
            A machine is here with a complaint
          </Link>
        ) : null}
      </PageHead>
      {open.length + over.length === 0 ? (
        <Empty>A job begins with a complaint, with an isolation, or with work that is booked.</Empty>
      ) : null}
      {open.length > 0 ? (
        <Section title="Open" aside="newest first">
          <Rows jobs={open} />
        </Section>
      ) : null}
      {over.length > 0 ? (
        <Section title="Over">
          <Rows jobs={over} />
        </Section>
      ) : null}
    </>
  );
}
