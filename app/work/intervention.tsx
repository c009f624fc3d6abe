import { Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/intervention";
import { dayOf, dayStart, partAgainstStop } from "@core";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { FormProblemsProvider, Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, useShow, useSite } from "~/ui/site";
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
import { Signing, WriteUp } from "./writeUp";
import { interventionLabels } from "~/domain/bookings/index";
import { BeforeAfter, MoveWork, RecordDone } from "./interventionParts";

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
    job: `/jobs/${work.originId}`,
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
          {page.job ? (
            <Link to={`/jobs/${page.job.id}`} className="way">
              {`Job ${page.job.number}`}
            </Link>
          ) : null}
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
          <BeforeAfter page={page} />
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
          {mayEdit ? <MoveWork page={page} choices={choices} /> : null}
          {mayFinish ? (
            <RecordDone
              page={page}
              mayEdit={mayEdit}
              problems={problemsOf("finish")}
              kept={actionData !== undefined && "kept" in actionData}
            />
          ) : null}
        </FormProblemsProvider>
      ) : null}
    </div>
  );
}
