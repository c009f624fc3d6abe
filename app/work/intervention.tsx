import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/intervention";
import { dayOf, dayStart, partAgainstStop } from "@core";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, localInput, useShow, useSite } from "~/ui/site";
import {
  changeWork,
  finishWork,
  bookingContext,
  interventionPage,
  type InterventionPage,
} from "~/domain/bookings/index.server";
import { acceptAltered, startRun } from "~/domain/runs/index.server";
import { addAddendum, checkWork, lookedAgain, signWork, writeUp } from "~/domain/record/index.server";
import { Verdict } from "~/ui/verdict";
import { AlternativesTable } from "./alternativesTable";
import { CarryOut } from "./carryOut";
import { Compared } from "./compared";
import { KeepWriteUp, Signing, WriteUp, WriteUpFields } from "./writeUp";
import { interventionLabels } from "~/domain/bookings/index";

export const meta = () => [{ title: "Work · Juncteral" }];

export const loader = guard("viewer", async ({ params, user }) => {
  const page = await interventionPage(idParam(params));
  const { work } = page;
  const open = !work.doneAt && !work.cancelledAt;
  const choices = open ? (await bookingContext(work.componentId, null)).stops : [];
  return {
    page,
    choices,
    open,
    me: user.id,
    submission: crypto.randomUUID(),
    mayFinish: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
  };
});

/** A technician carries work out, records it as done and checks it; planning and signing are for an engineer. */
export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const intent = fields.intent ?? "";
  if (["move", "order", "cancel", "sign", "accept"].includes(intent) && !mayAct(user.role, "engineer"))
    throw answerWith({ kind: "forbidden", needs: "engineer", has: user.role }, { status: 403 });
  switch (intent) {
    case "begin": {
      const begun = await startRun(id, fields, user);
      return begun.ok ? redirect(`/work/runs/${begun.id}`) : refused(begun, { intent });
    }
    case "finish": {
      const page = await interventionPage(id);
      const saved = await finishWork(id, page.timeZone, fields, user);
      return saved.ok ? redirect(`/work/${id}`) : refused(saved, { intent });
    }
    case "move":
    case "order":
    case "cancel": {
      const saved = await changeWork(id, fields, user);
      return saved.ok ? redirect(intent === "cancel" ? "/work" : `/work/${id}`) : refused(saved, { intent });
    }
    case "writeUp": {
      const saved = await writeUp(id, fields, user);
      return saved.ok ? { kept: true as const, problems: undefined } : refused(saved, { intent });
    }
    case "accept":
    case "sign":
    case "check":
    case "looked":
    case "addendum": {
      const done = {
        accept: acceptAltered,
        sign: signWork,
        check: () => checkWork(id, user),
        looked: lookedAgain,
        addendum: addAddendum,
      };
      const saved = await done[intent](id, fields, user);
      return saved.ok ? redirect(`/work/${id}`) : refused(saved, { intent });
    }
    default:
      throw notFound("action");
  }
});

const cautions = [
  "Isolate, lock and release stored pressure (accumulators and pressurised reservoirs too); prove zero at a gauge.",
  "Suspended loads are propped before a line is opened. Hot oil; eye protection; card, never the hand, to look for a leak.",
  "Torque, settings and limits come from the manufacturer's current manual; isolation and lifting follow local codes and are done by licensed people.",
  "Measure before washing, keep debris as evidence, plug every open line. Fill the case before the first start; the case drain stays open.",
];

export default function Intervention(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <InterventionScreen {...props} />
    </InZone>
  );
}

/** Where the work came from. */
function OriginLink({ work }: { work: Pick<InterventionPage["work"], "origin" | "originId"> }) {
  if (!work.originId) return null;
  const to = {
    "": null,
    fault: `/isolate/faults/${work.originId}`,
    isolation: `/isolate/${work.originId}`,
    plan: "/plan",
    debris: `/oil/debris/${work.originId}`,
    campaign: `/work/campaigns/${work.originId}`,
  }[work.origin];
  return to ? (
    <Link to={to} className="way">
      Where it came from
    </Link>
  ) : null;
}

