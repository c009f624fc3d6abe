import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/instrument";
import { preferredUnit, quantityOf } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { siteTimeZone } from "~/domain/assets/site.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, localInput, momentText, useShow, useSite } from "~/ui/site";
import { recallInstrument, recordCheck, withdrawRecall } from "~/domain/instruments/commands.server";
import { principles } from "~/domain/instruments/form";
import { instrumentPage, instrumentRow } from "~/domain/instruments/queries.server";
import { instrument as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.juncteral(loaderData?.page.instrument.tag ?? texts.instrument) },
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
    ? redirect(`/instruments/${instrument.id}?said=${done.passed ? texts.passed : texts.failed}`)
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
    ? texts.failedACheckAnd
    : due === "never"
      ? texts.wasNeverCalibrated
      : due === "out"
        ? texts.isOutOfCalibration
        : due === "soon"
          ? texts.isDueForCalibration
          : texts.isInCalibration;
  return (
    <>
      <PageHead
        crumbs={[{ label: texts.instruments, to: "/instruments" }]}
        title={`${instrument.tag}, ${instrument.name}, ${finding}`}
      >
        {texts.readsToClassOf(
          quantityOf(instrument.quantity).label.toLowerCase(),
          show(instrument.fullScale, instrument.quantity),
          instrument.accuracyClass,
          principles[instrument.principle],
          page.readings,
          page.points,
          instrument.note,
        )}
        {mayEdit ? (
          <Link to={`/instruments/${instrument.id}/edit`} className="way ml-3">
            {texts.edit}
          </Link>
        ) : null}
      </PageHead>
      {said === "passed" ? (
        <Notice>{texts.checkRecordedPassed}</Notice>
      ) : said === "failed" ? (
        <Notice tone="verm">
          {texts.checkRecordedFailedNew(mayEdit ? texts.recallItBelow : texts.anEngineerCanRecall)}
        </Notice>
      ) : said === "believed" ? (
        <Notice>{texts.recallWithdrawnItsReadings}</Notice>
      ) : said === "recalled" ? (
        <Notice>{texts.recalledItsReadingsAre}</Notice>
      ) : null}
      <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_320px]">
        <div className="min-w-0">
          <Section
            title={texts.checksAndCalibrations}
            aside={lastGood ? texts.lastGood(dayText(lastGood, site)) : texts.noneGoodYet}
          >
            {checks.length === 0 ? (
              <Empty>{texts.noCheckYetCheck}</Empty>
            ) : (
              <ul>
                {checks.map((c) => (
                  <li key={c.id} className="ruled py-2">
                    <span className={c.passed ? "font-semibold" : "font-semibold text-verm"}>
                      {c.passed ? texts.hasPassed : texts.hasFailed}
                    </span>
                    , {c.kind}, {momentText(c.at, site)}, {c.by}
                    {c.certificate ? texts.certificate(c.certificate) : ""}
                    <span className="block text-sm text-ink-2">
                      {c.points.map((p) => texts.read(exact(p.stated), exact(p.read))).join("; ")}
                      {c.note ? `. ${c.note}` : ""}
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          {recalls.length > 0 ? (
            <Section title={texts.recalled}>
              <ul>
                {recalls.map((r) => (
                  <li key={r.id} className="ruled py-2">
                    <span className={r.withdrawnBy ? "line-through" : ""}>
                      {texts.readingFromTo(r.readings, dayText(r.from, site), dayText(r.until, site), r.reason)}
                    </span>{" "}
                    <span className="text-ink-2">({r.by})</span>
                    {r.withdrawnBy ? (
                      <span className="block text-sm text-ink-2">
                        {texts.withdrawnBy(r.withdrawnBy)} {r.withdrawnWhy}
                      </span>
                    ) : mayEdit ? (
                      <details
                        open={problems && "form" in problems && problems.form === `withdraw-${r.id}` ? true : undefined}
                      >
                        <summary className="py-1 text-sm text-sea">{texts.theRecallWasWrong}</summary>
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
                              <TextField name="why" label={texts.whyItsReadingsAre} maxLength={300} />
                              <div>
                                <Button tone="danger">{texts.withdrawTheRecall}</Button>
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
            <Section title={texts.recordACheck}>
              <Form method="post" noValidate key={`c${submission}`} className="mt-3 grid gap-3">
                <input type="hidden" name="submission" value={submission} />
                <FormProblemsProvider problems={of("check")}>
                  <div className="grid gap-3">
                    <SelectField
                      name="kind"
                      label={texts.itIs}
                      options={[
                        { value: "check", label: texts.aCheckBeforeUse },
                        { value: "calibration", label: texts.aCalibration },
                      ]}
                    />
                    <TextField
                      name="at"
                      label={texts.doneAt}
                      type="datetime-local"
                      defaultValue={localInput(page.now, site.timeZone)}
                    />
                    <TextArea
                      name="points"
                      label={texts.statedAndRead(unit)}
                      hint={
                        texts.oneALineFor +
                        `${show((instrument.accuracyClass / 100) * instrument.fullScale, instrument.quantity, { digits: 2 })}.`
                      }
                      rows={4}
                    />
                    <TextField name="certificate" label={texts.certificateNumber} maxLength={200} />
                    <TextField
                      name="months"
                      label={texts.nextCalibrationIn}
                      suffix={texts.months}
                      defaultValue="12"
                      inputMode="numeric"
                      hint={texts.countsForACalibration}
                    />
                    <Button>{texts.recordTheCheck}</Button>
                  </div>
                </FormProblemsProvider>
              </Form>
            </Section>
          ) : null}
          {mayEdit ? (
            <Section
              title={texts.foundOutOfCalibration}
              aside={page.failedUnrecalled ? <span className="text-verm">{texts.aFailedCheckNothing}</span> : undefined}
            >
              <Form method="post" noValidate key={`r${submission}`} className="mt-3">
                <input type="hidden" name="intent" value="recall" />
                <input type="hidden" name="submission" value={submission} />
                <FormProblemsProvider problems={of("recall")}>
                  <div className="grid gap-3">
                    <p className="text-sm text-ink-2">{texts.itsReadingsBetweenThese}</p>
                    <TextField
                      name="from"
                      label={texts.fromItsLastGood}
                      type="datetime-local"
                      defaultValue={page.inDoubt.from ? localInput(page.inDoubt.from, site.timeZone) : ""}
                    />
                    <TextField
                      name="until"
                      label={texts.until}
                      type="datetime-local"
                      defaultValue={localInput(page.inDoubt.until, site.timeZone)}
                    />
                    <TextField
                      name="reason"
                      label={texts.whatWasFound}
                      maxLength={500}
                      placeholder={texts.reads12High}
                    />
                    <Button tone="danger">{texts.recallItsReadings}</Button>
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
