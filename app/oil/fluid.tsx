import { Link, redirect } from "react-router";
import type { Route } from "./+types/fluid";
import { DAY, fluidTypes, formatNumber } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Notice } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { noteOilEvent, withdrawOilEvent, circuitPlace, fluidPage } from "~/domain/oil/index.server";
import { counted } from "~/ui/counted";
import { FluidEvents, NoteFluid } from "./fluidEvents";
import { Suitability, ViscosityChanges } from "./fluidParts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Fluid of ${loaderData?.page.machine ?? "a circuit"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user, request }) => {
  const search = new URL(request.url).searchParams;
  const page = await fluidPage(idParam(params), { all: search.get("all") === "1" });
  return {
    page,
    circuitId: page.circuitId,
    mayLog: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
    submission: crypto.randomUUID(),
    said: search.get("said"),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const place = await circuitPlace(id);
  const fields = await formFields(request);
  if (fields.intent === "withdraw") {
    const done = await withdrawOilEvent(id, fields, user);
    return done.ok
      ? redirect(`/oil/${id}/fluid?said=withdrawn`)
      : refused(done, { warning: null, event: fields.event ?? null });
  }
  const done = await noteOilEvent(id, fields, user, place.timeZone);
  return done.ok
    ? redirect(`/oil/${id}/fluid?said=noted`)
    : refused(done, { warning: done.warning ?? null, event: null });
});

export default function Fluid({
  loaderData: { page, mayLog, mayEdit, submission, said },
  actionData,
}: Route.ComponentProps) {
  const site = useSite();
  const answer = actionData && "warning" in actionData ? actionData : undefined;
  const problems = answer && answer.event === null ? answer.problems : undefined;
  const { fill } = page;
  const due = page.detail?.age?.dueAt ?? null;
  const age = fill ? (page.now - fill.at) / DAY : null;
  const off = page.detail?.viscosityOff ?? null;
  const title = !page.fluid
    ? `${page.machine}: no fluid stated`
    : off !== null && Math.abs(off) >= 0.1
      ? `${page.machine}: its oil is ${Math.round(Math.abs(off) * 100)} % ${off < 0 ? "thinner" : "thicker"}` +
        ` than ${page.fluid.name}`
      : `${page.machine}: ${page.fluid.name}${fill ? `, in since ${dayText(fill.at, site)}` : ""}`;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Oil", to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: "Fluid" },
        ]}
        title={title}
      >
        {page.fluid
          ? `${fluidTypes[page.fluid.type].replace(/^./, (c) => c.toUpperCase())}, ${page.fluid.kv40} mm²/s at ` +
            `40 °C and ${page.fluid.kv100} at 100 °C as stated. `
          : ""}
        {page.fluid && mayEdit ? (
          <>
            <Link to={`/fleet/edit/fluid/${page.fluid.id}`} className="way">
              Its figures
            </Link>
            .{" "}
          </>
        ) : null}
        {fill && age !== null
          ? `${counted(Math.round(age), "day")}, about ` +
            `${formatNumber(page.detail?.age?.hours ?? age * page.hoursPerDay, 0)} running hours old; ` +
            `${formatNumber(fill.toppedUp, 0)} L topped up ` +
            `since${page.volume ? ` (${Math.round((fill.toppedUp / page.volume) * 100)} % of ${page.volume} L)` : ""}. ` +
            (due === null
              ? "No maximum drain interval is stated: samples alone decide when to change it."
              : `Its maximum drain interval ${due < page.now ? "passed" : "ends about"} ${dayText(due, site)}; ` +
                "samples may end it sooner.")
          : "No fill is on record: note the last one, so that samples and hours have a beginning."}
      </PageHead>
      {said === "noted" ? (
        <Notice>Noted.</Notice>
      ) : said === "withdrawn" ? (
        <Notice>Withdrawn: it stays on record and counts no more.</Notice>
      ) : null}
      {page.mixed ? (
        <Notice tone="verm" live={false}>
          {page.mixed}
        </Notice>
      ) : null}
      {page.overdue.map((e) => (
        <Notice key={e.id} tone="ochre" live={false}>
          {e.fluid} {`was a stop-gap and was to be changed back by ${e.by}.`}
        </Notice>
      ))}
      <div className="grid gap-x-8 xl:grid-cols-[minmax(0,1fr)_300px]">
        <div className="min-w-0">
          <ViscosityChanges page={page} />
          <Suitability page={page} />
          <FluidEvents page={page} mayLog={mayLog} answer={answer} />
        </div>
        {mayLog ? (
          <NoteFluid page={page} submission={submission} problems={problems} warning={answer?.warning} />
        ) : null}
      </div>
    </>
  );
}
