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
import { changeWork, finishWork } from "~/domain/work/commands.server";
import { acceptAltered } from "~/domain/work/altered.server";
import { startRun } from "~/domain/work/run.server";
import { addAddendum, checkWork, lookedAgain, signWork, writeUp } from "~/domain/work/sign.server";
import { Verdict } from "~/ui/verdict";
import { AlternativesTable } from "./alternativesTable";
import { CarryOut } from "./carryOut";
import { Compared } from "./compared";
import { KeepWriteUp, Signing, WriteUp, WriteUpFields } from "./writeUp";
import { interventionLabels } from "~/domain/work/form";
import { bookingContext, interventionPage, type InterventionPage } from "~/domain/work/queries.server";
import { intervention as texts } from "./texts";

export const meta = () => [{ title: texts.workJuncteral }];

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
  texts.isolateLockAndRelease,
  texts.suspendedLoadsArePropped,
  texts.torqueSettingsAndLimits,
  texts.measureBeforeWashingKeep,
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
      {texts.whereItCameFrom}
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
    ? texts.done(page.machine, page.component, dayText(work.doneAt.getTime(), site))
    : work.cancelledAt
      ? texts.cancelled(page.machine, page.component)
      : `${page.machine}, ${page.component}: ${page.startsOn ? texts.on(page.stop!, day(page.startsOn)) : texts.noStopYet}`;
  return (
    <div className="max-w-3xl">
      <PageHead
        crumbs={[
          { label: texts.work, to: "/work" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
          { label: page.component },
        ]}
        title={title}
      >
        {texts.crewHoursBookedBy(
          interventionLabels[work.kind],
          work.crewHours,
          work.bookedBy,
          work.pointId ? (
            <>
              {texts.becauseOf}{" "}
              <Link to={`/points/${work.pointId}`} className="way">
                {texts.thisPoint}
              </Link>
            </>
          ) : null,
          work.note,
        )}
        {work.condemnedBy.length > 0 ? (
          <span className="block">
            {texts.condemnedBy} <Verdict parts={work.condemnedBy} />
          </span>
        ) : null}
        <span className="mt-1 flex flex-wrap gap-x-4">
          <OriginLink work={work} />
          {work.doneAt || page.runs.length > 0 ? (
            <Link to={`/work/${work.id}/record`} className="way">
              {texts.theRecord}
            </Link>
          ) : null}
        </span>
      </PageHead>
      {work.doneAt ? (
        <>
          <Section title={texts.beforeBesideAfter}>
            {page.compared.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.theComponentHasNo}</p>
            ) : (
              <Compared rows={page.compared} condemned={work.pointId} />
            )}
            {page.proven === null && !work.signedAt ? (
              <p className="mt-2 text-ink-2">
                {texts.notProvenYetRepeat}{" "}
                {work.pointId ? (
                  <Link to={`/points/${work.pointId}`} className="act">
                    {texts.logItNow}
                  </Link>
                ) : null}
              </p>
            ) : null}
          </Section>
          <Section title={texts.whatWasFoundAnd}>
            <p className="py-2 [overflow-wrap:anywhere]">{work.findings || texts.nothingWasNoted}</p>
            <p className="text-ink-2">
              {texts.byAt(
                work.doneBy,
                work.doneHours === null ? texts.unknownHours : show(work.doneHours, "runningHours"),
                work.startedLifeId ? texts.aNewLifeBegan(page.lifeSerial ? texts.withPart(page.lifeSerial) : "") : "",
              )}
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
              {work.partOrderedOn ? texts.partOrdered(day(work.partOrderedOn)) : texts.partNotOrdered}
              {part.text}.
            </p>
          ) : null}
          <AlternativesTable componentId={work.componentId} />
          {mayEdit ? (
            <Section title={texts.plan}>
              <Form method="post" className="mt-3 flex flex-wrap items-end gap-3">
                <input type="hidden" name="version" value={work.version} />
                <div className="w-72">
                  <SelectField
                    name="stopId"
                    label={texts.stop}
                    defaultValue={work.stopId ?? ""}
                    options={[
                      { value: "", label: texts.aStopOfIts },
                      ...choices.map((s) => ({ value: s.id, label: `${s.name}, ${dayText(s.at, site)}` })),
                    ]}
                  />
                </div>
                <Button name="intent" value="move" tone="plain">
                  {texts.moveItThere}
                </Button>
                {work.partOrderedOn || work.kind === "inspection" ? null : (
                  <Button name="intent" value="order" tone="plain">
                    {texts.partIsOrdered}
                  </Button>
                )}
                <ConfirmButton
                  intent="cancel"
                  label={texts.cancelTheWork}
                  question={texts.cancelThisWork}
                  explain={texts.itLeavesTheStop}
                />
              </Form>
            </Section>
          ) : null}
          {mayFinish ? (
            <Section title={texts.recordItAsDone}>
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
                    label={texts.doneAt}
                    type="datetime-local"
                    defaultValue={localInput(page.fromSteps.doneAt ?? site.now, page.timeZone)}
                    hint={work.kind === "replacement" ? texts.readingsFromThisMoment : undefined}
                  />
                  <TextField
                    name="hours"
                    label={texts.runningHours}
                    suffix="h"
                    inputMode="decimal"
                    hint={page.counter === null ? undefined : texts.lastNoted(show(page.counter, "runningHours"))}
                  />
                  {work.kind === "replacement" ? (
                    <TextField
                      name="serial"
                      label={texts.serialOfTheNew}
                      defaultValue={page.fromSteps.serial}
                      maxLength={60}
                    />
                  ) : null}
                </div>
                <div className="mt-4">
                  <TextArea name="findings" label={texts.whatWasFoundChanged} maxLength={2000} />
                </div>
                <h3 className="mt-5 mb-2">{texts.forTheRecord}</h3>
                <WriteUpFields page={page} />
                <KeepWriteUp kept={actionData !== undefined && "kept" in actionData} />
                {work.kind === "replacement" ? null : (
                  <div className="mt-4">
                    <TextField
                      name="modification"
                      label={texts.changedForGoodA}
                      maxLength={500}
                      hint={texts.trendsOfThePart}
                    />
                    <div className="mt-1">
                      <CheckField name="wholeCircuit" label={texts.trendsOfTheWhole} />
                    </div>
                  </div>
                )}
                {mayEdit && problemsOf("finish")?.form ? (
                  <div className="mt-3">
                    <CheckField name="acceptAltered" label={texts.iAcceptByName} />
                  </div>
                ) : null}
                {problemsOf("finish")?.hours ? (
                  <div className="mt-3">
                    <CheckField name="hoursRight" label={texts.theHoursAreRight} />
                  </div>
                ) : null}
                <p className="my-3 text-sm text-ink-2">
                  {texts.everythingAlteredForThe(
                    work.kind === "replacement" ? texts.theLifeOfThe : texts.theLifeOfThePart,
                  )}
                </p>
                <Button name="intent" value="finish">
                  {texts.recordItAsDone}
                </Button>
              </Form>
            </Section>
          ) : null}
        </FormProblemsProvider>
      ) : null}
    </div>
  );
}
