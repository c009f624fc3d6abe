import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/fluid";
import { DAY, decimalsFor, fluidTypes, formatNumber, lowerFirst } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, localInput, useShow, useSite } from "~/ui/site";
import { noteOilEvent, withdrawOilEvent } from "~/domain/oil/fills.server";
import { circuitPlace } from "~/domain/oil/place.server";
import { fluidPage } from "~/domain/oil/fluidPage.server";
import { fluid as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.fluidOfJuncteral(loaderData?.page.machine ?? texts.aCircuit) },
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

const kinds = {
  fill: texts.firstFill,
  change: texts.oilChanged,
  topUp: texts.toppedUp,
  drained: texts.drainedOrLost,
  level: "Level",
} as const;
const kindOptions = (["topUp", "change", "fill", "drained", "level"] as const).map((value) => ({
  value,
  label: kinds[value],
}));
const verdictTone = { good: "text-ink", outsideBest: "text-ochre", bad: "text-verm" } as const;

/** A wrong entry, taken back with its reason. */
function Withdraw({
  event,
  problems,
}: {
  event: { id: string; kind: keyof typeof kinds };
  problems: Record<string, string> | undefined;
}) {
  return (
    <details className="inline-block max-w-full align-top" open={problems ? true : undefined}>
      <summary className="-my-2 cursor-pointer p-2 text-ink-2 max-lg:-my-3 max-lg:py-3">{texts.isItWrong}</summary>
      <Form
        method="post"
        noValidate
        preventScrollReset
        className="my-3 w-96 max-w-full"
        aria-label={texts.withdraw(kinds[event.kind].toLowerCase())}
      >
        <input type="hidden" name="intent" value="withdraw" />
        <input type="hidden" name="event" value={event.id} />
        <FormProblemsProvider problems={problems}>
          <TextField name="why" label={texts.whyItIsWithdrawn} placeholder={texts.wrongMachine} maxLength={500} />
          <p className="mt-3">
            <Button tone="plain">{texts.withdrawIt}</Button>
          </p>
        </FormProblemsProvider>
      </Form>
    </details>
  );
}

