import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/instrument";
import { preferredUnit, quantityOf } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { siteTimeZone } from "~/domain/assets/index.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, localInput, momentText, useShow, useSite } from "~/ui/site";
import {
  recallInstrument,
  recordCheck,
  withdrawRecall,
  instrumentPage,
  instrumentRow,
} from "~/domain/instruments/index.server";
import { principles } from "~/domain/instruments/index";
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.page.instrument.tag ?? "Instrument"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user, request }) => ({
  page: await instrumentPage(idParam(params)),
  submission: crypto.randomUUID(),
  mayCheck: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
  said: new URL(request.url).searchParams.get("said"),
}));

export const action = guardAction("technician", async ({ params, request, user }) => {
  const instrument = await instrumentRow(idParam(params));
  const fields = await formFields(request);
  const timeZone = await siteTimeZone();
  if (fields.intent === "recall") {
    if (!mayAct(user.role, "engineer"))
      throw answerWith({ kind: "forbidden", needs: "engineer", has: user.role }, { status: 403 });
    const done = await recallInstrument(instrument, fields, user, timeZone);
    return done.ok ? redirect(`/instruments/${instrument.id}?said=recalled`) : refused(done, { form: "recall" });
  }
  if (fields.intent === "withdraw") {
    if (!mayAct(user.role, "engineer"))
      throw answerWith({ kind: "forbidden", needs: "engineer", has: user.role }, { status: 403 });
    const done = await withdrawRecall(instrument, fields, user);
    return done.ok
      ? redirect(`/instruments/${instrument.id}?said=believed`)
      : refused(done, { form: `withdraw-${fields.recall}` });
  }
  const done = await recordCheck(instrument, fields, user, timeZone, user.units);
  return done.ok
    ? redirect(`/instruments/${instrument.id}?said=${done.passed ? "passed" : "failed"}`)
    : refused(done, { form: "check" });
});

/** As many as any certificate gives. */
const EXACT_DIGITS = 6;

