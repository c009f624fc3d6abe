/** Results as laboratories write them, mappings, and the fate of rows. */
import { parseResult, parseResults, type BareUnits } from "./form";
import { fits, guessLabColumns, labMappingOf, labMappingSchema, type LabMapping } from "./labFile/mapping";
import { foldName, labReader, type LabLookup } from "./labFile/rows";
import { parseMaterials } from "./materials";

const units: BareUnits = { counts: "/mL", water: "ppm" };
const NOW = Date.UTC(2026, 10, 24);

describe("a result as written", () => {
  test.each([
    ["12", "iron", { value: 12 }],
    ["< 5", "iron", { value: 5, below: true }],
    ["<=0,5", "iron", { value: 0.5, below: true }],
    [">20000", "over4", { value: 20_000, above: true }],
    ["0.05 %", "water", { value: 500 }],
    ["", "iron", null],
    ["–", "iron", null],
    ["n.d.", "iron", null],
    ["46 cSt", "kv40", { value: 46 }],
  ] as const)("%p of %p", (text, id, expected) => {
    expect(parseResult(text, id, units)).toEqual(expected);
  });
  test("bare counts per 100 mL, bare water in percent, decimal commas", () => {
    expect(parseResult("90000", "over4", { ...units, counts: "/100 mL" })).toEqual({ value: 900 });
    expect(parseResult("0,03", "water", { ...units, water: "%", decimalMark: "," })).toEqual({
      value: expect.closeTo(300),
    });
  });
  test("what is no number is told, and what cannot be is told beside its field", () => {
    expect(parseResult("much", "iron", units)).toEqual(expect.any(String));
    const cells: Record<string, string> = { over4: "100", over6: "400", iron: "x" };
    expect(parseResults((id) => cells[id] ?? "", "44/1/1", units).problems).toEqual({
      over6: expect.stringContaining("cumulative"),
      iron: expect.any(String),
      code: expect.stringContaining("is not a scale number"),
    });
  });
});

test("materials, one a line", () => {
  expect(parseMaterials("Iron: shaft\ncopper : slippers; tin")).toEqual([
    { metal: "iron", part: "shaft" },
    { metal: "copper", part: "slippers" },
    { metal: "tin", part: "part of it" },
  ]);
  expect(parseMaterials("gold: ring")).toMatch(/“gold” is not one of/);
  expect(parseMaterials("")).toEqual([]);
});

describe("a laboratory's file", () => {
  const head = [
    "Bottle",
    "Machine tag",
    "Sample date",
    "> 4 µm (per 100 mL)",
    ">6μm",
    ">14 µm",
    "Fe [ppm]",
    "Water [%]",
    "ISO 4406",
  ];
  const mapping: LabMapping = {
    delimiter: ";",
    decimalMark: ",",
    dateOrder: "dmy",
    titleLines: 0,
    skipBad: false,
    ...guessLabColumns(head),
  };
  const circuit = { id: "k1", timeZone: "Europe/London", filledAt: Date.UTC(2022, 0, 1) };
  const lookup: LabLookup = {
    now: NOW,
    circuits: new Map([
      ["qc-1", circuit],
      ["two", null],
    ]),
  };
  test("headings, their units and what they are per are read", () => {
    expect(mapping.columns).toMatchObject({
      number: 0,
      machine: 1,
      takenAt: 2,
      over4: 3,
      over6: 4,
      over14: 5,
      iron: 6,
      water: 7,
      code: 8,
      copper: null,
    });
    expect(mapping).toMatchObject({ countsPer: "/100 mL", water: "%", hasHeader: true });
    expect(fits(mapping, ["bottle", ...head.slice(1)], head)).toBe(true);
    expect(fits(mapping, head.slice(1), head)).toBe(false);
  });
  test("good rows are samples; bad ones say why, with what they stumble over", () => {
    const read = labReader(mapping, lookup, "T. Wren");
    const row = (change: Partial<Record<number, string>> = {}) =>
      Object.values({
        ...["B-1", "QC-1", "20.11.2026", "90000", "24000", "3000", "<1,0", "0,01", ""],
        ...change,
      }) as string[];
    expect(read(row(), 2)).toMatchObject({
      fate: "add",
      sample: {
        circuitId: "k1",
        number: "B-1",
        place: "notStated",
        takenBy: "T. Wren",
        results: { over4: { value: 900 }, iron: { value: 1, below: true }, water: { value: expect.closeTo(100) } },
      },
    });
    let bottle = 1;
    const reason = (change: Partial<Record<number, string>>) => {
      const fate = read(row({ 0: `B-${++bottle}`, ...change }), 3);
      return fate.fate === "bad" ? fate.reason : fate.fate;
    };
    expect(reason({ 0: "B-1" })).toMatch(/stands in line 2 already/);
    expect(reason({ 0: "" })).toMatch(/No sample number/);
    expect(reason({ 1: "XX" })).toMatch(/no machine or circuit “XX”/);
    expect(reason({ 1: "two" })).toMatch(/several circuits/);
    expect(reason({ 2: "32.11.2026" })).toMatch(/not a date/);
    expect(reason({ 2: "20.11.2027" })).toMatch(/future/);
    expect(reason({ 2: "20.11.2020" })).toMatch(/before the circuit was first filled/);
    expect(reason({ 4: "99999999" })).toMatch(/cumulative/);
    expect(reason({ 7: "40" })).toMatch(/check the unit/);
    expect(reason({ 8: "16/18/13" })).toMatch(/larger size/);
    expect(reason({ 3: "", 4: "", 5: "", 6: "", 7: "" })).toMatch(/No result/);
  });
  test("a counter that runs backwards is told", () => {
    const read = labReader({ ...mapping, columns: { ...mapping.columns, hours: 9 } }, lookup, "");
    const row = (number: string, day: string, hours: string) =>
      read([number, "QC-1", day, "900", "", "", "", "", "", hours], 5);
    expect(row("1", "10.11.2026", "500").fate).toBe("add");
    expect(row("2", "12.11.2026", "400")).toMatchObject({
      fate: "bad",
      reason: expect.stringContaining("backwards against line 5"),
    });
    expect(row("3", "12.11.2026", "510").fate).toBe("add");
  });
  test("words for where and how are understood", () => {
    const read = labReader({ ...mapping, columns: { ...mapping.columns, place: 9, state: 10 } }, lookup, "");
    const fate = (place: string, state: string) => {
      const f = read(["P" + place + state, "QC-1", "20.11.2026", "1", "", "", "", "", "", place, state], 4);
      return f.fate === "add" ? [f.sample.place, f.sample.state] : f;
    };
    expect(fate("drain cock", "cold, standing")).toEqual(["drain", "cold"]);
    expect(fate("return line", "running")).toEqual(["port", "working"]);
    expect(fate("reservoir", "just stopped")).toEqual(["tank", "warm"]);
    expect(fate("filter housing", "?")).toEqual(["bowl", "notStated"]);
  });
  test("the mapping goes through its form unchanged; names fold", async () => {
    const form: Record<string, string> = {
      delimiter: ";",
      decimalMark: ",",
      hasHeader: "on",
      dateOrder: "dmy",
      countsPer: "/100 mL",
      water: "%",
      ...Object.fromEntries(
        Object.entries(mapping.columns).map(([k, v]) => [`column-${k}`, v === null ? "" : String(v)]),
      ),
    };
    expect(await labMappingSchema.validate(labMappingOf(form))).toEqual(mapping);
    expect(foldName("QC-1 / Hoist  circuit")).toBe("qc-1/hoist circuit");
  });
});
