import { Form, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/book";
import { chance } from "@core";
import { interventionKinds } from "~/db/schema";
import { guard, guardAction, isUuid, notFound } from "~/platform/guard.server";
import { fieldsOf } from "~/platform/validate";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { bookWork } from "./commands.server";
import { interventionLabels } from "./form";
import { partAgainstStop } from "./part";
import { bookingContext } from "./queries.server";

/** Chance of the limit before a stop from which another way should be looked for. */
const LIKELY = 0.5;

export const meta = () => [{ title: "Book work · Juncteral" }];

export const loader = guard("engineer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const point = search.get("point");
  const component = search.get("component");
  if (!isUuid(point) && !isUuid(component)) throw notFound("point");
  return { about: await bookingContext(isUuid(component) ? component : null, isUuid(point) ? point : null), kind: search.get("kind") ?? "replacement", submission: crypto.randomUUID() };
});

export const action = guardAction("engineer", async ({ request, user }) => {
  const saved = await bookWork(fieldsOf(await request.formData()), user.name);
  if (!saved.ok) return answerWith({ problems: saved.problems }, { status: saved.status });
  return redirect(`/work/${saved.id}`);
});

export default function Book({ loaderData: { about, kind, submission }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const usable = about.stops.find((s) => !partAgainstStop({ leadTimeDays: about.leadTimeDays, orderedOn: null, stopAt: s.at, now: site.now }).late) ?? about.stops[0];
  const tooLate = usable !== undefined && (usable.probability ?? 0) >= LIKELY;
  const title = !usable ? `${about.component}: no stop is planned yet` : tooLate ? `${about.component}: likely past its limit before the ${usable.name.toLowerCase()} on ${dayText(usable.at, site)}` : `${about.component}: the ${usable.name.toLowerCase()} on ${dayText(usable.at, site)} is the first that the part can make`;
  return (
    <div className="max-w-3xl">
      <PageHead crumbs={[{ label: "Work", to: "/work" }, { label: about.machine, to: `/fleet/machines/${about.machineId}` }, { label: about.component }]} title={title} />
      {about.verdict && about.state ? (
        <div className="mb-4 grid gap-3 border-y border-line py-3 sm:grid-cols-[minmax(0,1fr)_170px]"><p className="text-ink-2"><Verdict parts={about.verdict} /></p><div className="sm:text-right"><MarginRule margin={about.margin} state={about.state} /></div></div>
      ) : null}
      {tooLate && about.beforePart !== null ? <Notice tone="ochre" live={false}>A part ordered today is there on {dayText(about.partAt, site)}. A stop of its own then has {chance(about.beforePart)} of the limit being reached before.</Notice> : null}
      <Form method="post" noValidate>
        <input type="hidden" name="submission" value={submission} />
        <input type="hidden" name="componentId" value={about.componentId} />
        <input type="hidden" name="pointId" value={about.pointId ?? ""} />
        <FormProblemsProvider problems={actionData?.problems}>
          <Section title="At which stop?">
            <fieldset>
              <legend className="sr-only">Stop</legend>
              {about.stops.map((s) => {
                const part = partAgainstStop({ leadTimeDays: about.leadTimeDays, orderedOn: null, stopAt: s.at, now: site.now });
                const full = s.bookedHours >= s.crewHours;
                return (
                  <label key={s.id} className="ruled grid min-h-11 cursor-pointer grid-cols-[24px_minmax(0,1fr)] items-center gap-x-3 py-2 sm:grid-cols-[24px_minmax(0,1fr)_12rem_14rem]">
                    <input type="radio" name="stopId" value={s.id} defaultChecked={s.id === usable?.id} className="size-4 accent-sea" />
                    <span className="font-semibold">{s.name}, {dayText(s.at, site)}</span>
                    <span className={`max-sm:col-start-2 ${part.late ? "font-medium text-ochre" : "text-ink-2"}`}>{part.text}</span>
                    <span className="text-ink-2 max-sm:col-start-2">{s.probability === null ? "" : `${chance(s.probability).replace(/^an? /, "")} of the limit before · `}<span className={full ? "text-ochre" : ""}>{s.bookedHours} of {s.crewHours} h</span></span>
                  </label>
                );
              })}
              <label className="ruled grid min-h-11 cursor-pointer grid-cols-[24px_minmax(0,1fr)] items-center gap-x-3 py-2"><input type="radio" name="stopId" value="" defaultChecked={!usable} className="size-4 accent-sea" /><span>A stop of its own, not planned yet</span></label>
            </fieldset>
          </Section>
          <div className="grid gap-4 sm:grid-cols-3">
            <SelectField name="kind" label="What is to be done" defaultValue={kind} options={interventionKinds.map((value) => ({ value, label: interventionLabels[value] }))} />
            <TextField name="crewHours" label="Crew hours" defaultValue="8" inputMode="decimal" />
            <TextField name="partOrderedOn" label="Part ordered on" type="date" hint="Empty: not ordered yet" />
          </div>
          <div className="mt-4"><TextArea name="note" label="Why, and what to mind" maxLength={2000} hint="Confirm by load test before money is spent, where the maker's manual allows it." /></div>
          <div className="mt-4"><Button>Book it</Button></div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
