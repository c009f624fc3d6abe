/** Where a job stands, in the order of the work. */
import { Link } from "react-router";
import type { JobStageId, JobStageState } from "@core";
import type { JobPage } from "~/domain/bookings/index.server";
import { counted } from "~/ui/counted";
import { dayStart } from "@core";
import { dayText, useSite } from "~/ui/site";

export const stageNames: Record<JobStageId, string> = {
  noticed: "Noticed",
  cause: "What it is",
  decided: "Decided",
  done: "Done",
  proven: "Proven",
  signed: "Signed",
};

/** What a job waits for, as the list says it. */
export const waitsFor: Record<JobStageId, string> = {
  noticed: "begun",
  cause: "its cause is open",
  decided: "nothing is decided yet",
  done: "work is booked",
  proven: "done, not proven or signed",
  signed: "proven, not signed",
};

const said: Record<JobStageState, string> = { done: "done", here: "here", ahead: "to come", left: "left out" };

/** A ring that is filled when done, open where the job is, thin before, struck where it was passed by. */
function Mark({ state }: { state: JobStageState }) {
  return (
    <svg viewBox="0 0 18 18" className="mt-0.5 size-[18px] shrink-0" aria-hidden="true" fill="none">
      {state === "done" ? (
        <>
          <circle cx="9" cy="9" r="7.5" fill="var(--sea)" />
          <path d="M5.6 9.2l2.4 2.4 4.4-5" stroke="var(--paper)" strokeWidth="1.8" />
        </>
      ) : state === "here" ? (
        <circle cx="9" cy="9" r="6.5" stroke="var(--sea)" strokeWidth="3" />
      ) : (
        <>
          <circle cx="9" cy="9" r="7" stroke="var(--line-2)" strokeWidth="1.3" />
          {state === "left" ? <path d="M4.5 9h9" stroke="var(--line-2)" strokeWidth="1.3" /> : null}
        </>
      )}
    </svg>
  );
}

type Facts = Pick<JobPage, "noticed" | "causes" | "works" | "openedAt" | "timeZone">;

/** The line under a stage: what its parts say. */
function StageLine({ id, job }: { id: JobStageId; job: Facts }) {
  const site = useSite();
  const live = job.works.filter((w) => !w.cancelled);
  switch (id) {
    case "noticed":
      return <>{job.noticed || "Nothing was written."}</>;
    case "cause":
      return (
        <>
          {job.causes.map((c) => (
            <Link key={c.id} to={`/isolate/${c.id}`} className="block hover:underline">
              {c.closed ? c.found || "none of what was suspected" : `isolation, ${counted(c.results, "result")} so far`}
            </Link>
          ))}
          {job.causes.length === 0 ? "Not isolated." : null}
        </>
      );
    case "decided":
      return (
        <>
          {live.map((w) => (
            <Link key={w.id} to={`/work/${w.id}`} className="block hover:underline">
              {`${w.component}: ${w.kind}` +
                (w.startsOn ? `, ${w.stop ?? ""} ${dayText(dayStart(w.startsOn, job.timeZone), site)}` : ", no stop")}
            </Link>
          ))}
          {live.length === 0 ? "Nothing yet." : null}
        </>
      );
    case "done":
      return (
        <>
          {live.flatMap((w) =>
            w.runs.map((r) => (
              <Link key={r.id} to={r.to} className="block hover:underline">
                {`${r.title}: ${r.closed} of ${r.of}`}
              </Link>
            )),
          )}
          {live.some((w) => w.done) ? "Recorded as done." : null}
        </>
      );
    case "proven":
      return (
        <>
          {live.map((w) =>
            w.proven ? (
              <span key={w.id} className="block">{`${w.component}: a reading after it proves it`}</span>
            ) : w.unprovenBecause ? (
              <span key={w.id} className="block">{`${w.component}: ${w.unprovenBecause}`}</span>
            ) : null,
          )}
        </>
      );
    case "signed":
      return (
        <>
          {live
            .filter((w) => w.signed)
            .map((w) => (
              <Link key={w.id} to={`/work/${w.id}/record`} className="block hover:underline">
                {`Record: ${w.component}`}
              </Link>
            ))}
        </>
      );
  }
}

export function Stages({ job }: { job: Facts & Pick<JobPage, "stand"> }) {
  return (
    <ol>
      {job.stand.stages.map(({ id, state }, i) => (
        <li
          key={id}
          aria-current={state === "here" ? "step" : undefined}
          className="relative grid grid-cols-[18px_minmax(0,1fr)] gap-x-3 pb-4"
        >
          {i > 0 ? <span aria-hidden="true" className="absolute -top-4 left-[8.5px] h-4 w-px bg-line-2" /> : null}
          <Mark state={state} />
          <div className="min-w-0">
            <p className={state === "ahead" || state === "left" ? "text-ink-2" : "font-semibold"}>
              {stageNames[id]}
              <span className="sr-only">{`, ${said[state]}`}</span>
            </p>
            <div className="text-sm text-ink-2 [overflow-wrap:anywhere]">
              {state === "ahead" ? null : <StageLine id={id} job={job} />}
            </div>
          </div>
        </li>
      ))}
    </ol>
  );
}
