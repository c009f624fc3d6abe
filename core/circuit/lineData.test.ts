import { describe, expect, test } from "@jest/globals";
import { stateLine } from "./edit";
import { ageOf, lineRemarks, lineStyle, whyNotLine } from "./lineData";
import type { CircuitLine, LineData, Netlist } from "./netlist";

const NOW = Date.UTC(2026, 10, 24);
const hose: LineData = { made: "hose", rating: 280, bore: 12.5, length: 1.2, fittedOn: "2023-05-31", tag: "H-17" };
const element = (id: string, kind: Netlist["elements"][number]["kind"], data = {}) => ({
  id,
  kind,
  name: id,
  componentId: null,
  data,
});
const line = (from: [string, string], to: [string, string], data: LineData | null): CircuitLine => ({
  id: "l0",
  from: { element: from[0], port: from[1] },
  to: { element: to[0], port: to[1] },
  data,
});
const circuit = (l: CircuitLine): Netlist => ({
  elements: [element("pump", "fixedPump"), element("relief", "relief", { crack: 265 }), element("tank", "tank")],
  lines: [l],
  gauges: [],
});

describe("what is known of a line", () => {
  test.each([
    [{ rating: 28_000 }, /Rated pressure: 28000 lies outside 2 to 1500 bar. Is the unit right/],
    [{ bore: 0.5 }, /Bore/],
    [{ length: 0 }, /Length/],
    [{ fittedOn: "2027-01-01" }, /future/],
    [{ fittedOn: "2026-02-31x" }, /write a date/],
    [{ tag: "x".repeat(41) }, /tag/],
  ] as const)("%j is refused", (change, problem) => {
    expect(whyNotLine({ ...hose, ...change }, NOW)).toMatch(problem);
  });

  test("what is not known is no mistake", () => {
    expect(whyNotLine({ made: "pipe", rating: null, bore: null, length: null, fittedOn: "", tag: "" }, NOW)).toBe(
      undefined,
    );
    expect(ageOf({ ...hose, fittedOn: "" }, NOW)).toBeNull();
    expect(ageOf(hose, NOW)).toBeCloseTo(1273 / 365.25);
  });
});

describe("held against the circuit", () => {
  const out = (change: Partial<LineData>) => {
    const l = line(["pump", "out"], ["relief", "P"], { ...hose, ...change });
    return lineRemarks(circuit(l), l, NOW)
      .flat()
      .map((p) => ("text" in p ? p.text : "value" in p ? `${p.value} (${p.quantity})` : ""))
      .join("");
  };
  test("a hose rated below the relief valve's setting", () => {
    expect(out({ rating: 264 })).toMatch(
      /Rated 264 \(loadPressure\), and the relief valve allows 265 \(loadPressure\)/,
    );
    expect(out({ rating: 265 })).toBe("");
  });
  test("a return line may be rated low", () => {
    const l = line(["relief", "T"], ["tank", "T"], { ...hose, rating: 16 });
    expect(lineRemarks(circuit(l), l, NOW)).toEqual([]);
  });
  test("nor is a drain's pipe under the relief valve's pressure, though it begins at an outlet", () => {
    const drain = { id: "drain", kind: "line" as const, name: "Case line", componentId: null, data: {} };
    const l = line(["drain", "out"], ["tank", "T"], { ...hose, rating: 16 });
    const n = circuit(l);
    const whole = {
      ...n,
      elements: [...n.elements, drain],
      lines: [...n.lines, line(["pump", "case"], ["drain", "in"], null)],
    };
    expect(lineStyle(whole, l)).toBe("case");
    expect(lineRemarks(whole, l, NOW)).toEqual([]);
    expect(lineStyle({ ...n, elements: [...n.elements, drain] }, l)).toBe("return");
  });
  test("a hose of six years; a pipe of the same age is none", () => {
    expect(out({ fittedOn: "2020-11-23" })).toMatch(/^6 years old/);
    expect(out({ fittedOn: "2020-11-26" })).toBe("");
    expect(out({ fittedOn: "2010-01-01", made: "pipe" })).toBe("");
  });
  test("a line of which nothing is known", () => {
    const l = line(["pump", "out"], ["relief", "P"], null);
    expect(lineRemarks(circuit(l), l, NOW)).toEqual([]);
  });
});

test("stated in the drawing, refused with the reason, and taken back", () => {
  const n = circuit(line(["pump", "out"], ["relief", "P"], null));
  const stated = stateLine(n, "l0", hose, NOW);
  expect(stated).toMatchObject({ ok: true, netlist: { lines: [{ data: hose }] } });
  expect(stateLine(n, "l0", { ...hose, bore: 9999 }, NOW)).toMatchObject({ ok: false });
  expect(stateLine(n, "gone", hose, NOW)).toMatchObject({ ok: false, problem: "That line is gone." });
  expect(stated.ok && stateLine(stated.netlist, "l0", null, NOW)).toEqual({ ok: true, netlist: n });
});