function InterventionScreen({ loaderData, actionData }: Route.ComponentProps) {
  const { page, choices, open, me, submission, mayFinish, mayEdit } = loaderData;
  const problemsOf = (...intents: string[]) =>
    actionData && (!("intent" in actionData) || intents.includes(actionData.intent)) ? actionData.problems : undefined;
  const { work } = page;
  const site = useSite();
  const show = useShow();
  const part = partAgainstStop(
    { leadTimeDays: page.leadTimeDays, orderedOn: work.partOrderedOn, today: dayOf(site.now, page.timeZone) },
    page.startsOn,
  );
  const day = (text: string) => dayText(dayStart(text, page.timeZone), { ...site, timeZone: page.timeZone });
  const title = work.doneAt
    ? `${page.machine}, ${page.component}: done ${dayText(work.doneAt.getTime(), site)}`
    : work.cancelledAt
      ? `${page.machine}, ${page.component}: cancelled`
      : `${page.machine}, ${page.component}: ${page.startsOn ? `${page.stop!} on ${day(page.startsOn)}` : "no stop yet"}`;
  return (
    <div className="max-w-3xl">
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
          { label: page.component },
        ]}
        title={title}
      >
        <>
          {interventionLabels[work.kind]}, {work.crewHours} crew hours, booked by {work.bookedBy}
          {work.pointId ? (
            <>
              , because of{" "}
              <Link to={`/points/${work.pointId}`} className="way">
                this point
              </Link>
            </>
          ) : null}
          . {work.note}
        </>
        {work.condemnedBy.length > 0 ? (
          <span className="block">
            Condemned by: <Verdict parts={work.condemnedBy} />
          </span>
        ) : null}
        <span className="mt-1 flex flex-wrap gap-x-4">
          <OriginLink work={work} />
          {work.doneAt || page.runs.length > 0 ? (
            <Link to={`/work/${work.id}/record`} className="way">
              The record
            </Link>
          ) : null}
        </span>
      </PageHead>
      {work.doneAt ? (
        <>
          <Section title="Before beside after">
            {page.compared.length === 0 ? (
              <p className="py-2 text-ink-2">The component has no point: nothing to compare.</p>
            ) : (
              <Compared rows={page.compared} condemned={work.pointId} />
            )}
            {page.proven === null && !work.signedAt ? (
              <p className="mt-2 text-ink-2">
                Not proven yet: repeat the reading that condemned the part, at the same conditions.{" "}
                {work.pointId ? (
                  <Link to={`/points/${work.pointId}`} className="act">
                    Log it now
                  </Link>
                ) : null}
              </p>
            ) : null}
          </Section>
          <Section title="What was found and done">
            <p className="py-2 [overflow-wrap:anywhere]">{work.findings || "Nothing was noted."}</p>
            <p className="text-ink-2">
              <>
                By {work.doneBy} at {work.doneHours === null ? "unknown hours" : show(work.doneHours, "runningHours")}.
                {work.startedLifeId
                  ? ` A new life began${page.lifeSerial ? ` with part ${page.lifeSerial}` : ""}; its baseline is ` +
                    "provisional until 20 readings."
                  : ""}
              </>
            </p>
          </Section>
        </>
      ) : null}
      {problemsOf("begin")?.form ? <Notice tone="verm">{problemsOf("begin")!.form}</Notice> : null}
      {work.cancelledAt ? null : <CarryOut page={page} mayWork={mayFinish} submission={submission} />}
      {mayFinish && !work.signedAt && work.doneAt && !work.cancelledAt ? (
        <WriteUp page={page} problems={problemsOf("writeUp")} kept={actionData !== undefined && "kept" in actionData} />
      ) : null}
      {work.doneAt ? (
        <>
          {mayFinish ? (
            <Signing
              page={page}
              problems={problemsOf("accept", "sign", "check", "looked", "addendum")}
              maySign={mayEdit}
              submission={submission}
              me={me}
            />
          ) : null}
        </>
      ) : null}
      {open ? (
        <FormProblemsProvider problems={problemsOf("finish", "writeUp", "move", "order", "cancel")}>
          {work.kind !== "inspection" && page.fromSteps.doneAt === null ? (
            <p className={`mb-4 ${part.late ? "font-semibold text-ochre" : "text-ink-2"}`}>
              {part.late ? "◆ " : ""}
              {work.partOrderedOn ? `Part ordered ${day(work.partOrderedOn)}: ` : "Part not ordered: "}
              {part.text}.
            </p>
          ) : null}
          <AlternativesTable componentId={work.componentId} />
          {mayEdit ? (
            <Section title="Plan">
              <Form method="post" className="mt-3 flex flex-wrap items-end gap-3">
                <input type="hidden" name="version" value={work.version} />
                <div className="w-72">
                  <SelectField
                    name="stopId"
                    label="Stop"
                    defaultValue={work.stopId ?? ""}
                    options={[
                      { value: "", label: "a stop of its own" },
                      ...choices.map((s) => ({ value: s.id, label: `${s.name}, ${dayText(s.at, site)}` })),
                    ]}
                  />
                </div>
                <Button name="intent" value="move" tone="plain">
                  Move it there
                </Button>
                {work.partOrderedOn || work.kind === "inspection" ? null : (
                  <Button name="intent" value="order" tone="plain">
                    Part is ordered
                  </Button>
                )}
                <ConfirmButton
                  intent="cancel"
                  label="Cancel the work"
                  question="Cancel this work?"
                  explain="It leaves the stop. The record keeps that it was booked and cancelled."
                />
              </Form>
            </Section>
          ) : null}
          {mayFinish ? (
            <Section title="Record it as done">
              <Notice tone="ochre" live={false}>
                <ul className="list-disc pl-4">
                  {cautions.map((c) => (
                    <li key={c}>{c}</li>
                  ))}
                </ul>
              </Notice>
              <Form method="post" noValidate>
                <input type="hidden" name="version" value={work.version} />
                <div className="grid gap-4 sm:grid-cols-3">
                  <TextField
                    name="doneAt"
                    label="Done at"
                    type="datetime-local"
                    defaultValue={localInput(page.fromSteps.doneAt ?? site.now, page.timeZone)}
                    hint={work.kind === "replacement" ? "Readings from this moment on are the new part’s" : undefined}
                  />
                  <TextField
                    name="hours"
                    label="Running hours"
                    suffix="h"
                    inputMode="decimal"
                    defaultValue={page.fromSteps.hours ?? undefined}
                    hint={page.counter === null ? undefined : `Last noted: ${show(page.counter, "runningHours")}`}
                  />
                  {work.kind === "replacement" ? (
                    <TextField
                      name="serial"
                      label="Serial of the new part"
                      defaultValue={page.fromSteps.serial}
                      maxLength={60}
                    />
                  ) : null}
                </div>
                <div className="mt-4">
                  <TextArea name="findings" label="What was found, changed, measured" maxLength={2000} />
                </div>
                <h3 className="mt-5 mb-2">For the record, and for the next shift</h3>
                <WriteUpFields page={page} />
                <KeepWriteUp kept={actionData !== undefined && "kept" in actionData} />
                {work.kind === "replacement" ? null : (
                  <div className="mt-4">
                    <TextField
                      name="modification"
                      label="Changed for good (a modification): what, where it is one"
                      maxLength={500}
                      hint="Trends of the part begin anew from here."
                    />
                    <div className="mt-1">
                      <CheckField name="wholeCircuit" label="Trends of the whole circuit begin anew" />
                    </div>
                  </div>
                )}
                {mayEdit && problemsOf("finish")?.form ? (
                  <div className="mt-3">
                    <CheckField name="acceptAltered" label="I accept by name that it stays altered" />
                  </div>
                ) : null}
                {problemsOf("finish")?.hours ? (
                  <div className="mt-3">
                    <CheckField name="hoursRight" label="The hours are right all the same" />
                  </div>
                ) : null}
                <p className="my-3 text-sm text-ink-2">
                  {work.kind === "replacement"
                    ? "The life of the old part ends here and a new one begins, with a provisional baseline."
                    : "The life of the part goes on."}{" "}
                  Everything altered for the work must be put back before you sign.
                </p>
                <Button name="intent" value="finish">
                  Record it as done
                </Button>
              </Form>
            </Section>
          ) : null}
        </FormProblemsProvider>
      ) : null}
    </div>
  );
}
