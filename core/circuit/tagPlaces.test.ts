/** Tags beside their lines. */
import { expect, test } from "@jest/globals";
import type { Drawing } from "./drawing";
import type { LineData, Netlist } from "./netlist";
import { tagPlaces } from "./tagPlaces";

const data = (tag: string): LineData => ({ made: "hose", rating: null, bore: null, length: null, fittedOn: "", tag });
const netlist = (tags: string[]): Netlist => ({
  elements: [
    { id: "a", kind: "fixedPump", name: "Pump", componentId: "c", data: {} },
    { id: "b", kind: "relief", name: "Relief", componentId: "d", data: {} },
  ],
  lines: tags.map((tag, i) => ({
    id: `l${i}`,
    from: { element: "a", port: "out" },
    to: { element: "b", port: "P" },
    data: tag ? data(tag) : null,
  })),
  gauges: [],
});
const drawing = (change: Partial<Drawing> = {}): Drawing => ({
  width: 400,
  height: 400,
  parts: [
    { element: "a", x: 78, y: 300, width: 48, height: 44, textX: 130, textY: 300 },
    { element: "b", x: 78, y: 20, width: 44, height: 44, textX: 130, textY: 20 },
  ],
  tanks: [],
  wires: [
    {
      style: "pressure",
      points: [
        [100, 300],
        [100, 64],
      ],
    },
  ],
  dots: [],
  ports: { "a/out": [100, 300], "b/P": [100, 64] },
  ...change,
});

test("a tag stands left of the middle of its line", () =>
  expect(tagPlaces(netlist(["H-1"]), drawing()).get("l0")).toEqual({ x: 95, y: 187.5, anchor: "end" }));

test("a second one of the same way stands clear of the first", () => {
  const places = tagPlaces(netlist(["H-1", "H-2"]), drawing());
  expect(places.size).toBe(2);
  expect(places.get("l1")).not.toEqual(places.get("l0"));
});

test("where there is no room none is drawn, and an untagged line has none", () => {
  const short = drawing({
    wires: [
      {
        style: "pressure",
        points: [
          [100, 300],
          [100, 296],
        ],
      },
    ],
  });
  expect(
    tagPlaces(netlist(["H-1", ""]), { ...short, parts: short.parts.map((p) => ({ ...p, x: 20, width: 200 })) }).size,
  ).toBe(0);
  expect(tagPlaces(netlist([""]), drawing()).size).toBe(0);
  expect(tagPlaces(netlist(["H-1"]), drawing({ wires: [], ports: {} })).size).toBe(0);
});

test("above a level line, and never over another line", () => {
  const level = drawing({
    wires: [
      {
        style: "pressure",
        points: [
          [100, 300],
          [100, 290],
          [300, 290],
        ],
      },
      {
        style: "return",
        points: [
          [190, 280],
          [210, 280],
        ],
      },
    ],
  });
  const place = tagPlaces(netlist(["H-1"]), level).get("l0")!;
  expect(place.anchor).toBe("middle");
  expect(place.x).not.toBe(200);
});

test("the reservoir stands at many places: a line to it is known by its other end", () => {
  const n = netlist(["P-1"]);
  const toTank: Netlist = {
    ...n,
    elements: [...n.elements, { id: "t", kind: "tank", name: "Tank", componentId: null, data: {} }],
    lines: [{ ...n.lines[0]!, from: { element: "b", port: "T" }, to: { element: "t", port: "T" } }],
  };
  const far = drawing({
    ports: { "t/T": [100, 300], "b/T": [300, 100] },
    wires: [
      ...drawing().wires,
      {
        style: "return",
        points: [
          [300, 100],
          [300, 200],
        ],
      },
    ],
  });
  expect(tagPlaces(toTank, far).get("l0")).toEqual({ x: 295, y: 155.5, anchor: "end" });
});
