/** Procedures of a piece of work: those under way, and those that fit it. */
import { Form, Link } from "react-router";
import type { InterventionPage } from "~/domain/work/queries.server";
import { Button } from "~/ui/form";
import { Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { carryOut as texts } from "./texts";

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
      title={texts.procedures}
      aside={
        <Link to="/work/procedures" className="way">
          {texts.allProcedures}
        </Link>
      }
    >
      {runs.length === 0 ? (
        <p className="py-2 text-ink-2">{texts.noneIsBegunA}</p>
      ) : (
        <ul>
          {runs.map((r) => (
            <li key={r.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
              <span className="min-w-0">
                <span className="font-semibold">{r.procedure.title}</span>
                <span className="block text-sm text-ink-2">
                  {texts.ofStepsBegunBy(
                    r.stand.closed,
                    r.stand.steps.length,
                    momentText(r.startedAt, site),
                    r.startedBy,
                    r.version > 0 ? texts.thePlantVersion(r.version) : "",
                    r.stand.skippedHolds.length > 0 ? (
                      <strong className="text-verm"> {texts.holdPointSkipped(r.stand.skippedHolds.length)}</strong>
                    ) : null,
                    r.stand.next !== null && r.stand.held
                      ? texts.standsAtTheHold(r.stand.steps.find((s) => s.step.id === r.stand.held)!.step.text)
                      : "",
                  )}
                </span>
              </span>
              {mayWork ? (
                <Link to={`/work/runs/${r.id}`} reloadDocument className="act">
                  {r.stand.next === null || !open ? texts.seeTheSteps : texts.goOnWithIt}
                </Link>
              ) : null}
            </li>
          ))}
        </ul>
      )}
      {findings.length > 0 ? (
        <p className="py-2 text-ink-2">
          {texts.findingWrittenDownOn(findings.length)}{" "}
          {debris ? (
            debris.eventId ? (
              <Link to={`/oil/debris/${debris.eventId}`} className="way">
                {texts.theDebrisEventOf}
              </Link>
            ) : mayWork ? (
              <Link
                to={`/oil/${page.circuitId}/debris?${new URLSearchParams({ what: debris.what, part: work.componentId })}`}
                className="act"
              >
                {texts.debrisWasFoundOpen}
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
              {texts.beginWith}
              <select
                name="procedure"
                className="mt-0.5 block min-h-11 w-full rounded-[3px] border border-line-2 bg-sheet px-3 text-ink"
              >
                {offered.map((p) => (
                  <option key={p.copyId ?? p.id} value={p.copyId ?? p.id}>
                    {p.title}
                    {p.copyId ? texts.version(p.machine ?? texts.thePlantOwn, p.version) : ""}
                  </option>
                ))}
              </select>
            </label>
            <Button name="intent" value="begin" tone="plain">
              {texts.beginIt}
            </Button>
          </Form>
        ) : (
          <p className="py-2 text-ink-2">{texts.noProcedureIsWritten}</p>
        )
      ) : null}
    </Section>
  );
}
