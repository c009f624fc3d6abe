import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/intervention";
import { dayOf, dayStart, formatNumber, partAgainstStop, quantityOf } from "@core";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, localInput, useShow, useSite } from "~/ui/site";
import { changeWork, finishWork } from "~/domain/work/commands.server";
import { interventionLabels } from "~/domain/work/form";
import { bookingContext, interventionPage, type BeforeAfter } from "~/domain/work/queries.server";

export const meta = () => [{ title: "Work · Juncteral" }];

export const loader = guard("viewer", async ({ params, user }) => {
  const page = await interventionPage(idParam(params));
  const { work } = page;
  const open = !work.doneAt && !work.cancelledAt;
  const choices = open ? (await bookingContext(work.componentId, null)).stops : [];
  return { page, choices, open, mayFinish: mayAct(user.role, "technician"), mayEdit: mayAct(user.role, "engineer") };
});

/** A technician may record work as done; moving, ordering and cancelling is for an engineer. */
export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  if (fields.intent === "finish") {
    const page = await interventionPage(id);
    const saved = await finishWork(id, page.timeZone, fields, user);
    return saved.ok ? redirect(`/work/${id}`) : refused(saved);
  }
  if (!mayAct(user.role, "engineer"))
    throw answerWith({ kind: "forbidden", needs: "engineer", has: user.role }, { status: 403 });
  if (!["move", "order", "cancel"].includes(fields.intent ?? "")) throw notFound("action");
  const saved = await changeWork(id, fields, user);
  return saved.ok ? redirect(fields.intent === "cancel" ? "/work" : `/work/${id}`) : refused(saved);
});

function Compared({ rows }: { rows: readonly BeforeAfter[] }) {
  const show = useShow();
  const value = (r: BeforeAfter, side: BeforeAfter["before"]) =>
    side === null
      ? "not measured"
      : `${show(side.value, r.quantity, { unit: r.unit })}${r.fullFlow && r.reference ? ` (${formatNumber((side.value / r.fullFlow) * 100, 1)} %)` : ""}`;
  return (
    <div className="overflow-x-auto">
      <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
        <thead>
          <tr className="ruled">
            <th scope="col">point</th>
            <th scope="col" className="text-right">
              before
            </th>
            <th scope="col" className="text-right">
              after
            </th>
            <th scope="col">compared at</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.pointId} className="ruled">
              <td>
                <Link to={`/points/${r.pointId}`} className="hover:underline">
                  {r.name}
                </Link>
              </td>
              <td className="text-right whitespace-nowrap">{value(r, r.before)}</td>
              <td className="text-right font-semibold whitespace-nowrap">{value(r, r.after)}</td>
              <td className="text-sm text-ink-2">
                {r.reference ? show(r.reference.temperature, "oilTemperature") : ""}
                {r.reference && quantityOf(r.quantity).correction === "leakage"
                  ? `, ${show(r.reference.pressure, "loadPressure")}`
                  : ""}
                {r.reference ? "; " : ""}
                median of {r.before?.readings ?? 0} and {r.after?.readings ?? 0} readings
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

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

function InterventionScreen({ loaderData, actionData }: Route.ComponentProps) {
  const { page, choices, open, mayFinish, mayEdit } = loaderData;
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
      : `${page.machine}, ${page.component}: ${page.startsOn ? `${page.stop!.toLowerCase()} on ${day(page.startsOn)}` : "no stop yet"}`;
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
      </PageHead>
      {work.doneAt ? (
        <>
          <Section title="Before beside after">
            {page.compared.length === 0 ? (
              <p className="py-2 text-ink-2">The component has no point: nothing to compare.</p>
            ) : (
              <Compared rows={page.compared} />
            )}
            {page.compared.some((r) => r.after === null) ? (
              <p className="mt-2 text-ink-2">
                Not proved yet: repeat the reading that condemned the part, at the same conditions.{" "}
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
              By {work.doneBy} at {work.doneHours === null ? "unknown hours" : show(work.doneHours, "runningHours")}.
              {work.startedLifeId
                ? ` A new life began${page.lifeSerial ? ` with part ${page.lifeSerial}` : ""}; its baseline is provisional until 20 readings.`
                : ""}
            </p>
          </Section>
        </>
      ) : null}
      {open ? (
        <FormProblemsProvider problems={actionData?.problems}>
          {work.kind !== "inspection" ? (
            <p className={`mb-4 ${part.late ? "font-semibold text-ochre" : "text-ink-2"}`}>
              {part.late ? "◆ " : ""}
              {work.partOrderedOn ? `Part ordered ${day(work.partOrderedOn)}: ` : "Part not ordered: "}
              {part.text}.
            </p>
          ) : null}
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
            <Section title="Carry it out">
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
                    defaultValue={localInput(site.now, page.timeZone)}
                  />
                  <TextField
                    name="hours"
                    label="Running hours"
                    suffix="h"
                    inputMode="decimal"
                    hint={page.counter === null ? undefined : `Last noted: ${show(page.counter, "runningHours")}`}
                  />
                  {work.kind === "replacement" ? (
                    <TextField name="serial" label="Serial of the new part" maxLength={60} />
                  ) : null}
                </div>
                <div className="mt-4">
                  <TextArea name="findings" label="What was found, changed, measured" maxLength={2000} />
                </div>
                {actionData?.problems?.hours ? (
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
