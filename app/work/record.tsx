import { Link } from "react-router";
import type { Route } from "./+types/record";
import { answerText } from "@core";
import { recordPage } from "~/domain/record/index.server";
import { interventionLabels } from "~/domain/bookings/index";
import { guard, idParam } from "~/platform/guard.server";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, momentText, useShow, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { Compared } from "./compared";
import { FindingText, Withdrawn } from "./findingText";
import { PhotoStrip } from "./photo";
import { whoOf } from "./who";

export const meta = () => [{ title: "Record of work · Juncteral" }];

export const loader = guard("viewer", async ({ params }) => ({ record: await recordPage(idParam(params)) }));

export default function Record(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.record.timeZone} years>
      <RecordPage record={props.loaderData.record} />
    </InZone>
  );
}

type Whole = Route.ComponentProps["loaderData"]["record"];

function Pair({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="ruled grid gap-x-4 py-1.5 sm:grid-cols-[11rem_minmax(0,1fr)] print:grid-cols-[11rem_minmax(0,1fr)]">
      <dt className="text-ink-2">{name}</dt>
      <dd className="min-w-0 [overflow-wrap:anywhere] whitespace-pre-line">{children}</dd>
    </div>
  );
}

function RecordPage({ record }: { record: Whole }) {
  const site = useSite();
  const show = useShow();
  const { work } = record;
  const loose = record.photos.filter((p) => !p.step && !p.findingId);
  const skipped = record.runs.flatMap((r) =>
    r.stand.steps.filter((s) => s.step.hold && s.state === "skipped").map((s) => ({ run: r, s })),
  );
  return (
    <div className="report max-w-4xl">
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: `${record.machine}, ${record.component}`, to: `/work/${work.id}` },
          { label: "Record" },
        ]}
        title={`${record.machine}, ${record.component}: ${interventionLabels[work.kind].toLowerCase()}`}
      >
        {record.site}, {record.circuit}
        {record.componentTag ? `, ${record.componentTag}` : ""}.{" "}
        {work.signedAt ? (
          <strong className="text-ink">
            {`Signed ${momentText(work.signedAt.getTime(), site)} by`} {work.signedBy}
          </strong>
        ) : (
          <strong className="text-ochre">Not signed: still open to changes</strong>
        )}
        <span className="mt-1 flex gap-x-4 print:hidden">
          <button type="button" className="way" onClick={() => window.print()}>
            Print, or keep as PDF
          </button>
          <a href={`/work/${work.id}/record.json`} className="way" download>
            The same as JSON
          </a>
        </span>
      </PageHead>
      {skipped.length > 0 ? (
        <div className="mb-4 border-l-4 border-verm bg-verm-soft px-3 py-2">
          <strong>Hold points that were skipped</strong>
          <ul>
            {skipped.map(({ run, s }) => (
              <li key={run.id + s.step.id}>
                {s.step.text} {whoOf(s.entry!)}, {momentText(s.entry!.at, site)}: {s.entry!.reason}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <Section title="Why">
        <dl>
          {work.condemnedBy.length > 0 ? (
            <Pair name="Condemned by">
              {record.point ? `${record.point}: ` : ""}
              <Verdict parts={work.condemnedBy} />
            </Pair>
          ) : null}
          {work.note ? <Pair name="Booked">{`${work.note} (${work.bookedBy})`}</Pair> : null}
          <Pair name="Stop">{record.stop ?? "a stop of its own"}</Pair>
          {work.doneAt ? (
            <Pair name="Done">
              <>
                {momentText(work.doneAt.getTime(), site)} by {work.doneBy}
                {work.doneHours === null ? "" : `, at ${show(work.doneHours, "runningHours")}`}
              </>
            </Pair>
          ) : (
            <Pair name="Done">not yet</Pair>
          )}
          {work.people ? <Pair name="People">{work.people}</Pair> : null}
          {work.startedLifeId ? (
            <Pair name="Part">
              {`${record.oldSerial || "no serial"} out, ${record.newSerial || "no serial"} in${record.model ? ` (${record.model})` : ""}`}
            </Pair>
          ) : null}
          {work.parts ? <Pair name="Parts used">{work.parts}</Pair> : null}
          {work.modification ? <Pair name="Modification">{work.modification}</Pair> : null}
        </dl>
      </Section>
      <Section title="What was found">
        {work.findings ? <p className="py-2 whitespace-pre-line">{work.findings}</p> : null}
        <ul>
          {record.findings.map((f) => (
            <li key={f.id} className="ruled break-inside-avoid py-1.5">
              <FindingText kind={f.kind} values={f.values} withdrawn={f.withdrawn !== null} />
              <span className="text-sm text-ink-2">
                {" "}
                {whoOf(f)}, {momentText(f.at, site)}
              </span>
              {f.withdrawn ? <Withdrawn withdrawn={f.withdrawn} /> : null}
              <PhotoStrip photos={record.photos.filter((p) => p.findingId === f.id)} />
            </li>
          ))}
        </ul>
        {!work.findings && record.findings.length === 0 ? (
          <p className="py-2 text-ink-2">Nothing was written down.</p>
        ) : null}
        <PhotoStrip photos={loose} />
      </Section>
      {record.runs.map((r) => (
        <Section
          key={r.id}
          title={r.procedure.title}
          aside={
            `${r.version > 0 ? `the plant’s version ${r.version}` : "as it ships"}, begun ${momentText(r.startedAt, site)}` +
            ` by ${r.startedBy}`
          }
        >
          <ol>
            {r.stand.steps.map((s, i) => (
              <li key={s.step.id} className="ruled break-inside-avoid py-1">
                <span className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4">
                  <span>
                    {i + 1}. {s.step.hold ? <strong>HOLD </strong> : null}
                    {s.step.text}
                    {s.entry && answerText(s.step.ask, s.entry.values) ? (
                      <strong className="font-semibold"> {answerText(s.step.ask, s.entry.values)}</strong>
                    ) : null}
                    {s.state === "skipped" ? (
                      <strong className="text-verm"> {`Skipped: ${s.entry!.reason}`}</strong>
                    ) : null}
                  </span>
                  <span className="text-right text-sm text-ink-2">
                    {s.entry ? `${whoOf(s.entry)}, ${momentText(s.entry.at, site)}` : "open"}
                    {s.released ? `; released by ${s.released.by}` : ""}
                  </span>
                </span>
                {r.entries
                  .filter((e) => e.step === s.step.id && e.kind === "reopened")
                  .map((e) => (
                    <span key={e.submission} className="block text-sm text-ink-2">
                      {`Taken back by ${whoOf(e)}, ${momentText(e.at, site)}: ${e.reason}`}
                    </span>
                  ))}
                <PhotoStrip photos={record.photos.filter((p) => p.step === s.step.id)} />
              </li>
            ))}
          </ol>
        </Section>
      ))}
      <Section title="Proof">
        {record.compared.length === 0 ? (
          <p className="py-2 text-ink-2">No point to compare.</p>
        ) : (
          <Compared rows={record.compared} condemned={work.pointId} />
        )}
        {work.unprovenBecause ? (
          <p className="py-2 text-ochre">{`Signed without proof: ${work.unprovenBecause} (${work.signedBy ?? ""})`}</p>
        ) : null}
      </Section>
      <Section title="As left">
        <dl>
          <Pair name="Settings">{work.settingsLeft || "not written down"}</Pair>
          <Pair name="Open points">{work.openPoints || "none"}</Pair>
          {record.accepted.length > 0 ? (
            <Pair name="Left altered">
              <ul>
                {record.accepted.map((a) => (
                  <li key={a.what}>
                    {`${a.what}: accepted by ${a.by}, ${momentText(a.at, site)}`}
                    {a.putBackAt === null ? null : `; put back by ${a.putBackBy}, ${momentText(a.putBackAt, site)}`}
                  </li>
                ))}
              </ul>
            </Pair>
          ) : null}
          {work.interim ? (
            <Pair name="Stop-gap">
              {work.lookedAgainAt
                ? `closed by ${work.lookedAgainBy}, ${momentText(work.lookedAgainAt.getTime(), site)}`
                : `its cause stays open; look again on ${work.lookAgainOn ? dayText(Date.parse(`${work.lookAgainOn}T12:00:00Z`), site) : "no day named"}`}
            </Pair>
          ) : null}
        </dl>
      </Section>
      {record.addenda.length > 0 ? (
        <Section title="Additions after signing">
          <ul>
            {record.addenda.map((a) => (
              <li key={a.id} className="ruled py-1.5 whitespace-pre-line">
                {a.text}
                <span className="text-sm text-ink-2">
                  {" "}
                  {a.by}, {momentText(a.at, site)}
                </span>
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      <Section title="Signatures">
        <dl>
          <Pair name="Signed">
            {work.signedAt ? `${work.signedBy}, ${momentText(work.signedAt.getTime(), site)}` : "open"}
          </Pair>
          {record.twoSignatures || work.checkedAt ? (
            <Pair name="Checked">
              {work.checkedAt ? `${work.checkedBy}, ${momentText(work.checkedAt.getTime(), site)}` : "open"}
            </Pair>
          ) : null}
        </dl>
      </Section>
      <p className="text-sm text-ink-2">
        Torques, settings and limits come from the manufacturer’s current document, named above where it was noted.{" "}
        <Link to={`/work/${work.id}`} className="way print:hidden">
          To the work
        </Link>
      </p>
    </div>
  );
}
