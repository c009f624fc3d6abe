/**
 * A procedure as text that a person edits: a line a step, phases as headings, hold points marked. What a step asks for,
 * alters or puts back stays with it as long as it keeps its id.
 */
import { stepsOf, type WorkProcedure, type WorkStep } from "@core";
import type { Refused } from "~/domain/answer";
import { askFrom, askText, askWords } from "./stepAsk";

const MOST_STEPS = 120;
const LONGEST = 300;

/** A step that the plant wrote: all of it stands in its line. */
const isOwn = (id: string) => /^own-\d+$/.test(id);

const written = ({ id, ask }: WorkStep): string => (isOwn(id) && askText(ask) ? ` => ${askText(ask)}` : "");

/**
 * `# Phase`, then `step text`; `! step text | why` is a hold point; `=> pressure: At the port` what an own step asks for;
 * `[id]` at the end ties a line to its step.
 */
export function procedureText(procedure: WorkProcedure): string {
  return procedure.phases
    .map((phase) =>
      [
        `# ${phase.title}`,
        ...phase.steps.map(
          (s) => `${s.hold ? "! " : ""}${s.text}${s.hold ? ` | ${s.hold}` : ""}${written(s)} [${s.id}]`,
        ),
      ].join("\n"),
    )
    .join("\n\n");
}

interface Line {
  text: string;
  hold: string | undefined;
  /** What it asks for, as written; undefined: nothing is said of it. */
  ask: string | undefined;
  id: string | undefined;
}

function lineOf(line: string): Line {
  const tied = /^(.*?)\s*\[([a-z0-9-]{1,40})\]$/.exec(line);
  const [body = "", ...asks] = (tied ? tied[1]! : line).split("=>");
  const held = /^!\s*(.*)$/.exec(body.trim());
  const [text = "", ...why] = (held ? held[1]! : body).split("|");
  return {
    text: text.trim(),
    hold: held ? why.join("|").trim() || "a hold point of this plant" : undefined,
    ask: asks.length > 0 ? asks.join("=>").trim() : undefined,
    id: tied?.[2],
  };
}

type Read = { ok: true; procedure: WorkProcedure } | Refused;
const wrong = (problems: Record<string, string>): Refused => ({ ok: false, problems });

/** Read it back. @param base where steps that keep their id come from */
export function procedureFrom(base: WorkProcedure, fields: Record<string, string>): Read {
  const title = (fields.title ?? "").trim();
  if (title.length < 3 || title.length > 100) return wrong({ title: "Give it a title of 3 to 100 characters." });
  const known = new Map(stepsOf(base).map((s) => [s.id, s]));
  const phases: { title: string; steps: WorkStep[] }[] = [];
  const ids = new Set<string>();
  let [count, free] = [0, 1];
  for (const [i, raw] of (fields.steps ?? "").split(/\r?\n/).entries()) {
    const line = raw.trim();
    const at = `Line ${i + 1}: `;
    if (line === "") continue;
    if (line.length > LONGEST) return wrong({ steps: `${at}at most ${LONGEST} characters.` });
    if (line.startsWith("#")) {
      phases.push({ title: line.replace(/^#+\s*/, "") || "Steps", steps: [] });
      continue;
    }
    const { text, hold, ask: asked, id } = lineOf(line);
    if (text.length < 3) return wrong({ steps: `${at}say what is done.` });
    const ask = asked === undefined ? undefined : askFrom(asked);
    if (asked !== undefined && !ask)
      return wrong({ steps: `${at}after => stands what is written down: ${askWords}, or another quantity.` });
    const phase = phases.at(-1) ?? phases[phases.push({ title: "Steps", steps: [] }) - 1]!;
    // looked at before anything is made of it: a form of many lines must not hold the server
    if (++count > MOST_STEPS) return wrong({ steps: `At most ${MOST_STEPS} steps.` });
    const shipped = id && known.has(id) && !ids.has(id) ? id : undefined;
    // counted on from the last free number, never from the first again
    while (!shipped && (ids.has(`own-${free}`) || known.has(`own-${free}`))) free++;
    const own = shipped ?? `own-${free}`;
    ids.add(own);
    const { hold: _before, ask: kept, ...rest } = known.get(own) ?? { id: own, text };
    // what an own step asks for stands in its line, or it asks for nothing; a step that ships keeps what it asks
    const asks = ask ?? (isOwn(own) && askText(kept) ? undefined : kept);
    phase.steps.push({ ...rest, id: own, text, ...(hold !== undefined && { hold }), ...(asks && { ask: asks }) });
  }
  const steps = phases.flatMap((p) => p.steps);
  if (steps.length === 0) return wrong({ steps: "Write at least one step." });
  const lost = stepsOf(base).filter((s) => s.hold && !ids.has(s.id));
  if (lost.length > 0 && fields.without !== "on")
    return wrong({
      without:
        `Left out as hold points: ${lost.map((l) => `“${l.text}”`).join(", ")}. ` +
        `Tick that this is meant, or put ${lost.length > 1 ? "them" : "it"} back.`,
    });

  // a step whose pair was left out stands for itself
  const whole = phases
    .filter((p) => p.steps.length > 0)
    .map((p) => ({ ...p, steps: p.steps.map((s) => withoutLostPair(s, ids)) }));
  const { id, purpose, kinds, fits, cautions, renew, notRecommended } = base;
  return {
    ok: true,
    procedure: {
      id,
      title,
      purpose: (fields.purpose ?? purpose).trim().slice(0, 500),
      kinds,
      fits,
      cautions,
      renew: (fields.renew ?? renew.join("\n"))
        .split(/\r?\n/)
        .map((l) => l.trim().slice(0, 100))
        .filter(Boolean)
        .slice(0, 30),
      phases: whole,
      ...(notRecommended !== undefined && { notRecommended }),
    },
  };
}

function withoutLostPair(step: WorkStep, ids: ReadonlySet<string>): WorkStep {
  const { putsBack, ask, ...rest } = step;
  const pair = ask?.kind === "count" && ask.equals !== undefined && !ids.has(ask.equals);
  return {
    ...rest,
    ...(putsBack !== undefined && ids.has(putsBack) && { putsBack }),
    ...(ask && { ask: pair ? { kind: "count", label: ask.label } : ask }),
  };
}
