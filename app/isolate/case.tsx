import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/case";
import { actText, symptoms } from "@core";
import {
  closeIsolation,
  doubtGauges,
  doubtLeaning,
  enterResult,
  withdrawResult,
} from "~/domain/isolation/cases.server";
import { casePage, type CasePage } from "~/domain/isolation/casePage.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, fieldClass, FormProblemsProvider, Notice, SelectField, TextArea } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, momentText, useSite } from "~/ui/site";
import { OddsBar, oddsText } from "~/ui/odds";
import { BookLink } from "./bookLink";
import { TestCard, TestCost } from "./testCard";
import { casePage as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.isolateJuncteral(loaderData?.page.machine ?? "") },
];

export const loader = guard("viewer", async ({ params, user }) => ({
  page: await casePage(idParam(params)),
  mayEnter: mayAct(user.role, "technician"),
  mayBook: mayAct(user.role, "engineer"),
  submission: crypto.randomUUID(),
}));

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const [anyTest, anyResult] = (fields.any ?? "").split("|");
  const done =
    fields.intent === "result"
      ? await enterResult(id, anyTest && anyResult ? { ...fields, test: anyTest, result: anyResult } : fields, user)
      : fields.intent === "withdraw"
        ? await withdrawResult(id, fields.resultId ?? "", user)
        : fields.intent === "gauges"
          ? await doubtGauges(id, fields.out === "yes")
          : fields.intent === "leaning"
            ? await doubtLeaning(id, Number(fields.place), fields.out === "yes")
            : await closeIsolation(id, fields, user);
  return done.ok ? redirect(`/isolate/${id}`) : refused(done);
});

/** What to do, where the odds are sure enough, or what it means that nothing fits. */
function WhatToDo({ page, mayBook }: { page: CasePage; mayBook: boolean }) {
  if (page.noneFits)
    return (
      <Notice tone="ochre" live={false}>
        <strong className="font-semibold">{texts.noneOfTheKnown}</strong> {texts.takeOutWhatMay}
      </Notice>
    );
  const [cause] = page.act?.causes ?? [];
  if (!page.decided || !page.act || !cause) return null;
  const { act } = cause.about;
  return (
    <Notice live={false}>
      <strong className="font-semibold">{texts.sureEnoughToAct(oddsText(page.act.share))}</strong>{" "}
      {texts.thenProveItRepeat(actText(act), act.interim ? texts.thisIsAStop : "")}{" "}
      {page.bookable && mayBook ? (
        <BookLink point={page.bookable} act={act} from="isolation" of={page.id} className="act" />
      ) : null}
    </Notice>
  );
}

function Suspects({ page }: { page: CasePage }) {
  return (
    <Section title={texts.whatItMayBe} aside={texts.aMarkBeforeThe}>
      <ul>
        {page.suspects.map((s) => (
          <li key={s.id} className="ruled py-2">
            <span className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3">
              <span className="font-semibold [overflow-wrap:anywhere]">{s.text}</span>
              <OddsBar now={s.now} before={s.before} />
            </span>
            {s.speaksFor.length > 0 ? (
              <span className="block text-xs text-ink-2">{texts.forIt(s.speaksFor.join("; "))}</span>
            ) : null}
            {s.speaksAgainst.length > 0 ? (
              <span className="block text-xs text-ink-2">{texts.againstIt(s.speaksAgainst.join("; "))}</span>
            ) : null}
          </li>
        ))}
        <li className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-2">
          <span>{texts.somethingElse}</span>
          <OddsBar now={page.other.now} before={page.other.before} />
        </li>
      </ul>
      <p className="mt-2 text-xs text-ink-2">
        {texts.eachIsTheChance(
          symptoms[page.symptom].basis,
          page.taught > 0 ? texts.whatClosedOfThis(page.taught) : "",
        )}
      </p>
    </Section>
  );
}

/** Evidence that entered by itself is taken out, or counts again. */
function TakeOut({ intent, out, place }: { intent: "gauges" | "leaning"; out: boolean; place?: number }) {
  return (
    <Form method="post" preventScrollReset>
      <input type="hidden" name="intent" value={intent} />
      <input type="hidden" name="out" value={out ? "no" : "yes"} />
      {place === undefined ? null : <input type="hidden" name="place" value={place} />}
      <button type="submit" className="way whitespace-nowrap">
        {out ? texts.countItAgain : texts.takeOut}
      </button>
    </Form>
  );
}

