/** The fate of each row of a file: what would be added, and what is wrong with the rest, line by line. */
import {
  fittedAt,
  meterOffset,
  NOT_FITTED,
  parseQuantity,
  physicallyOdd,
  questionHours,
  readingProblems,
  readingStateIds,
  readingStates,
  type KnownOfCircuit,
  type MeterChange,
  type ParsedQuantity,
  type PointQuantityId,
  type QuantityId,
  type ReadingState,
} from "@core";
import { clip, parseMoment } from "~/platform/csvCells";
import type { ImportField, Mapping } from "./mapping";

export interface ImportPoint {
  id: string;
  code: string;
  quantity: PointQuantityId;
  unit: string;
  state: ReadingState;
  timeZone: string;
  lives: { id: string; startedAt: number; endedAt: number | null }[];
  /** Changes of its machine's hour meter, the machine's duty, and the newest hours noted at this point. */
  meter: MeterChange[];
  hoursPerDay: number;
  noted: { at: number; hours: number } | null;
  known: KnownOfCircuit;
}

export interface ImportLookup {
  /** By folded code, by code and state, and by id; null: several points share the code. */
  points: Map<string, ImportPoint | null>;
  /** By the key of a name that was tied to it. */
  names: Map<string, ImportPoint>;
  instruments: Map<string, string>;
  now: number;
}

export interface NewReading {
  line: number;
  pointId: string;
  lifeId: string;
  takenAt: number;
  value: number;
  least: number | null;
  entered: string;
  temperature: number | null;
  pressure: number | null;
  speed: number | null;
  hours: number | null;
  instrumentId: string | null;
  note: string;
  by: string;
  keptBecause?: string;
  doubtful?: boolean;
}

export type Fate =
  | { line: number; fate: "add"; reading: NewReading; point: ImportPoint; odd?: string; earlier?: boolean }
  | { line: number; fate: "there" }
  | { line: number; fate: "bad"; reason: string };

export const BEGIN_EARLIER = "Or tick “begin these lives at their first reading” beside the columns.";

/** Key of a point by its machine and bare name, or its machine and what it reads. */
export const ofMachine = (machine: string, name: string) => `${foldCode(machine)}##${foldCode(name)}`;

/** Codes are compared without regard to case and to spaces around the strokes. */
export function foldCode(text: string): string {
  return text
    .toLowerCase()
    .replace(/\s+/g, " ")
    .replace(/\s*\/\s*/g, "/")
    .trim();
}

/** Key of a name as a file gives it. */
export const nameKey = (machine: string, component: string, name: string) =>
  foldCode([machine, component, name].filter(Boolean).join(" / "));

/** Key of a point by its code and the state that it is read in. */
export const codeInState = (code: string, state: ReadingState) => `${foldCode(code)}#${state}`;

/** The state that a cell names, by its id or in words. */
function stateOf(cell: string): ReadingState | undefined {
  return readingStateIds.find(
    (id) => id.toLowerCase() === cell.toLowerCase() || readingStates[id].toLowerCase() === cell.toLowerCase(),
  );
}

const isYes = (cell: string) => /^(true|t|yes|y|1|x)$/i.test(cell);

/** Equal but for rounding on the way through a file. */
const isSame = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));

