/**
 * A procedure as text that a person edits: a line a step, phases as headings, hold points marked. What a step asks for,
 * alters or puts back stays with it as long as it keeps its id.
 */
import { stepsOf, type WorkProcedure, type WorkStep } from "@core";
import type { Refused } from "~/domain/answer";

const MOST_STEPS = 120;
const LONGEST = 300;

/** `# Phase`, then `step text`; `! step text | why` is a hold point; `[id]` at the end ties a line to its step. */
export function procedureText(procedure: WorkProcedure): string {
  return procedure.phases
    .map((phase) =>
      [
        `# ${phase.title}`,
        ...phase.steps.map((s) => `${s.hold ? "! " : ""}${s.text}${s.hold ? ` | ${s.hold}` : ""} [${s.id}]`),
      ].join("\n"),
    )
    .join("\n\n");
}

interface Line {
  text: string;
  hold: string | undefined;
  id: string | undefined;
}

function lineOf(line: string): Line {
  const tied = /^(.*?)\s*\[([a-z0-9-]{1,40})\]$/.exec(line);
  const body = tied ? tied[1]! : line;
  const held = /^!\s*(.*)$/.exec(body);
  const [text = "", ...why] = (held ? held[1]! : body).split("|");
  return {
    text: text.trim(),
    hold: held ? why.join("|").trim() || "a hold point of this plant" : undefined,
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
  for (const [i, raw] of (fields.steps ?? "").split(/\r?\n/).entries()) {
    const line = raw.trim();
    const at = `Line ${i + 1}: `;
    if (line === "") continue;
    if (line.length > LONGEST) return wrong({ steps: `${at}at most ${LONGEST} characters.` });
    if (line.startsWith("#")) {
      phases.push({ title: line.replace(/^#+\s*/, "") || "Steps", steps: [] });
      continue;
    }
    const { text, hold, id } = lineOf(line);
    if (text.length < 3) return wrong({ steps: `${at}say what is done.` });
    const phase = phases.at(-1) ?? phases[phases.push({ title: "Steps", steps: [] }) - 1]!;
    let own = id && known.has(id) && !ids.has(id) ? id : undefined;
    for (let n = 1; !own; n++) if (!ids.has(`own-${n}`) && !known.has(`own-${n}`)) own = `own-${n}`;
    ids.add(own);
    const { hold: _before, ...rest } = known.get(own) ?? { id: own, text };
    phase.steps.push({ ...rest, id: own, text, ...(hold !== undefined && { hold }) });
  }
  const steps = phases.flatMap((p) => p.steps);
  if (steps.length === 0) return wrong({ steps: "Write at least one step." });
  if (steps.length > MOST_STEPS) return wrong({ steps: `At most ${MOST_STEPS} steps.` });
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