export default function Fluid({
  loaderData: { page, mayLog, mayEdit, submission, said },
  actionData,
}: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const answer = actionData && "warning" in actionData ? actionData : undefined;
  const problems = answer && answer.event === null ? answer.problems : undefined;
  const { fill } = page;
  const due = page.detail?.age?.dueAt ?? null;
  const age = fill ? (page.now - fill.at) / DAY : null;
  const off = page.detail?.viscosityOff ?? null;
  const last = page.detail?.measured.at(-1);
  const title = !page.fluid
    ? texts.noFluidStated(page.machine)
    : off !== null && Math.abs(off) >= 0.1
      ? texts.itsOilIsThan(
          page.machine,
          Math.round(Math.abs(off) * 100),
          off < 0 ? texts.thinner : texts.thicker,
          page.fluid.name,
        )
      : `${page.machine}: ${page.fluid.name}${fill ? texts.inSince(dayText(fill.at, site)) : ""}`;
  return (
    <>
      <PageHead
        crumbs={[
          { label: texts.oil, to: "/oil" },
          { label: page.machine, to: `/oil/${page.circuitId}` },
          { label: texts.fluid },
        ]}
        title={title}
      >
        {page.fluid
          ? texts.mmAt(
              fluidTypes[page.fluid.type].replace(/^./, (c) => c.toUpperCase()),
              page.fluid.kv40,
            ) + texts.n40CAndAt(page.fluid.kv100)
          : ""}
        {page.fluid && mayEdit ? (
          <>
            <Link to={`/fleet/edit/fluid/${page.fluid.id}`} className="way">
              {texts.itsFigures}
            </Link>
            .{" "}
          </>
        ) : null}
        {fill && age !== null
          ? texts.daysAbout(Math.round(age)) +
            texts.runningHoursOld(formatNumber(page.detail?.age?.hours ?? age * page.hoursPerDay, 0)) +
            texts.lToppedUp(formatNumber(fill.toppedUp, 0)) +
            `since${page.volume ? texts.ofL(Math.round((fill.toppedUp / page.volume) * 100), page.volume) : ""}. ` +
            (due === null
              ? texts.noMaximumDrainInterval
              : texts.itsMaximumDrainInterval(due < page.now ? texts.passed : texts.endsAbout, dayText(due, site)) +
                texts.samplesMayEndIt)
          : texts.noFillIsOn}
      </PageHead>
      {said === "noted" ? (
        <Notice>{texts.noted}</Notice>
      ) : said === "withdrawn" ? (
        <Notice>{texts.withdrawnItStaysOn}</Notice>
      ) : null}
      {page.mixed ? (
        <Notice tone="verm" live={false}>
          {page.mixed}
        </Notice>
      ) : null}
      {page.overdue.map((e) => (
        <Notice key={e.id} tone="ochre" live={false}>
          {e.fluid} {texts.wasAStopGap(e.by)}
        </Notice>
      ))}
      <div className="grid gap-x-8 xl:grid-cols-[minmax(0,1fr)_300px]">
        <div className="min-w-0">
          <Section
            title={texts.whatTheMeasuredViscosity}
            aside={last ? texts.laboratoryMmAt40(last.kv40, dayText(last.at, site)) : undefined}
          >
            {page.changed.length === 0 ? (
              <p className="py-2 text-ink-2">{last ? texts.noLeakageIsRead : texts.notMeasuredSinceIt}</p>
            ) : (
              <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
                <thead>
                  <tr className="ruled">
                    <th scope="col">{texts.newestReadingOf}</th>
                    <th scope="col" className="text-right">
                      {texts.asRead}
                    </th>
                    <th scope="col" className="text-right">
                      {texts.correctedAsStated}
                    </th>
                    <th scope="col" className="text-right">
                      {texts.asMeasured}
                    </th>
                    <th scope="col" className="text-right">
                      {texts.changedBy}
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {page.changed.map((c) => (
                    <tr key={c.pointId} className="ruled">
                      <td>
                        <Link to={`/points/${c.pointId}`} className="way">
                          {c.component}, {lowerFirst(c.point)}
                        </Link>
                      </td>
                      <td className="text-right">{show(c.read, c.quantity, { unit: c.unit })}</td>
                      <td className="text-right">{show(c.stated, c.quantity, { unit: c.unit })}</td>
                      <td className="text-right">{show(c.measured, c.quantity, { unit: c.unit })}</td>
                      <td className="text-right">
                        {c.measured >= c.stated ? "+" : "−"}
                        {formatNumber(
                          Math.abs(c.measured / c.stated - 1) * 100,
                          decimalsFor(Math.abs(c.measured / c.stated - 1) * 100, 2),
                        )}{" "}
                        %
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </Section>
          <Section
            title={texts.doesItSuit}
            aside={
              page.startTemperature === null
                ? texts.coldestStartNotStated
                : texts.fromAStartAt(show(page.startTemperature, "oilTemperature"))
            }
          >
            {!page.detail || page.detail.suitability.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.notKnownStateA}</p>
            ) : (
              <ul>
                {page.detail.suitability.map((s) => (
                  <li key={s.componentId} className="ruled py-2">
                    <strong className="font-semibold">{s.name}</strong>
                    {s.usual ? <span className="text-sm text-ink-2"> {texts.byTheUsualRange}</span> : null}
                    {s.assumed ? (
                      <span className="text-sm text-ink-2"> at usual temperatures: none of its oil is noted</span>
                    ) : null}
                    <ul className="text-sm">
                      {s.findings.map((f) => (
                        <li key={f.at} className={verdictTone[f.verdict]}>
                          {f.at === "type"
                            ? texts.type
                            : f.at === "start"
                              ? texts.atTheStart
                              : f.at === "working"
                                ? texts.atWork
                                : texts.hottest}
                          {f.temperature !== null && f.viscosity !== null
                            ? texts.mm(
                                show(f.temperature, "oilTemperature"),
                                formatNumber(f.viscosity, decimalsFor(f.viscosity, 2)),
                              )
                            : ":"}{" "}
                          {f.message}.
                        </li>
                      ))}
                    </ul>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          <Section title={texts.fillsTopUpsAnd}>
            {page.events.length === 0 ? (
              <Empty>{texts.nothingNotedYet}</Empty>
            ) : (
              <ul>
                {page.events.map((e) => (
                  <li key={e.id} className="ruled grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 py-1.5 text-sm">
                    <span className="text-ink-2">{dayText(e.at, site)}</span>
                    <span>
                      <span className={e.withdrawn ? "text-ink-2 line-through" : ""}>
                        <strong className="font-semibold">{kinds[e.kind]}</strong>
                        {e.litres !== null ? `, ${formatNumber(e.litres, 0)} L` : ""}
                        {e.fluid ? <span className={e.other ? "text-verm" : ""}> {texts.of(e.fluid)}</span> : ""}
                        {e.level ? `: ${e.level}` : ""}
                        {e.condition ? ` (${e.condition})` : ""}
                        {e.changeBackBy ? texts.backBy(e.changeBackBy) : ""}
                        {e.note ? `. ${e.note}` : ""} <span className="text-ink-2">{e.by}</span>
                      </span>
                      {e.withdrawn ? (
                        <span className="block text-ochre">
                          {texts.withdrawnBy} {e.withdrawn.by}
                          {": "}
                          {e.withdrawn.why}
                        </span>
                      ) : mayLog ? (
                        <Withdraw event={e} problems={answer?.event === e.id ? answer.problems : undefined} />
                      ) : null}
                    </span>
                  </li>
                ))}
              </ul>
            )}
            {page.more ? (
              <p className="py-2">
                <Link to="?all=1" preventScrollReset className="way">
                  {texts.allThatWasEver}
                </Link>
              </p>
            ) : null}
          </Section>
        </div>
        {mayLog ? (
          <Section title={texts.noteWhatWasDone}>
            <Form method="post" noValidate className="mt-3" key={submission}>
              <input type="hidden" name="submission" value={submission} />
              <FormProblemsProvider problems={problems}>
                <div className="grid gap-3">
                  <SelectField name="kind" label={texts.what} options={kindOptions} />
                  <TextField
                    name="at"
                    label={texts.when}
                    type="datetime-local"
                    defaultValue={localInput(page.now, site.timeZone)}
                  />
                  <TextField
                    name="litres"
                    label={texts.howMuch}
                    suffix="L"
                    inputMode="decimal"
                    hint={texts.forALevelLeft}
                  />
                  <SelectField
                    name="fluidId"
                    label={texts.ofWhat}
                    defaultValue={page.fluid?.id ?? ""}
                    options={[
                      { value: "", label: texts.choose },
                      ...page.fluids.map((f) => ({ value: f.id, label: f.name })),
                    ]}
                  />
                  {answer?.warning ? (
                    <>
                      <Notice tone="verm">{answer.warning}</Notice>
                      <CheckField name="mixed" label={texts.itWasFilledAll} />
                    </>
                  ) : null}
                  <TextField name="hours" label={texts.machineHours} suffix="h" inputMode="decimal" />
                  <TextField name="level" label={texts.level} placeholder={texts.middleOfTheGlass} maxLength={200} />
                  <TextField
                    name="condition"
                    label={texts.howTheMachineStood}
                    placeholder={texts.oil48CLevel}
                    maxLength={300}
                  />
                  <TextField name="changeBackBy" label={texts.stopGapToBe} type="date" />
                  <TextField name="note" label={texts.remark} maxLength={500} />
                  <Button>{texts.noteIt}</Button>
                </div>
              </FormProblemsProvider>
            </Form>
            <p className="mt-3 text-sm text-ink-2">{texts.wipeTheFillerBefore}</p>
          </Section>
        ) : null}
      </div>
    </>
  );
}
