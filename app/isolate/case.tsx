import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/case";
import { actText, symptoms } from "@core";
import {
  closeIsolation,
  doubtGauges,
  doubtLeaning,
  enterResult,
  withdrawResult,
  casePage,
  type CasePage,
} from "~/domain/isolation/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, fieldClass, FormProblemsProvider, Notice, SelectField, TextArea } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { counted } from "~/ui/counted";
import { dayText, InZone, momentText, useSite } from "~/ui/site";
import { OddsBar, oddsText } from "~/ui/odds";
import { BookLink } from "./bookLink";
import { TestCard, TestCost } from "./testCard";

const ofAllPoints = (well: number, unread: number) =>
  `${well > 0 ? ` ${well === 1 ? "One that was read is as it should be" : `${well} that were read are as they should be`}.` : ""}` +
  `${unread > 0 ? ` ${unread === 1 ? "One point was" : `${unread} points were`} not read, or too seldom to judge by: not known.` : ""}`;
const whyNoModel = (missed: string) =>
  `The model does not fit this circuit, so its readings are not used${missed ? `: it does not show what was read at ${missed}` : ""}. ` +
  "Put right the figures of its drawing.";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Isolate, ${loaderData?.page.machine ?? ""} · Juncteral` },
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
        <strong className="font-semibold">None of the known causes fits.</strong> Take out what may be wrong, check the
        instrument, look at the machine with somebody who knows it, and write down what it was: closing it with “none of
        these” keeps that for the next one.
      </Notice>
    );
  const [cause] = page.act?.causes ?? [];
  if (!page.decided || !page.act || !cause) return null;
  const { act } = cause.about;
  return (
    <Notice live={false}>
      <strong className="font-semibold">{`Sure enough to act (${oddsText(page.act.share)}).`}</strong>{" "}
      {`${actText(act)} ${act.interim ? "This is a stop-gap: the cause stays open. " : ""}Then prove ` +
        "it: repeat the reading that showed it, at the same conditions."}{" "}
      {page.bookable && mayBook ? (
        <BookLink point={page.bookable} act={act} from="isolation" of={page.id} className="act" />
      ) : null}
    </Notice>
  );
}

function Suspects({ page }: { page: CasePage }) {
  return (
    <Section title="What it may be" aside="a mark: before the last result">
      <ul>
        {page.suspects.map((s) => (
          <li key={s.id} className="ruled py-2">
            <span className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3">
              <span className="font-semibold [overflow-wrap:anywhere]">{s.text}</span>
              <OddsBar now={s.now} before={s.before} />
            </span>
            {s.speaksFor.length > 0 ? (
              <span className="block text-xs text-ink-2">{`For it: ${s.speaksFor.join("; ")}.`}</span>
            ) : null}
            {s.speaksAgainst.length > 0 ? (
              <span className="block text-xs text-ink-2">{`Against it: ${s.speaksAgainst.join("; ")}.`}</span>
            ) : null}
          </li>
        ))}
        <li className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-2">
          <span>Something else</span>
          <OddsBar now={page.other.now} before={page.other.before} />
        </li>
      </ul>
      <p className="mt-2 text-xs text-ink-2">
        {"Each is the chance that it is there, alone or with another; they may add up to more than 100 %. " +
          `Shares of causes and tests are ${symptoms[page.symptom].basis}` +
          (page.taught > 0
            ? `; what ${counted(page.taught, "closed case")} of this symptom found counts beside twenty imagined ones`
            : "") +
          "."}
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
        {out ? "Count it again" : "Take out"}
      </button>
    </Form>
  );
}

function Evidence({ page, mayEnter }: { page: CasePage; mayEnter: boolean }) {
  const site = useSite();
  const last = page.evidence.filter((e) => !e.withdrawn).at(-1);
  return (
    <Section title="What is known">
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
                ? "No point of this circuit has readings to judge by: nothing is known from its gauges."
                : `${
                    page.gauges.off.length > 0
                      ? `Readings off the healthy circuit: ${page.gauges.off.join("; ").toLowerCase()}.`
                      : "No reading is off the healthy circuit."
                  }${page.gauges.read === null ? "" : ofAllPoints(page.gauges.read - page.gauges.off.length, page.gauges.of - page.gauges.read)}`
              : !page.hasDiagram
                ? "No circuit is drawn, so readings are not used."
                : page.missed === null
                  ? "No point of this circuit has a baseline yet, so readings are not used."
                  : whyNoModel(page.missed.join("; ").toLowerCase())}
          </span>
          {page.gauges && mayEnter && !page.closed ? <TakeOut intent="gauges" out={page.gauges.out} /> : null}
        </li>
        {page.leanings.map((l, place) => (
          <li key={place} className="ruled flex items-start justify-between gap-3 py-2">
            <span className={l.out ? "text-ink-2 line-through" : ""}>
              {l.text}
              <span className="block text-ink-2">From the register when this began</span>
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
                {e.again ? "; made again: both count as one result" : ""}
              </span>
            </span>
            {!e.withdrawn && mayEnter && !page.closed ? (
              <Form method="post" preventScrollReset>
                <input type="hidden" name="intent" value="withdraw" />
                <input type="hidden" name="resultId" value={e.id} />
                <button type="submit" className="way whitespace-nowrap">
                  {e === last ? "Undo" : "Take out"}
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
    <Section title="Made in Tests since then">
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
              <button type="submit" className="way whitespace-nowrap" aria-label={`Take in: ${g.text}`}>
                Take it in
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
    <Section title={page.decided ? "If you want to be surer" : "The next best test"}>
      {best ? (
        <div className="pt-3">
          <TestCard test={best} submission={submission} mayEnter={mayEnter} />
        </div>
      ) : (
        <Empty>
          No test is left that could change what to do. Act on the likeliest, or close it with “none of these”.
        </Empty>
      )}
      {[
        { title: "Nearly as good", of: others },
        { title: "Not now", of: waiting },
      ].map(({ title, of }) =>
        of.length === 0 ? null : (
          <div key={title} className="mt-4">
            <h3 className="text-sm text-ink-2">{title}</h3>
            {of.map((t) => (
              <details key={t.id} className="ruled py-2">
                <summary className="cursor-pointer">
                  {t.text} <TestCost test={t} />
                  {t.outsideBook ? <span className="text-sm text-ochre"> not in most manufacturers' books</span> : null}
                  {t.heldBack && !t.outsideBook ? (
                    <span className="block text-xs text-ink-2">Waits while a safer test still tells enough.</span>
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
        <span className="mb-0.5 block">Another test was made</span>
        <select name="any" className={`${fieldClass} pr-8`} defaultValue="">
          <option value="">which one, and what did it show?</option>
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
      <Button tone="plain">Enter it</Button>
    </Form>
  );
}

function Close({ page, problems }: { page: CasePage; problems: Record<string, string> | undefined }) {
  const likely = page.suspects.map((s) => s.id);
  const rest = page.every.filter((s) => !likely.includes(s.id));
  return (
    <Section title="What was found">
      <Form method="post" noValidate className="pt-2">
        <input type="hidden" name="intent" value="close" />
        <input type="hidden" name="version" value={page.version} />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <SelectField
              name="found"
              label="It was"
              options={[
                { value: "", label: "not known yet" },
                ...page.suspects.map((s) => ({ value: s.id, label: s.text })),
                ...rest.map((s) => ({ value: s.id, label: s.text })),
                { value: "none", label: "None of these" },
              ]}
            />
            <TextArea name="findings" label="How it was found, what was done" maxLength={500} rows={2} />
            <p>
              <Button tone="plain">Close the isolation</Button>
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
          { label: "Isolate", to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={`${page.machine}: ${symptoms[page.symptom].label.toLowerCase()}`}
      >
        {page.closed ? `Closed ${dayText(page.closed.at, site)}, ${page.closed.by}.` : null}
        {page.hasDiagram ? (
          <Link to={`/fleet/circuits/${page.circuitId}`} className="way">
            {`${page.closed ? " " : ""}Circuit and what-if`}
          </Link>
        ) : null}
      </PageHead>
      {page.closed ? (
        <Notice live={false}>
          <strong className="font-semibold">
            {page.closed.found.length > 0 ? page.closed.found.join("; ") : "None of what was suspected"}
          </strong>
          {page.closed.odds === null ? "" : `, given ${oddsText(page.closed.odds)} when it was closed`}.{" "}
          {page.closed.findings}
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
