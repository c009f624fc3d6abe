import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/fluid";
import { DAY, decimalsFor, fluidTypes, formatNumber, lowerFirst } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, localInput, useShow, useSite } from "~/ui/site";
import { noteOilEvent, withdrawOilEvent, circuitPlace, fluidPage } from "~/domain/oil/index.server";
import { counted } from "~/ui/counted";

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

const kinds = {
  fill: "First fill",
  change: "Oil changed",
  topUp: "Topped up",
  drained: "Drained or lost",
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
      <summary className="-my-2 cursor-pointer p-2 text-ink-2 max-lg:-my-3 max-lg:py-3">Is it wrong?</summary>
      <Form
        method="post"
        noValidate
        preventScrollReset
        className="my-3 w-96 max-w-full"
        aria-label={`Withdraw: ${kinds[event.kind].toLowerCase()}`}
      >
        <input type="hidden" name="intent" value="withdraw" />
        <input type="hidden" name="event" value={event.id} />
        <FormProblemsProvider problems={problems}>
          <TextField name="why" label="Why it is withdrawn" placeholder="Wrong machine" maxLength={500} />
          <p className="mt-3">
            <Button tone="plain">Withdraw it</Button>
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
          <Section
            title="What the measured viscosity changed"
            aside={last ? `laboratory: ${last.kv40} mm²/s at 40 °C on ${dayText(last.at, site)}` : undefined}
          >
            {page.changed.length === 0 ? (
              <p className="py-2 text-ink-2">
                {last
                  ? "No leakage is read here that viscosity corrects."
                  : "Not measured since it was filled: readings are corrected with what is stated."}
              </p>
            ) : (
              <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
                <thead>
                  <tr className="ruled">
                    <th scope="col">newest reading of</th>
                    <th scope="col" className="text-right">
                      as read
                    </th>
                    <th scope="col" className="text-right">
                      corrected as stated
                    </th>
                    <th scope="col" className="text-right">
                      as measured
                    </th>
                    <th scope="col" className="text-right">
                      changed by
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
            title="Does it suit?"
            aside={
              page.startTemperature === null
                ? "coldest start not stated"
                : `from a start at ${show(page.startTemperature, "oilTemperature")}`
            }
          >
            {!page.detail || page.detail.suitability.length === 0 ? (
              <p className="py-2 text-ink-2">Not known: no fluid is stated, or nothing that turns is on record.</p>
            ) : (
              <ul>
                {page.detail.suitability.map((s) => (
                  <li key={s.componentId} className="ruled py-2">
                    <strong className="font-semibold">{s.name}</strong>
                    {s.usual ? (
                      <span className="text-sm text-ink-2">
                        {" "}
                        by the usual range of its type; the manufacturer’s comes first
                      </span>
                    ) : null}
                    {s.assumed ? (
                      <span className="text-sm text-ink-2"> at usual temperatures: none of its oil is noted</span>
                    ) : null}
                    <ul className="text-sm">
                      {s.findings.map((f) => (
                        <li key={f.at} className={verdictTone[f.verdict]}>
                          {f.at === "type"
                            ? "Type"
                            : f.at === "start"
                              ? "At the start"
                              : f.at === "working"
                                ? "At work"
                                : "Hottest"}
                          {f.temperature !== null && f.viscosity !== null
                            ? `, ${show(f.temperature, "oilTemperature")}: ${formatNumber(f.viscosity, decimalsFor(f.viscosity, 2))} mm²/s,`
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
          <Section title="Fills, top-ups and levels">
            {page.events.length === 0 ? (
              <Empty>Nothing noted yet.</Empty>
            ) : (
              <ul>
                {page.events.map((e) => (
                  <li key={e.id} className="ruled grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 py-1.5 text-sm">
                    <span className="text-ink-2">{dayText(e.at, site)}</span>
                    <span>
                      <span className={e.withdrawn ? "text-ink-2 line-through" : ""}>
                        <strong className="font-semibold">{kinds[e.kind]}</strong>
                        {e.litres !== null ? `, ${formatNumber(e.litres, 0)} L` : ""}
                        {e.fluid ? <span className={e.other ? "text-verm" : ""}> {`of ${e.fluid}`}</span> : ""}
                        {e.level ? `: ${e.level}` : ""}
                        {e.condition ? ` (${e.condition})` : ""}
                        {e.changeBackBy ? `, back by ${e.changeBackBy}` : ""}
                        {e.note ? `. ${e.note}` : ""} <span className="text-ink-2">{e.by}</span>
                      </span>
                      {e.withdrawn ? (
                        <span className="block text-ochre">
                          Withdrawn by {e.withdrawn.by}
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
                  All that was ever noted
                </Link>
              </p>
            ) : null}
          </Section>
        </div>
        {mayLog ? (
          <Section title="Note what was done">
            <Form method="post" noValidate className="mt-3" key={submission}>
              <input type="hidden" name="submission" value={submission} />
              <FormProblemsProvider problems={problems}>
                <div className="grid gap-3">
                  <SelectField name="kind" label="What" options={kindOptions} />
                  <TextField
                    name="at"
                    label="When"
                    type="datetime-local"
                    defaultValue={localInput(page.now, site.timeZone)}
                  />
                  <TextField
                    name="litres"
                    label="How much"
                    suffix="L"
                    inputMode="decimal"
                    hint="For a level: left empty"
                  />
                  <SelectField
                    name="fluidId"
                    label="Of what"
                    defaultValue={page.fluid?.id ?? ""}
                    options={[
                      { value: "", label: "choose" },
                      ...page.fluids.map((f) => ({ value: f.id, label: f.name })),
                    ]}
                  />
                  {answer?.warning ? (
                    <>
                      <Notice tone="verm">{answer.warning}</Notice>
                      <CheckField name="mixed" label="It was filled all the same" />
                    </>
                  ) : null}
                  <TextField name="hours" label="Machine hours" suffix="h" inputMode="decimal" />
                  <TextField name="level" label="Level" placeholder="Middle of the glass" maxLength={200} />
                  <TextField
                    name="condition"
                    label="How the machine stood"
                    placeholder="Oil 48 °C, level, actuators retracted"
                    maxLength={300}
                  />
                  <TextField name="changeBackBy" label="Stop-gap, to be changed back by" type="date" />
                  <TextField name="note" label="Remark" maxLength={500} />
                  <Button>Note it</Button>
                </div>
              </FormProblemsProvider>
            </Form>
            <p className="mt-3 text-sm text-ink-2">Wipe the filler before it is opened; fill through a filter.</p>
          </Section>
        ) : null}
      </div>
    </>
  );
}
