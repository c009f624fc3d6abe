/** Procedures of a piece of work: those under way, and those that fit it. */
import { Form, Link } from "react-router";
import type { InterventionPage } from "~/domain/bookings/index.server";
import { Button } from "~/ui/form";
import { Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { counted } from "~/ui/counted";

export function CarryOut({
  page,
  mayWork,
  submission,
}: {
  page: InterventionPage;
  mayWork: boolean;
  submission: string;
}) {
  const site = useSite();
  const { work, runs, procedures, findings, debris } = page;
  const open = !work.signedAt && !work.cancelledAt;
  const begun = new Set(runs.map((r) => r.procedure.id));
  const offered = procedures.filter((p) => !begun.has(p.id));
  return (
    <Section
      title="Procedures"
      aside={
        <Link to="/work/procedures" className="way">
          All procedures
        </Link>
      }
    >
      {runs.length === 0 ? (
        <p className="py-2 text-ink-2">
          None is begun. A procedure leads step by step, and the record is made while it is done.
        </p>
      ) : (
        <ul>
          {runs.map((r) => (
            <li key={r.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
              <span className="min-w-0">
                <span className="font-semibold">{r.procedure.title}</span>
                <span className="block text-sm text-ink-2">
                  <>
                    {r.stand.closed} of {r.stand.steps.length} steps; begun {momentText(r.startedAt, site)} by{" "}
                    {r.startedBy}
                    {r.version > 0 ? `, the plant’s version ${r.version}` : ""}
                    {r.stand.skippedHolds.length > 0 ? (
                      <strong className="text-verm">
                        {" "}
                        {`${r.stand.skippedHolds.length} hold point${r.stand.skippedHolds.length > 1 ? "s" : ""} skipped`}
                      </strong>
                    ) : null}
                    {r.stand.next !== null && r.stand.held
                      ? `; stands at the hold point “${r.stand.steps.find((s) => s.step.id === r.stand.held)!.step.text}”`
                      : ""}
                  </>
                </span>
              </span>
              {mayWork ? (
                <Link to={`/work/runs/${r.id}`} reloadDocument className="act">
                  {r.stand.next === null || !open ? "See the steps" : "Go on with it"}
                </Link>
              ) : null}
            </li>
          ))}
        </ul>
      )}
      {findings.length > 0 ? (
        <p className="py-2 text-ink-2">
          {`${counted(findings.length, "finding")} written down on opening.`}{" "}
          {debris ? (
            debris.eventId ? (
              <Link to={`/oil/debris/${debris.eventId}`} className="way">
                The debris event of this circuit
              </Link>
            ) : mayWork ? (
              <Link
                to={`/oil/${page.circuitId}/debris?${new URLSearchParams({ what: debris.what, part: work.componentId })}`}
                className="act"
              >
                Debris was found: open a debris event
              </Link>
            ) : null
          ) : null}
        </p>
      ) : null}
      {open && mayWork ? (
        offered.length > 0 ? (
          <Form method="post" className="mt-2 flex flex-wrap items-end gap-3">
            <input type="hidden" name="submission" value={submission} />
            <label className="min-w-0 grow text-sm text-ink-2">
              Begin with
              <select
                name="procedure"
                className="mt-0.5 block min-h-11 w-full rounded-[3px] border border-line-2 bg-sheet px-3 text-ink"
              >
                {offered.map((p) => (
                  <option key={p.copyId ?? p.id} value={p.copyId ?? p.id}>
                    {p.title}
                    {p.copyId ? ` (${p.machine ?? "the plant’s own"}, version ${p.version})` : ""}
                  </option>
                ))}
              </select>
            </label>
            <Button name="intent" value="begin" tone="plain">
              Begin it
            </Button>
          </Form>
        ) : (
          <p className="py-2 text-ink-2">No procedure is written for this kind of part.</p>
        )
      ) : null}
    </Section>
  );
}
