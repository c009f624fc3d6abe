import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/book";
import { chance } from "@core";
import { interventionKinds, interventionLabels } from "~/domain/bookings/index";
import { guard, guardAction, notFound, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { bookWork, bookingContext } from "~/domain/bookings/index.server";
import { AlternativesTable } from "./alternativesTable";
import { NoStopInTime } from "./noStopInTime";

export const meta = () => [{ title: "Book work · Juncteral" }];

export const loader = guard("engineer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const point = search.get("point");
  const component = search.get("component");
  if (!isUuid(point) && !isUuid(component)) throw notFound("point");
  return {
    about: await bookingContext(isUuid(component) ? component : null, isUuid(point) ? point : null),
    kind: search.get("kind") ?? "replacement",
    atOnce: search.get("now") === "1",
    interim: search.get("interim") === "1",
    origin: { kind: search.get("from") ?? "", id: search.get("of") ?? "" },
    submission: crypto.randomUUID(),
  };
});

export const action = guardAction("engineer", async ({ request, user }) => {
  const saved = await bookWork(await formFields(request), user);
  if (!saved.ok) return refused(saved);
  return redirect(`/work/${saved.id}`);
});

export default function Book({
  loaderData: { about, kind, atOnce, interim, origin, submission },
  actionData,
}: Route.ComponentProps) {
  const site = useSite();
  const proposed = about.stops.find((s) => s.id === about.proposed);
  const first = about.stops.find((s) => !s.part.late);
  const title = atOnce
    ? `${about.component}: to be done now`
    : about.beyond
      ? `${about.component}: beyond its limit now`
      : about.stops.length === 0
        ? `${about.component}: no stop is planned yet`
        : proposed
          ? `${about.component}: the ${proposed.name} on ${dayText(proposed.at, site)} is the first that the part can make`
          : !first
            ? `${about.component}: the part comes after every planned stop`
            : `${about.component}: likely past its limit before the ${first.name} on ${dayText(first.at, site)}`;
  return (
    <div className="max-w-3xl">
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: about.machine, to: `/fleet/machines/${about.machineId}` },
          { label: about.component },
        ]}
        title={title}
      />
      {about.verdict && about.state ? (
        <div className="mb-4 grid gap-3 border-y border-line py-3 sm:grid-cols-[minmax(0,1fr)_170px]">
          <p className="text-ink-2">
            <Verdict parts={about.verdict} />
          </p>
          <div className="sm:text-right">
            <MarginRule margin={about.margin} state={about.state} />
          </div>
        </div>
      ) : null}
      {!atOnce && about.leastBad !== null ? <NoStopInTime about={about} /> : null}
      {about.open.length > 0 ? (
        <Notice tone="ochre" live={false}>
          Booked already:{" "}
          {about.open.map((o) => (
            <Link key={o.id} to={`/work/${o.id}`} className="way mr-3">
              {o.kind}
              {o.stop ? `, ${o.stop}` : ""} ({o.by})
            </Link>
          ))}
        </Notice>
      ) : null}
      <AlternativesTable componentId={about.componentId} />
      <Form method="post" noValidate>
        <input type="hidden" name="submission" value={submission} />
        <input type="hidden" name="componentId" value={about.componentId} />
        <input type="hidden" name="pointId" value={about.pointId ?? ""} />
        <input type="hidden" name="origin" value={origin.kind} />
        <input type="hidden" name="originId" value={origin.id} />
        <FormProblemsProvider problems={actionData?.problems}>
          <Section title="At which stop?">
            <fieldset>
              <legend className="sr-only">Stop</legend>
              {actionData?.problems?.stopId ? (
                <p className="py-1 text-sm font-medium text-verm" role="alert">
                  {actionData.problems.stopId}
                </p>
              ) : null}
              {about.stops.map((s) => {
                const { part } = s;
                const full = s.bookedHours >= s.crewHours;
                return (
                  <label
                    key={s.id}
                    className={
                      "ruled grid min-h-11 cursor-pointer grid-cols-[24px_minmax(0,1fr)] items-center gap-x-3 py-2 " +
                      "sm:grid-cols-[24px_minmax(0,1fr)_12rem_14rem]"
                    }
                  >
                    <input
                      type="radio"
                      name="stopId"
                      value={s.id}
                      defaultChecked={!atOnce && s.id === about.proposed}
                      className="size-4 accent-sea"
                    />
                    <span className="font-semibold">
                      {s.name}, {dayText(s.at, site)}
                    </span>
                    <span className={`max-sm:col-start-2 ${part.late ? "font-medium text-ochre" : "text-ink-2"}`}>
                      {part.text}
                    </span>
                    <span className="text-ink-2 max-sm:col-start-2">
                      {s.probability === null || about.beyond
                        ? ""
                        : `${chance(s.probability).replace(/^an? /, "")} of the limit before · `}
                      <span
                        className={full ? "text-ochre" : ""}
                      >{`${s.bookedHours}\u00a0of\u00a0${s.crewHours}\u00a0h`}</span>
                    </span>
                  </label>
                );
              })}
              <label className="ruled grid min-h-11 cursor-pointer grid-cols-[24px_minmax(0,1fr)] items-center gap-x-3 py-2">
                <input
                  type="radio"
                  name="stopId"
                  value=""
                  defaultChecked={atOnce || about.stops.length === 0}
                  className="size-4 accent-sea"
                />
                <span>{atOnce ? "Now: it needs no stop" : "A stop of its own, not planned yet"}</span>
              </label>
            </fieldset>
          </Section>
          <div className="grid gap-4 sm:grid-cols-3">
            <SelectField
              name="kind"
              label="What is to be done"
              defaultValue={kind}
              options={interventionKinds.map((value) => ({ value, label: interventionLabels[value] }))}
            />
            <TextField name="crewHours" label="Crew hours" defaultValue="8" inputMode="decimal" />
            <TextField name="partOrderedOn" label="Part ordered on" type="date" hint="Empty: not ordered yet" />
          </div>
          <div className="mt-4">
            <TextArea
              name="note"
              label="Why, and what to mind"
              maxLength={2000}
              hint="Confirm by load test before money is spent, where the manufacturer's manual allows it."
            />
          </div>
          <div className="mt-3">
            <CheckField
              name="interim"
              label="A stop-gap: its cause stays open, to be looked at again"
              defaultChecked={interim}
            />
          </div>
          {about.open.length > 0 ? (
            <div className="mt-3">
              <CheckField name="again" label="Book another piece of work for this component" />
            </div>
          ) : null}
          <div className="mt-4">
            <Button>Book it</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