/** A reader of rows under a mapping. It remembers what it has seen: a row that says the same again is "there". */
export function rowReader(
  mapping: Mapping,
  lookup: ImportLookup,
  defaultBy: string,
  /** Is told each name that no code of the fleet explains, and the point that it was tied to. */
  onName: (key: string, text: string, point: ImportPoint | null) => void = () => undefined,
) {
  const seen = new Map<string, Map<number, { line: number; value: number }>>();
  const lastHours = new Map<string, { at: number; hours: number; shown: number }>();
  const fixed = mapping.pointId ? lookup.points.get(mapping.pointId) : undefined;

  /** Hours that do not fit the row before it, or what was noted last: kept, and not believed. */
  function oddHours(point: ImportPoint, at: number, shown: number): string | undefined {
    const typed = { at, hours: shown + meterOffset(point.meter, at), shown };
    const before =
      lastHours.get(point.id) ??
      (point.noted && point.noted.at < at
        ? {
            at: point.noted.at,
            hours: point.noted.hours + meterOffset(point.meter, point.noted.at),
            shown: point.noted.hours,
          }
        : null);
    if (before && before.at > at) return undefined;
    const question = questionHours(typed, before, null, point.hoursPerDay, (moment) =>
      new Intl.DateTimeFormat("en-GB", {
        day: "numeric",
        month: "short",
        year: "numeric",
        timeZone: point.timeZone,
      }).format(moment),
    );
    if (!question) lastHours.set(point.id, typed);
    return question;
  }

  return function fateOf(cells: readonly string[], line: number): Fate {
    const bad = (reason: string): Fate => ({ line, fate: "bad", reason });
    const cell = (field: ImportField) => {
      const index = mapping.columns[field];
      // the apostrophe that an export puts before what a spreadsheet would take for a formula
      return typeof index === "number" ? (cells[index] ?? "").trim().replace(/^'(?=[=+\-@])/, "") : "";
    };
    const state = cell("state");
    const named = stateOf(state);
    let point = fixed;
    if (!point) {
      const name = cell("point");
      if (!name) return bad("No point is named.");
      const machine = cell("machine");
      const code = machine && cell("component") ? `${machine}/${cell("component")}/${name}` : name;
      point =
        (named && lookup.points.get(codeInState(code, named))) ??
        lookup.points.get(foldCode(code)) ??
        lookup.points.get(name.toLowerCase());
      if (point === undefined && machine && !cell("component")) point = lookup.points.get(ofMachine(machine, name));
      if (!point) {
        const key = nameKey(machine, cell("component"), name);
        const tied = lookup.names.get(key);
        onName(key, [machine, cell("component"), name].filter(Boolean).join(", "), tied ?? null);
        if (tied) point = tied;
      }
      if (point === null)
        return bad(`Several points are called “${clip(code)}”: say the state it is read in, or use the id.`);
      if (!point) return bad(`There is no point “${clip(code)}”.`);
    }
    if (isYes(cell("superseded"))) return bad("It was corrected later: only what counts is brought in.");
    const when = cell("takenAt");
    if (!when) return bad("No date.");
    const takenAt = parseMoment(cell("time") ? `${when} ${cell("time")}` : when, mapping.dateOrder, point.timeZone);
    if (Number.isNaN(takenAt)) return bad(`“${clip(when)}” is not a date in the order chosen.`);

    const quantity = (
      field: ImportField,
      id: QuantityId,
      assume: string | undefined,
    ): { value: ParsedQuantity | null; problem?: string } => {
      const text = cell(field);
      if (text === "" || text === "-" || text === "–") return { value: null };
      const result = parseQuantity(text, id, { decimalMark: mapping.decimalMark, ...(assume ? { assume } : {}) });
      return result.ok ? { value: result.parsed } : { value: null, problem: result.message };
    };
    const value = quantity("value", point.quantity, cell("unit") || mapping.units.value || point.unit);
    if (value.problem) return bad(value.problem);
    if (!value.value) return bad("No value.");
    const least = quantity("least", point.quantity, cell("unit") || mapping.units.value || point.unit);
    const temperature = quantity("temperature", "oilTemperature", mapping.units.temperature);
    const pressure = quantity("pressure", "loadPressure", mapping.units.pressure);
    const speed = quantity("speed", "speed", undefined);
    const hours = quantity("hours", "runningHours", undefined);
    const unread = [least, temperature, pressure, speed, hours].find((q) => q.problem);
    if (unread) return bad(unread.problem!);
    if (state && !named) return bad(`“${clip(state)}” is not a state that a series is read in.`);
    const [problem] = Object.values(
      readingProblems(
        { takenAt, value: value.value.value, least: least.value?.value ?? null, state: named ?? null },
        point.state,
        lookup.now,
      ),
    );
    if (problem) return bad(problem);
    const tag = cell("instrument");
    const instrumentId = tag ? lookup.instruments.get(tag.toLowerCase()) : null;
    if (instrumentId === undefined) return bad(`There is no instrument “${clip(tag)}”.`);
    const fitted = fittedAt(point.lives, takenAt);
    const [first] = [...point.lives].sort((a, b) => a.startedAt - b.startedAt);
    const earlier = !fitted && first !== undefined && takenAt < first.startedAt;
    const life = fitted ?? (earlier && mapping.beginLives ? first : undefined);
    if (!life) return bad(earlier ? `${NOT_FITTED} ${BEGIN_EARLIER}` : NOT_FITTED);

    const moments = seen.get(point.id) ?? new Map<number, { line: number; value: number }>();
    const before = moments.get(takenAt);
    if (before)
      return isSame(before.value, value.value.value)
        ? { line, fate: "there" }
        : bad(`Line ${before.line} says another value for the same moment.`);
    seen.set(point.id, moments.set(takenAt, { line, value: value.value.value }));
    const odd =
      physicallyOdd(point.quantity, value.value.value, point.known) ??
      (hours.value ? oddHours(point, takenAt, hours.value.value) : undefined);
    const typed = cell("entered") ? quantity("entered", point.quantity, undefined).value : null;
    const asEntered =
      typed && isSame(typed.value, value.value.value) ? cell("entered") : `${value.value.entered} ${value.value.unit}`;
    return {
      line,
      fate: "add",
      point,
      ...(odd && { odd }),
      ...(earlier && { earlier }),
      reading: {
        line,
        pointId: point.id,
        lifeId: life.id,
        takenAt,
        value: value.value.value,
        least: least.value?.value ?? null,
        entered: asEntered,
        temperature: temperature.value?.value ?? null,
        pressure: pressure.value?.value ?? null,
        speed: speed.value?.value ?? null,
        hours: hours.value?.value ?? null,
        instrumentId,
        note: cell("note").slice(0, 1000),
        by: cell("by").slice(0, 100) || defaultBy,
        keptBecause: cell("keptBecause").slice(0, 1000),
        doubtful: isYes(cell("doubtful")),
      },
    };
  };
}
