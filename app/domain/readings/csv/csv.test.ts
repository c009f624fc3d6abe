import { readFileSync } from "node:fs";
import Ajv from "ajv";
import { decode, guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import { guessDateOrder, looksLikeHeadings, parseMoment, unusedColumns } from "~/platform/csvCells";
import { fleetSchema } from "~/domain/assets/fleetFile/schema";
import { guessColumns, mappingOf, type Mapping } from "./mapping";
import { foldCode, rowReader, type ImportLookup, type ImportPoint } from "./rows";

const tz = "Europe/London";
const NOW = Date.UTC(2026, 10, 24, 12);

describe("files as they come", () => {
  test("marks and encodings", () => {
    expect(decode(Buffer.from("\ufeffä;b", "utf8")).replace(/^\ufeff/, "")).toBe("ä;b");
    expect(decode(Buffer.from("\ufeffä\tb", "utf16le"))).toBe("ä\tb");
    expect(decode(Buffer.from([0xe4, 0x3b, 0x62]))).toBe("ä;b");
  });
  test.each([
    ["a,b,c\n1,2,3", ","],
    ["a;b;c\n1,5;2;3", ";"],
    ["a\tb\n1\t2", "\t"],
    ["a|b\n1|2", "|"],
    ['"x,y";b\n1;2', ";"],
  ])("%p is split by %p", (text, expected) => expect(guessDelimiter(text)).toBe(expected));
  test("decimal commas are found beside dates with points", () => {
    expect(guessDecimalMark("Date;Value\n20.11.2026;1,48\n21.11.2026;0,37", ";")).toBe(",");
    expect(guessDecimalMark("Date;Value\n20.11.2026;1.48", ";")).toBe(".");
    expect(guessDecimalMark("a,b\n1,2", ",")).toBe(".");
  });
});

describe("headings of loggers and laboratories", () => {
  test.each([
    [
      ["Date", "Machine", "Component", "Point", "Case drain [l/min]", "Oil temp", "Pressure bar", "Run hours"],
      { takenAt: 0, machine: 1, component: 2, point: 3, value: 4, temperature: 5, pressure: 6, hours: 7 },
    ],
    [
      ["Aika", "Kone", "Mittauspiste", "Arvo", "Yksikkö", "Öljy °C"],
      { takenAt: 0, machine: 1, point: 2, value: 3, unit: 4, temperature: 5 },
    ],
    [
      ["Datum", "Uhrzeit", "Maschine", "Messstelle", "Messwert", "Einheit"],
      { takenAt: 0, time: 1, machine: 2, point: 3, value: 4, unit: 5 },
    ],
    [["Tid", "Maskin", "Mätpunkt", "Värde", "Drifttimmar"], { takenAt: 0, machine: 1, point: 2, value: 3, hours: 4 }],
  ])("%j", (head, columns) => {
    const guess = guessColumns(head);
    expect(guess.hasHeader).toBe(true);
    expect(guessColumns(["Zeitpunkt", "Maschine", "Messstelle", "Messwert", "Einheit"]).columns).toMatchObject({
      takenAt: 0,
      machine: 1,
      point: 2,
      value: 3,
      unit: 4,
    });
    expect(guess.columns).toMatchObject(columns);
  });
  test("a line of data is no headings, though it holds a word that is one", () => {
    expect(looksLikeHeadings(["02.11.2026 07:00", "Saw line B", "Oil temperature", "41,1", "°C", ""])).toBe(false);
    expect(looksLikeHeadings(["2026-11-20", "12,5", "204", "Oil temperature"])).toBe(false);
    expect(unusedColumns(["Date", "Received", "Value"], { takenAt: 0, value: 2 })).toEqual(["Received"]);
  });
});

describe("mapping", () => {
  test("headings in any order, with units in brackets", () => {
    const guess = guessColumns(["Remark", "Value [gal/min]", "Taken at", "Point", "Oil (°F)"]);
    expect(guess.columns).toMatchObject({ note: 0, value: 1, takenAt: 2, point: 3, temperature: 4, pressure: null });
    expect(guess.units).toEqual({ value: "gal/min", temperature: "°F", pressure: "" });
    expect(guess.hasHeader).toBe(true);
    expect(guessColumns(["LG-ON/Pump A/Case drain flow", "2026-11-20", "3.4"]).hasHeader).toBe(false);
  });
  test("what was exported is known again, column by column", () => {
    const head = [
      "point",
      "taken_at",
      "value",
      "unit",
      "least",
      "oil_c",
      "load_bar",
      "speed_rpm",
      "hours_h",
      "state",
      "instrument",
      "note",
      "by",
    ];
    const { columns } = guessColumns(head);
    expect(
      [
        "point",
        "takenAt",
        "value",
        "unit",
        "least",
        "temperature",
        "pressure",
        "speed",
        "hours",
        "state",
        "instrument",
        "note",
        "by",
      ].map((name) => columns[name as keyof typeof columns]),
    ).toEqual(head.map((_, i) => i));
    expect(guessColumns(["Oil C", "Load bar"]).columns).toMatchObject({ temperature: 0, pressure: 1 });
  });
  test.each([
    [["2026-11-20"], "ymd"],
    [["20.11.2026"], "dmy"],
    [["11/20/2026"], "mdy"],
    [["01/02/2026"], "dmy"],
  ] as const)("%p are %s", (samples, order) => expect(guessDateOrder(samples)).toBe(order));
  test("what the form sends", () =>
    expect(
      mappingOf({ delimiter: "tab", decimalMark: ",", hasHeader: "on", dateOrder: "dmy", "column-value": "2" }),
    ).toMatchObject({ delimiter: "\t", hasHeader: true, skipBad: false, columns: { value: "2", point: "" } }));
});

describe("dates", () => {
  test.each([
    ["2026-11-20T10:40:00Z", "ymd", Date.UTC(2026, 10, 20, 10, 40)],
    ["2026-07-20 10:40", "ymd", Date.UTC(2026, 6, 20, 9, 40)],
    ["20.11.2026 10:40", "dmy", Date.UTC(2026, 10, 20, 10, 40)],
    ["20/11/26", "dmy", Date.UTC(2026, 10, 20, 12)],
    ["11/20/2026 1:05 pm", "mdy", Date.UTC(2026, 10, 20, 13, 5)],
    ["20.11.2026, 10:40:30", "dmy", Date.UTC(2026, 10, 20, 10, 40, 30)],
  ] as const)("%s", (text, order, ms) => expect(parseMoment(text, order, tz)).toBe(ms));
  test.each([
    ["31.02.2026", "dmy"],
    ["2026-13-01", "ymd"],
    ["yesterday", "ymd"],
    ["20.11.2026 25:00", "dmy"],
    ["", "ymd"],
  ] as const)("%p is none", (text, order) => expect(parseMoment(text, order, tz)).toBeNaN());
});

describe("the fate of rows", () => {
  const point: ImportPoint = {
    id: "6f1c2a4e-0000-4000-8000-000000000001",
    code: "LG-ON/Pump A/Case drain flow",
    quantity: "caseDrainFlow",
    unit: "L/min",
    state: "fullStroke",
    timeZone: tz,
    lives: [{ id: "life", startedAt: Date.UTC(2020, 0, 1), endedAt: null }],
    meter: [],
    hoursPerDay: 8,
    noted: null,
    known: { pumpedFlow: 65, workingPressure: 210 },
  };
  const cycle: ImportPoint = { ...point, id: "6f1c2a4e-0000-4000-8000-000000000002", code: "X/Y/Z", state: "cycle" };
  const lookup: ImportLookup = {
    names: new Map(),
    points: new Map<string, ImportPoint | null>([
      [foldCode(point.code), point],
      [point.id, point],
      ["x/y/z", cycle],
      ["two/of/them", null],
    ]),
    instruments: new Map([["f-07", "instrument"]]),
    now: NOW,
  };
  const columns = { point: 0, takenAt: 1, value: 2, unit: 3, hours: 4, least: 5, instrument: 6, state: 7 };
  const mapping: Mapping = {
    delimiter: ",",
    decimalMark: ".",
    hasHeader: true,
    titleLines: 0,
    dateOrder: "ymd",
    columns,
    units: { value: "", temperature: "", pressure: "" },
    pointId: "",
    skipBad: false,
    beginLives: false,
  };
  const reader = () => rowReader(mapping, lookup, "T. Wren");
  const row = (...cells: string[]) => cells;

  test("a good row keeps what was written beside the core value", () => {
    expect(reader()(row("lg-on / pump a / case drain flow", "2026-01-03", "1", "gal/min", "100"), 2)).toMatchObject({
      fate: "add",
      reading: { value: 3.785411784, entered: "1 gal/min", hours: 100, by: "T. Wren", lifeId: "life" },
    });
  });
  test("what physics forbids is added, and listed to be looked at", () => {
    expect(reader()(row(point.code, "2026-01-04", "174"), 2)).toMatchObject({
      fate: "add",
      odd: expect.stringContaining("more than the pumps of this circuit deliver"),
    });
    expect(reader()(row(point.code, "2026-01-04", "3.4"), 2)).not.toHaveProperty("odd");
  });
  test("the same again in the file is there already; another value for the moment is bad", () => {
    const read = reader();
    expect(read(row(point.code, "2026-01-05", "3.5"), 2).fate).toBe("add");
    expect(read(row(point.code, "2026-01-05", "3.5"), 3).fate).toBe("there");
    expect(read(row(point.code, "2026-01-05", "4.5"), 4)).toMatchObject({
      fate: "bad",
      reason: "Line 2 says another value for the same moment.",
    });
  });
  test.each([
    [["", "2026-01-03", "1"], /No point/],
    [["nowhere", "2026-01-03", "1"], /no point “nowhere”/],
    [["two/of/them", "2026-01-03", "1"], /Several points/],
    [[point.code, "", "1"], /No date/],
    [[point.code, "soon", "1"], /not a date/],
    [[point.code, "2027-01-03", "1"], /future/],
    [[point.code, "2026-01-03", ""], /No value/],
    [[point.code, "2026-01-03", "abc"], /not a number/],
    [[point.code, "2026-01-03", "3", "°C"], /temperature/],
    [[point.code, "2026-01-03", "3", "", "", "5"], /least is above/],
    [["x/y/z", "2026-01-03", "3"], /enter the least/],
    [[point.code, "2026-01-03", "3", "", "", "", "", "sideways"], /not a state/],
    [[point.code, "2026-01-03", "3", "", "", "", "F-99"], /no instrument/],
    [[point.code, "2026-01-03", "3", "", "", "", "", "idle"], /never mixes states/],
    [[point.code, "2019-01-03", "3"], /not fitted/],
  ] as const)("%p is bad", (cells, reason) =>
    expect(reader()([...cells], 9)).toMatchObject({ fate: "bad", line: 9, reason: expect.stringMatching(reason) }),
  );
  test("hours that run backwards, or jump, are added and shown", () => {
    const read = reader();
    read(row(point.code, "2026-01-05", "3.5", "", "500"), 2);
    expect(read(row(point.code, "2026-02-05", "3.5", "", "400"), 3)).toMatchObject({
      fate: "add",
      odd: expect.stringMatching(/runs backwards/),
    });
    expect(read(row(point.code, "2026-03-05", "3.5", "", "9000"), 4)).toMatchObject({
      fate: "add",
      odd: expect.stringMatching(/more than has passed/),
    });
    expect(read(row(point.code, "2026-04-05", "3.5", "", "1100"), 5)).not.toHaveProperty("odd");
  });
  test("hours after a recorded change of the meter are no surprise, and hours are held against what was noted last", () => {
    const met = {
      ...point,
      meter: [{ at: Date.UTC(2026, 0, 20), before: 600, after: 0 }],
      noted: { at: Date.UTC(2026, 0, 1), hours: 480 },
    };
    const read = rowReader(mapping, { ...lookup, points: new Map([[point.id, met]]) }, "x");
    expect(read(row(point.id, "2026-01-25", "3.5", "", "30"), 2)).not.toHaveProperty("odd");
    expect(
      rowReader(
        mapping,
        { ...lookup, points: new Map([[point.id, { ...met, meter: [] }]]) },
        "x",
      )(row(point.id, "2026-01-25", "3.5", "", "30"), 2),
    ).toHaveProperty("odd");
  });
  test("all rows of one chosen point", () =>
    expect(
      rowReader(
        { ...mapping, pointId: point.id, columns: { takenAt: 0, value: 1 } },
        lookup,
        "x",
      )(["2026-01-03", "3"], 1).fate,
    ).toBe("add"));
});

describe("fleet file", () => {
  test("the published schema is the one in use", () =>
    expect(JSON.parse(readFileSync("docs/fleet.schema.json", "utf8"))).toEqual(
      JSON.parse(JSON.stringify(fleetSchema)),
    ));
  test("accepts a small fleet and refuses a strange one", () => {
    const validate = new Ajv({ allErrors: true, allowUnionTypes: true, formats: { "date-time": true } }).compile(
      fleetSchema,
    );
    expect(
      validate({
        format: "juncteral-fleet",
        version: 1,
        sites: [{ name: "A", timeZone: tz, machines: [{ name: "M", tag: "M1" }] }],
      }),
    ).toBe(true);
    expect(validate({ format: "juncteral-fleet", version: 2, sites: [] })).toBe(false);
    expect(
      validate({
        format: "juncteral-fleet",
        version: 1,
        sites: [{ name: "A", timeZone: tz, machines: [{ name: "M" }] }],
      }),
    ).toBe(false);
  });
});
