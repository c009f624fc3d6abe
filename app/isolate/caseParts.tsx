/** The parts of a case's page: what to do, what may be the cause, the evidence. */
import { Form } from "react-router";
import { actText, symptoms } from "@core";
import type { CasePage } from "~/domain/isolation/index.server";
import { Notice } from "~/ui/form";
import { Section } from "~/ui/page";
import { counted } from "~/ui/counted";
import { dayText, momentText, useSite } from "~/ui/site";
import { OddsBar, oddsText } from "~/ui/odds";
import { BookLink } from "./bookLink";

const ofAllPoints = (well: number, unread: number) =>
  `${well > 0 ? ` ${well === 1 ? "One that was read is as it should be" : `${well} that were read are as they should be`}.` : ""}` +
  `${unread > 0 ? ` ${unread === 1 ? "One point was" : `${unread} points were`} not read, or too seldom to judge by: not known.` : ""}`;

const whyNoModel = (missed: string) =>
  `The model does not fit this circuit, so its readings are not used${missed ? `: it does not show what was read at ${missed}` : ""}. ` +
  "Put right the figures of its drawing.";

/** What to do, where the odds are sure enough, or what it means that nothing fits. */
export function WhatToDo({ page, mayBook }: { page: CasePage; mayBook: boolean }) {
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
        <BookLink at={page.bookable} act={act} from="isolation" of={page.id} className="act" />
      ) : null}
    </Notice>
  );
}

export function Suspects({ page }: { page: CasePage }) {
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

export function Evidence({ page, mayEnter }: { page: CasePage; mayEnter: boolean }) {
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
