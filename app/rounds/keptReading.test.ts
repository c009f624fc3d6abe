/** What a tablet keeps of a reading: it means the same whoever sends it, and says what was not as it should be. */
import { outgoingOf } from "~/domain/rounds/outgoing";
import type { WalkPoint } from "~/domain/rounds/queries.server";
import { emptyEntry, judgeEntry, repeatsOf, type Entry } from "./entry";
import { isAnswered, keptFields, type ReadEntry } from "./keptReading";
import { drain, NOW } from "./testPoint";

const show = (core: number) => core.toFixed(2);

function read(typed: Partial<Entry>, more: Partial<ReadEntry> = {}, point: WalkPoint = drain, units = {}) {
  const entry = { ...emptyEntry, ...typed };
  const judged = judgeEntry(entry, point, NOW, units);
  const settled = more.repeats?.length ? repeatsOf([...more.repeats, judged.value!], point, judged.expected) : null;
  return { entry, judged, settled, repeats: [], reason: "", open: [], at: NOW, ...more };
}

test("bare figures get the units that they were typed in: the point's, and the person's", () => {
  const units = { pressure: "psi", temperature: "°F" };
  const typed = { value: "1.5", temperature: "118", pressure: "3000", hours: "12020" };
  expect(keptFields(read(typed, {}, drain, units), drain, units, show)).toMatchObject({
    value: "1.5 L/min",
    temperature: "118 °F",
    pressure: "3000 psi",
    hours: "12020",
    least: "",
    takenAt: "2026-11-24T09:00",
    note: "",
    keptBecause: "",
  });
});

test("a unit that was written stays, and what was left empty stays empty", () =>
  expect(keptFields(read({ value: "0.4 gal/min" }), drain, {}, show)).toMatchObject({
    value: "0.4 gal/min",
    temperature: "",
    pressure: "",
  }));

test("a point that reads the oil itself states the condition by its value", () => {
  const tank = { ...drain, quantity: "temperature", unit: "°C", isOilTemperature: true } as const;
  expect(keptFields(read({ value: "52" }, {}, tank), tank, {}, show)).toMatchObject({
    value: "52 °C",
    temperature: "52 °C",
  });
});

test("over a cycle the least is kept beside the greatest, in the same unit", () => {
  const cycle = { ...drain, readState: "cycle" } as const;
  expect(keptFields(read({ value: "2", least: "1" }, {}, cycle), cycle, {}, show)).toMatchObject({
    value: "2 L/min",
    least: "1 L/min",
    state: "cycle",
  });
});

test("conditions that nobody ticked and readings before this one stand in the note", () => {
  const { note, value, keptBecause } = keptFields(
    read({ value: "9" }, { repeats: [9.1], open: ["at 210 bar", "Read idle"] }),
    drain,
    {},
    show,
  );
  expect(note).toBe("Not confirmed: at 210 bar; Read idle. Read 2 times: 9.10, 9.00.");
  // the two agree: their middle is kept, and why stands beside it
  expect(Number.parseFloat(value!)).toBeCloseTo(9.05, 3);
  expect(keptBecause).not.toBe("");
});

describe("a value that is asked about", () => {
  const odd = { value: "9" };
  test("waits for a reason or for repeats that come to something", () => {
    expect(isAnswered(read(odd))).toBe(false);
    expect(isAnswered(read(odd, { repeats: [2] }))).toBe(false);
    expect(isAnswered(read(odd, { repeats: [9.1] }))).toBe(true);
    expect(isAnswered(read(odd, { repeats: [2, 5] }))).toBe(true);
    expect(isAnswered(read(odd, { reason: "Load was different" }))).toBe(true);
    expect(isAnswered(read({ value: "1.5" }))).toBe(true);
  });
  test("is kept with the reason that was given, before what the repeats said", () =>
    expect(keptFields(read(odd, { repeats: [9.1], reason: "Load was different" }), drain, {}, show).keptBecause).toBe(
      "Load was different",
    ));
});

test("it is an entry that the server takes", () => {
  const id = () => crypto.randomUUID();
  const fields = keptFields(read({ value: "1.5", hours: "12020" }), drain, {}, show);
  const entry = { kind: "reading", submission: id(), roundId: id(), pointId: id(), at: NOW, by: id(), fields };
  expect(outgoingOf(entry)).toEqual(entry);
});