function Evidence({ page, mayEnter }: { page: CasePage; mayEnter: boolean }) {
  const site = useSite();
  const last = page.evidence.filter((e) => !e.withdrawn).at(-1);
  return (
    <Section title={texts.whatIsKnown}>
      <ul className="text-sm">
        <li className="ruled py-2">
          <strong className="font-semibold">{symptoms[page.symptom].label}</strong>
          <span className="block text-ink-2">
            {page.note || symptoms[page.symptom].seen} {dayText(page.openedAt, site)}, {page.openedBy}
          </span>
        </li>
        <li className="ruled flex items-start justify-between gap-3 py-2">
          <span className={page.gauges?.out ? "text-ink-2 line-through" : ""}>
            {page.gauges
              ? page.gauges.read === 0
                ? texts.noPointWasRead
                : `${
                    page.gauges.off.length > 0
                      ? texts.readingsOffTheHealthy(page.gauges.off.join("; ").toLowerCase())
                      : texts.noReadingIsOff
                  }${page.gauges.read === null ? "" : texts.ofAllPoints(page.gauges.read - page.gauges.off.length, page.gauges.of - page.gauges.read)}`
              : !page.hasDiagram
                ? texts.noCircuitIsDrawn
                : page.missed === null
                  ? texts.noReadingHasABaseline
                  : texts.theModelDoesNot(page.missed.join("; ").toLowerCase())}
          </span>
          {page.gauges && mayEnter && !page.closed ? <TakeOut intent="gauges" out={page.gauges.out} /> : null}
        </li>
        {page.leanings.map((l, place) => (
          <li key={place} className="ruled flex items-start justify-between gap-3 py-2">
            <span className={l.out ? "text-ink-2 line-through" : ""}>
              {l.text}
              <span className="block text-ink-2">{texts.fromTheRegisterWhen}</span>
            </span>
            {mayEnter && !page.closed ? <TakeOut intent="leaning" out={l.out} place={place} /> : null}
          </li>
        ))}
        {page.evidence.map((e) => (
          <li key={e.id} className="ruled flex items-start justify-between gap-3 py-2">
            <span className={e.withdrawn ? "text-ink-2 line-through" : ""}>
              {e.test} <strong className="font-semibold">{e.result.toLowerCase()}</strong>
              <span className="block text-ink-2">
                {momentText(e.at, site)}, {e.by}
                {e.again ? texts.madeAgain : ""}
              </span>
            </span>
            {!e.withdrawn && mayEnter && !page.closed ? (
              <Form method="post" preventScrollReset>
                <input type="hidden" name="intent" value="withdraw" />
                <input type="hidden" name="resultId" value={e.id} />
                <button type="submit" className="way whitespace-nowrap">
                  {e === last ? texts.undo : texts.takeOut}
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Guided tests that were made meanwhile: what they showed is one press away. */
function Guided({ page, submission }: { page: CasePage; submission: string }) {
  const site = useSite();
  if (page.guided.length === 0) return null;
  return (
    <Section title={texts.madeInTestsSince}>
      <ul className="text-sm">
        {page.guided.map((g) => (
          <li key={g.test} className="ruled flex items-start justify-between gap-3 py-2">
            <span>
              <Link to={`/tests/records/${g.recordId}`} className="hover:underline">
                {g.text}
              </Link>
              <span className="block text-ink-2">
                {momentText(g.at, site)}, {g.by}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="intent" value="result" />
              <input type="hidden" name="submission" value={submission} />
              <input type="hidden" name="test" value={g.test} />
              <input type="hidden" name="result" value={g.result} />
              <button type="submit" className="way whitespace-nowrap" aria-label={texts.takeIn(g.text)}>
                {texts.takeItIn}
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function NextTest({ page, submission, mayEnter }: { page: CasePage; submission: string; mayEnter: boolean }) {
  const { best, others, waiting } = page;
  return (
    <Section title={page.decided ? texts.ifYouWantTo : texts.theNextBestTest}>
      {best ? (
        <div className="pt-3">
          <TestCard test={best} submission={submission} mayEnter={mayEnter} />
        </div>
      ) : (
        <Empty>{texts.noTestIsLeft}</Empty>
      )}
      {[
        { title: texts.nearlyAsGood, of: others },
        { title: texts.notNow, of: waiting },
      ].map(({ title, of }) =>
        of.length === 0 ? null : (
          <div key={title} className="mt-4">
            <h3 className="text-sm text-ink-2">{title}</h3>
            {of.map((t) => (
              <details key={t.id} className="ruled py-2">
                <summary className="cursor-pointer">
                  {t.text} <TestCost test={t} />
                  {t.outsideBook ? <span className="text-sm text-ochre"> {texts.notInMostManufacturers}</span> : null}
                  {t.heldBack && !t.outsideBook ? (
                    <span className="block text-xs text-ink-2">{texts.waitsWhileASafer}</span>
                  ) : null}
                </summary>
                <div className="pt-2">
                  <TestCard test={t} submission={submission} mayEnter={mayEnter} />
                </div>
              </details>
            ))}
          </div>
        ),
      )}
      {mayEnter ? <AnyResult page={page} submission={submission} /> : null}
    </Section>
  );
}

/** A result of a test that was made without being proposed. */
function AnyResult({ page, submission }: { page: CasePage; submission: string }) {
  return (
    <Form method="post" preventScrollReset className="mt-4 flex items-end gap-3">
      <input type="hidden" name="intent" value="result" />
      <input type="hidden" name="submission" value={submission} />
      <label className="min-w-0 grow text-sm text-ink-2">
        <span className="mb-0.5 block">{texts.anotherTestWasMade}</span>
        <select name="any" className={`${fieldClass} pr-8`} defaultValue="">
          <option value="">{texts.whichOneAndWhat}</option>
          {page.any.map((t) => (
            <optgroup key={t.id} label={t.text}>
              {t.results.map((r) => (
                <option key={r.value} value={`${t.id}|${r.value}`}>
                  {r.label}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </label>
      <Button tone="plain">{texts.enterIt}</Button>
    </Form>
  );
}

function Close({ page, problems }: { page: CasePage; problems: Record<string, string> | undefined }) {
  const likely = page.suspects.map((s) => s.id);
  const rest = page.every.filter((s) => !likely.includes(s.id));
  return (
    <Section title={texts.whatWasFound}>
      <Form method="post" noValidate className="pt-2">
        <input type="hidden" name="intent" value="close" />
        <input type="hidden" name="version" value={page.version} />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <SelectField
              name="found"
              label={texts.itWas}
              options={[
                { value: "", label: texts.notKnownYet },
                ...page.suspects.map((s) => ({ value: s.id, label: s.text })),
                ...rest.map((s) => ({ value: s.id, label: s.text })),
                { value: "none", label: texts.noneOfThese },
              ]}
            />
            <TextArea name="findings" label={texts.howItWasFound} maxLength={500} rows={2} />
            <p>
              <Button tone="plain">{texts.closeTheIsolation}</Button>
            </p>
          </div>
        </FormProblemsProvider>
      </Form>
    </Section>
  );
}

export default function Case(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <CaseScreen {...props} />
    </InZone>
  );
}

function CaseScreen({ loaderData: { page, mayEnter, mayBook, submission }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: texts.isolate, to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={`${page.machine}: ${symptoms[page.symptom].label.toLowerCase()}`}
      >
        {page.closed ? texts.closed(dayText(page.closed.at, site), page.closed.by) : null}
        {page.hasDiagram ? (
          <Link to={`/fleet/circuits/${page.circuitId}`} className="way">
            {texts.circuitAndWhatIf(page.closed ? " " : "")}
          </Link>
        ) : null}
      </PageHead>
      {page.closed ? (
        <Notice live={false}>
          <strong className="font-semibold">
            {page.closed.found.length > 0 ? page.closed.found.join("; ") : texts.noneOfWhatWas}
          </strong>
          {page.closed.odds === null ? "" : texts.givenWhenItWas(oddsText(page.closed.odds))}. {page.closed.findings}
        </Notice>
      ) : (
        <WhatToDo page={page} mayBook={mayBook} />
      )}
      {problems?.result ? <Notice tone="verm">{problems.result}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div>
          {page.closed ? null : <NextTest page={page} submission={submission} mayEnter={mayEnter} />}
          {mayEnter && !page.closed ? <Guided page={page} submission={submission} /> : null}
          <Evidence page={page} mayEnter={mayEnter} />
        </div>
        <div>
          <Suspects page={page} />
          {mayEnter && !page.closed ? <Close page={page} problems={problems} /> : null}
        </div>
      </div>
    </>
  );
}