export default function Instrument({
  loaderData: { page, submission, mayCheck, mayEdit, said },
  actionData,
}: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  // a calibration says what an instrument is off by: none of its digits is rounded away
  const exact = (value: number) => show(value, instrument.quantity, { digits: EXACT_DIGITS });
  const { instrument, due, lastGood, checks, recalls } = page;
  const unit = preferredUnit(instrument.quantity, site.units);
  const problems = actionData && "problems" in actionData ? actionData : undefined;
  const of = (form: string) => (problems && (!("form" in problems) || problems.form === form) ? problems.problems : {});
  const finding = page.failedUnrecalled
    ? "failed a check, and what it read before is not recalled"
    : due === "never"
      ? "was never calibrated"
      : due === "out"
        ? "is out of calibration"
        : due === "soon"
          ? "is due for calibration within a month"
          : "is in calibration";
  return (
    <>
      <PageHead
        crumbs={[{ label: "Instruments", to: "/instruments" }]}
        title={`${instrument.tag}, ${instrument.name}, ${finding}`}
      >
        {`Reads ${quantityOf(instrument.quantity).label.toLowerCase()} to ${show(instrument.fullScale, instrument.quantity)}` +
          `, class ${instrument.accuracyClass} % of full scale; ${principles[instrument.principle]}. ${page.readings}` +
          ` ${page.readings === 1 ? "reading" : "readings"} at ${page.points} ${page.points === 1 ? "point" : "points"}` +
          `. ${instrument.note}`}
        {mayEdit ? (
          <Link to={`/instruments/${instrument.id}/edit`} className="way ml-3">
            Edit
          </Link>
        ) : null}
      </PageHead>
      {said === "passed" ? (
        <Notice>Check recorded: passed.</Notice>
      ) : said === "failed" ? (
        <Notice tone="verm">
          {"Check recorded: failed. New readings with it count less, and its readings since the last good " +
            `check are uncertain${mayEdit ? "; recall it below" : "; an engineer can recall it"}.`}
        </Notice>
      ) : said === "believed" ? (
        <Notice>Recall withdrawn. Its readings count again; the points are being assessed again.</Notice>
      ) : said === "recalled" ? (
        <Notice>
          Recalled. Its readings are kept and marked, but no longer used; the points are being assessed again.
        </Notice>
      ) : null}
      <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_320px]">
        <div className="min-w-0">
          <Section
            title="Checks and calibrations"
            aside={lastGood ? `last good ${dayText(lastGood, site)}` : "none good yet"}
          >
            {checks.length === 0 ? (
              <Empty>
                No check yet. Check two values before use, each against its stated value: a dropped gauge shows at once.
              </Empty>
            ) : (
              <ul>
                {checks.map((c) => (
                  <li key={c.id} className="ruled py-2">
                    <span className={c.passed ? "font-semibold" : "font-semibold text-verm"}>
                      {c.passed ? "Passed" : "Failed"}
                    </span>
                    , {c.kind}, {momentText(c.at, site)}, {c.by}
                    {c.certificate ? `, certificate ${c.certificate}` : ""}
                    <span className="block text-sm text-ink-2">
                      {c.points.map((p) => `${exact(p.stated)} read ${exact(p.read)}`).join("; ")}
                      {c.note ? `. ${c.note}` : ""}
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          {recalls.length > 0 ? (
            <Section title="Recalled">
              <ul>
                {recalls.map((r) => (
                  <li key={r.id} className="ruled py-2">
                    <span className={r.withdrawnBy ? "line-through" : ""}>
                      {`${counted(r.readings, "reading")} from ${dayText(r.from, site)} to ${dayText(r.until, site)}: ${r.reason}`}
                    </span>{" "}
                    <span className="text-ink-2">({r.by})</span>
                    {r.withdrawnBy ? (
                      <span className="block text-sm text-ink-2">
                        {`Withdrawn by ${r.withdrawnBy}:`} {r.withdrawnWhy}
                      </span>
                    ) : mayEdit ? (
                      <details
                        open={problems && "form" in problems && problems.form === `withdraw-${r.id}` ? true : undefined}
                      >
                        <summary className="py-1 text-sm text-sea">The recall was wrong</summary>
                        <Form method="post" noValidate className="mt-2 max-w-sm">
                          <input type="hidden" name="intent" value="withdraw" />
                          <input type="hidden" name="recall" value={r.id} />
                          <FormProblemsProvider
                            problems={
                              problems && "form" in problems && problems.form === `withdraw-${r.id}`
                                ? problems.problems
                                : {}
                            }
                          >
                            <div className="grid gap-2">
                              <TextField name="why" label="Why its readings are right after all" maxLength={300} />
                              <div>
                                <Button tone="danger">Withdraw the recall</Button>
                              </div>
                            </div>
                          </FormProblemsProvider>
                        </Form>
                      </details>
                    ) : null}
                  </li>
                ))}
              </ul>
            </Section>
          ) : null}
        </div>
        <div className="min-w-0">
          {mayCheck && !instrument.retiredAt ? (
            <Section title="Record a check">
              <Form method="post" noValidate key={`c${submission}`} className="mt-3 grid gap-3">
                <input type="hidden" name="submission" value={submission} />
                <FormProblemsProvider problems={of("check")}>
                  <div className="grid gap-3">
                    <SelectField
                      name="kind"
                      label="It is"
                      options={[
                        { value: "check", label: "a check before use" },
                        { value: "calibration", label: "a calibration" },
                      ]}
                    />
                    <TextField
                      name="at"
                      label="Done at"
                      type="datetime-local"
                      defaultValue={localInput(page.now, site.timeZone)}
                    />
                    <TextArea
                      name="points"
                      label={`Stated and read, ${unit}`}
                      hint={
                        "One a line, for example 0 0.2. Passes within ± " +
                        `${show((instrument.accuracyClass / 100) * instrument.fullScale, instrument.quantity, { digits: 2 })}.`
                      }
                      rows={4}
                    />
                    <TextField name="certificate" label="Certificate" maxLength={200} />
                    <TextField
                      name="months"
                      label="Next calibration in"
                      suffix="months"
                      defaultValue="12"
                      inputMode="numeric"
                      hint="Counts for a calibration only."
                    />
                    <Button>Record the check</Button>
                  </div>
                </FormProblemsProvider>
              </Form>
            </Section>
          ) : null}
          {mayEdit ? (
            <Section
              title="Found out of calibration"
              aside={
                page.failedUnrecalled ? <span className="text-verm">a failed check, nothing recalled</span> : undefined
              }
            >
              <Form method="post" noValidate key={`r${submission}`} className="mt-3">
                <input type="hidden" name="intent" value="recall" />
                <input type="hidden" name="submission" value={submission} />
                <FormProblemsProvider problems={of("recall")}>
                  <div className="grid gap-3">
                    <p className="text-sm text-ink-2">
                      Its readings between these times stay in the record but are no longer used.
                    </p>
                    <TextField
                      name="from"
                      label="From its last good check"
                      type="datetime-local"
                      defaultValue={page.inDoubt.from ? localInput(page.inDoubt.from, site.timeZone) : ""}
                    />
                    <TextField
                      name="until"
                      label="Until"
                      type="datetime-local"
                      defaultValue={localInput(page.inDoubt.until, site.timeZone)}
                    />
                    <TextField name="reason" label="What was found" maxLength={500} placeholder="Reads 12 % high" />
                    <Button tone="danger">Recall its readings</Button>
                  </div>
                </FormProblemsProvider>
              </Form>
            </Section>
          ) : null}
        </div>
      </div>
    </>
  );
}
