/** The fate of each row of a laboratory's file. */
import {
  DAY,
  parseQuantity,
  samplePlaces,
  sampleStates,
  type AnalyteId,
  type Results,
  type SamplePlace,
  type SampleState,
} from "@core";
import { clip, parseMoment } from "~/platform/csvCells";
import { parseResults } from "~/domain/oil/form";
import type { LabMapping, PlaceField } from "./mapping";

export interface LabCircuit {
  id: string;
  timeZone: string;
  filledAt: number | null;
}

export interface LabLookup {
  /** By folded tag, machine name, "tag/circuit" and id; null: several circuits answer to it. */
  circuits: Map<string, LabCircuit | null>;
  now: number;
}

export interface NewSample {
  circuitId: string;
  number: string;
  takenAt: number;
  hours: number | null;
  place: SamplePlace;
  state: SampleState;
  results: Results;
  code: string | null;
  colour: string;
  takenBy: string;
  note: string;
}

export type LabFate =
  | { line: number; fate: "add"; sample: NewSample }
  | { line: number; fate: "there" }
  | { line: number; fate: "bad"; reason: string };

export const foldName = (text: string) =>
  text
    .toLowerCase()
    .replace(/\s+/g, " ")
    .replace(/\s*\/\s*/g, "/")
    .trim();

/** A word of the laboratory for where or how, by what it contains. */
function placeOf(text: string): SamplePlace {
  const t = text.toLowerCase();
  if (Object.hasOwn(samplePlaces, text)) return text as SamplePlace;
  if (/drain|bottom|sump/.test(t)) return "drain";
  if (/bowl|housing|element|component/.test(t)) return "bowl";
  if (/tank|reservoir/.test(t)) return "tank";
  return /port|line|live|return|pressure/.test(t) ? "port" : "notStated";
}

function stateOf(text: string): SampleState {
  const t = text.toLowerCase();
  if (Object.hasOwn(sampleStates, text)) return text as SampleState;
  if (/cold|stand/.test(t)) return "cold";
  if (/work|run|hot/.test(t)) return "working";
  return /warm|stop/.test(t) ? "warm" : "notStated";
}

/** A reader of rows under a mapping. It remembers the numbers that it has seen. */
export function labReader(mapping: LabMapping, lookup: LabLookup, defaultBy: string) {
  const seen = new Map<string, number>();
  const counters = new Map<string, { line: number; at: number; hours: number }>();
  return function fateOf(cells: readonly string[], line: number): LabFate {
    const bad = (reason: string): LabFate => ({ line, fate: "bad", reason });
    const cell = (field: PlaceField | AnalyteId) => {
      const index = mapping.columns[field];
      return typeof index === "number" ? (cells[index] ?? "").trim() : "";
    };
    const number = cell("number").slice(0, 60);
    if (!number) return bad("No sample number.");
    const before = seen.get(number);
    if (before !== undefined) return bad(`Number ${clip(number)} stands in line ${before} already.`);
    seen.set(number, line);
    const name = cell("machine");
    if (!name) return bad("No machine is named.");
    const circuit = lookup.circuits.get(foldName(name));
    if (circuit === null) return bad(`“${clip(name)}” has several circuits: write TAG/circuit.`);
    if (!circuit) return bad(`There is no machine or circuit “${clip(name)}”.`);
    const when = cell("takenAt");
    if (!when) return bad("No date.");
    const takenAt = parseMoment(cell("time") ? `${when} ${cell("time")}` : when, mapping.dateOrder, circuit.timeZone);
    if (Number.isNaN(takenAt)) return bad(`“${clip(when)}” is not a date in the order chosen.`);
    if (takenAt > lookup.now + DAY) return bad(`${clip(when)} is in the future.`);
    if (circuit.filledAt !== null && takenAt < circuit.filledAt - DAY)
      return bad(`${clip(when)} is before the circuit was first filled.`);
    const hoursText = cell("hours");
    const hours = hoursText ? parseQuantity(hoursText, "runningHours", { decimalMark: mapping.decimalMark }) : null;
    if (hours && !hours.ok) return bad(hours.message);
    const counter = counters.get(circuit.id);
    if (hours?.ok) {
      if (counter && (takenAt - counter.at) * (hours.parsed.value - counter.hours) < 0)
        return bad(`The hours run backwards against line ${counter.line}.`);
      counters.set(circuit.id, { line, at: takenAt, hours: hours.parsed.value });
    }
    const code = cell("code").replace(/^iso\s*(4406)?[:\s]*/i, "");
    const { results, problems } = parseResults((id) => cell(id), code, {
      counts: mapping.countsPer,
      water: mapping.water,
      decimalMark: mapping.decimalMark,
    });
    const wrong = Object.entries(problems)[0];
    if (wrong) return bad(wrong[1]);
    if (Object.keys(results).length === 0 && !code) return bad("No result in this row.");
    return {
      line,
      fate: "add",
      sample: {
        circuitId: circuit.id,
        number,
        takenAt,
        hours: hours?.ok ? hours.parsed.value : null,
        place: placeOf(cell("place")),
        state: stateOf(cell("state")),
        results,
        code: code || null,
        colour: cell("colour").slice(0, 100),
        takenBy: cell("takenBy").slice(0, 100) || defaultBy,
        note: cell("note").slice(0, 1000),
      },
    };
  };
}
