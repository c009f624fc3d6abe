/** Why a part is in the plan, and what it takes: no database, one rule a test. */
import { describe, expect, test } from "@jest/globals";
import { DAY } from "../units/time";
import { pieceOf, reasonsIn, type PieceComponent, type PieceFault, type PiecePoint, type PieceWork } from "./piece";

const AT = Date.UTC(2026, 10, 24);
const point = (change: Partial<PiecePoint> = {}): PiecePoint => ({
  pointId: "p1",
  componentId: "pump",
  circuitId: "k",
  machine: "Crane 1",
  point: "Case drain flow",
  kind: "axialPistonPump",
  quantity: "caseDrainFlow",
  state: "alert",
  crossings: [10, 20, 30, 40].map((days) => AT + days * DAY),
  noTrend: false,
  beyond: 0.01,
  used: 0.6,
  scatter: 0.05,
  ...change,
});
const pump: PieceComponent = {
  componentId: "pump",
  circuitId: "k",
  machineId: "m",
  machine: "Crane 1",
  component: "Main pump",
  kind: "axialPistonPump",
  leadTimeDays: 20,
  partCost: null,
  failureCost: null,
  spares: 0,
  fittedAt: null,
};
const fault = (change: Partial<PieceFault["act"]> = {}, explains = ["p1"]): PieceFault => ({
  key: "k/1",
  circuitId: "k",
  element: "pump",
  text: "Main pump: worn, × 2",
  explains,
  act: { do: "replace", text: "Replace the pump", minutes: 300, part: true, stop: true, ...change },
});
const work = (change: Partial<PieceWork> = {}): PieceWork => ({
  id: "w",
  pointId: null,
  kind: "replacement",
  crewHours: 6,
  orderedOn: null,
  stopId: "s1",
  ahead: true,
  ...change,
});
const made = (points: PiecePoint[], given: { work?: PieceWork; fault?: PieceFault; pump?: PieceComponent } = {}) =>
  pieceOf(
    given.pump ?? pump,
    points.length > 0 ? [{ componentId: "pump", points, fault: given.fault ?? null }] : [],
    given.work,
    AT,
    "UTC",
    () => 1,
  );

describe("why a component is in the plan", () => {
  test("a fault takes the points that it explains; the others stand for themselves", () => {
    const { reasons } = reasonsIn([point(), point({ pointId: "p2", componentId: "valve" })], [fault()]);
    expect(reasons.map((r) => [r.componentId, r.points.map((p) => p.pointId), r.fault?.key])).toEqual([
      ["pump", ["p1"], "k/1"],
      ["valve", ["p2"], undefined],
    ]);
  });
  test("a point is explained once, by the likeliest fault, and only in its own circuit", () => {
    expect(reasonsIn([point()], [fault(), { ...fault(), key: "k/2" }]).reasons).toHaveLength(1);
    expect(reasonsIn([point()], [{ ...fault(), circuitId: "other" }]).reasons[0]!.fault).toBeNull();
  });
  test("what is set without a stop is no piece of the plan", () => {
    const { reasons, atOnce } = reasonsIn([point()], [fault({ stop: false, part: false, do: "set" })]);
    expect(reasons).toEqual([]);
    expect(atOnce.map((a) => a.worst.pointId)).toEqual(["p1"]);
  });
});

describe("what is done", () => {
  test.each([
    ["wear renews the part", [point()], {}, "Renew the part", true],
    [
      "what is no wear is looked at",
      [point({ quantity: "temperature", point: "Oil temperature" })],
      {},
      "Look at it: oil temperature",
      false,
    ],
    ["a fault says how it is cured", [point()], { fault: fault() }, "Replace: worn, ×\u00a02", true],
    [
      "booked work goes first",
      [point()],
      { work: work({ kind: "inspection" }), fault: fault() },
      "Inspect or test it",
      false,
    ],
    ["work by hand needs no point", [], { work: work() }, "Replace the part", true],
  ] as const)("%s", (_, points, given, act, needsPart) =>
    expect(made([...points], given).facts).toMatchObject({ act, needsPart }),
  );
  test("what needs no part waits for none and costs none", () => {
    const { piece } = made([point({ quantity: "temperature" })]);
    expect(piece).toMatchObject({ partAt: null, partSure: true, costs: { part: 0 } });
  });
  test("a part is there after its lead time, at once from the shelf", () => {
    expect(made([point()]).piece.partAt).toBe(AT + 20 * DAY);
    expect(made([point()], { pump: { ...pump, leadTimeDays: 0 } }).piece).toMatchObject({ partAt: AT, partSure: true });
    expect(made([point()], { work: work({ orderedOn: "2026-11-14" }) }).piece.partAt).toBe(AT + 10 * DAY);
  });
  test("a minute’s act takes an hour of a crew; work takes what was booked", () => {
    expect(made([point()], { fault: fault({ part: false, minutes: 20 }) }).piece.hours).toEqual({ mechanical: 1 });
    expect(made([point()], { work: work() }).piece.hours).toEqual({ mechanical: 6 });
  });
  test.each([
    [undefined, null],
    [work(), "s1"],
    [work({ ahead: false }), null],
    [work({ stopId: null, ahead: null }), "own"],
  ])("booked for %#", (booked, stop) => expect(made([point()], { work: booked }).piece.booked).toBe(stop));
});

describe("when its limit comes", () => {
  test("beyond it, it has come", () => expect(made([point({ beyond: 0.9 })]).piece.crossings).toEqual([AT]));
  test("without a trend the chance of today is all that is told", () => {
    const { crossings } = made([point({ noTrend: true, beyond: 0.25 })]).piece;
    expect(crossings.filter((c) => c === AT)).toHaveLength(5);
    expect(crossings.filter((c) => c === null)).toHaveLength(15);
  });
  test("of two points of one part the earlier counts, quantile by quantile", () => {
    const late = point({ pointId: "p2", crossings: [15, 16, 17, null].map((d) => d && AT + d * DAY) });
    expect(made([point(), late]).piece.crossings).toEqual([AT + 10 * DAY, AT + 17 * DAY]);
  });
  test("a worn part of unknown age is a year old, one that was fitted today a day", () => {
    expect(made([point()]).piece.since).toBe(AT - 365 * DAY);
    expect(made([point()], { pump: { ...pump, fittedAt: new Date(AT) } }).piece.since).toBe(AT - DAY);
  });
  test("one more reading tells of the point whose limit comes first, never surer than a fiftieth", () => {
    const late = point({ pointId: "p2", crossings: [100, 200].map((d) => AT + d * DAY), used: 0.1 });
    expect(made([late, point({ scatter: 0.001 })]).piece.reads).toEqual({ level: 0.6, deviation: 0.02 });
    expect(made([point({ noTrend: true })]).piece.reads).toBeNull();
  });
});
