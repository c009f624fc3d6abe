/** The circuit diagram: what it says to whom, beside what it draws. */
import { draftCircuit, elementKinds, portKey, symbolSizes, type Drawing, type Netlist } from "@core";
import { rendered, wordsOf } from "~/ui/testing";
import { CircuitDiagram } from "./diagram";
import type { DiagramPoint } from "./gaugeText";

let netlist: Netlist;
let drawing: Drawing;
const elementOf = (kind: string) => netlist.elements.find((e) => e.kind === kind)!.id;

/** Every symbol under the one before, a wire from each line's end to its other one: no beauty, but all that is drawn. */
function laidOut({ elements, lines }: Netlist): Drawing {
  const ports: Drawing["ports"] = {};
  const parts = elements.map((e, i) => {
    const { width, height, ports: own } = symbolSizes[elementKinds[e.kind].symbol]!;
    for (const [port, { x, up }] of Object.entries(own))
      ports[`${e.id}/${port}`] = [40 + x, 150 * i + (up ? 0 : height)];
    return { element: e.id, x: 40, y: 150 * i, width, height, textX: 300, textY: 150 * i };
  });
  const wires = lines.map((l) => {
    const [from, to] = [ports[portKey(l.from)]!, ports[portKey(l.to)]!];
    return { style: "pressure" as const, points: [from, [from[0], to[1]], to] as [number, number][] };
  });
  return { width: 600, height: 150 * elements.length, parts, tanks: [], wires, dots: [], ports };
}

beforeAll(() => {
  const part = (kind: string, name: string) => ({ id: name, kind, name, displacement: null, speed: null, points: [] });
  const bare = draftCircuit({
    workingPressure: 180,
    components: [part("gearPump", "Pump"), part("reliefValve", "Relief valve"), part("cylinder", "Ram")],
  }).netlist;
  netlist = {
    ...bare,
    gauges: [
      { element: bare.elements.find((e) => e.kind === "relief")!.id, port: "P", pointId: "p-1", reads: "setting" },
    ],
    lines: bare.lines.map((l, i) => ({
      ...l,
      data: { made: "hose" as const, rating: 250, bore: 12.5, length: 1.2, fittedOn: "2022-05-31", tag: `H-${i + 1}` },
    })),
  };
  drawing = laidOut(netlist);
});

const point = (change: Partial<DiagramPoint> = {}): DiagramPoint => ({
  id: "p-1",
  name: "Relief setting",
  state: "alarm",
  margin: { value: 1.2, low: 1.1, high: 1.3, before: 1 },
  text: "167 bar",
  about: "Relief setting, 167 bar, alarm, 20 Nov",
  ...change,
});
type Props = Parameters<typeof CircuitDiagram>[0];
const drawn = (change: Partial<Props> = {}, points = [point()]) =>
  rendered(
    <CircuitDiagram
      netlist={netlist}
      drawing={drawing}
      points={new Map(points.map((p) => [p.id, p]))}
      label="The circuit of the hoist"
      {...change}
    />,
  );

test("a point opens from its gauge, and says in words what its tone says", () => {
  const html = drawn();
  expect(html).toContain('href="/points/p-1"');
  expect(html).toContain('aria-label="Relief setting, 167 bar, alarm, 20 Nov"');
  expect(html).toContain('role="group" aria-label="The circuit of the hoist"');
});

test("what was never read is said, not drawn as nothing", () =>
  expect(wordsOf(drawn({}, [point({ text: "", margin: null, state: "unproven" })]))).toContain("not read yet"));

test("a what-if writes the change with its sign, and colours it", () => {
  const more = drawn({ changes: new Map([["p-1", { text: "192 bar", change: "+25 bar", sign: 1 as const }]]) });
  expect(wordsOf(more)).toContain("192 bar (+25 bar)");
  expect(more).toMatch(/class="text-verm"[^>]*><text/);
  const less = drawn({ changes: new Map([["p-1", { text: "150 bar", change: "−17 bar", sign: -1 as const }]]) });
  expect(less).toMatch(/class="text-sea"[^>]*><text/);
});

test("lines carry their tags, and what is known of them", () => {
  const html = drawn();
  expect(html.match(/>H-\d+<title>/g)!.length).toBeGreaterThan(1);
  expect(html).toContain("Hose H-1, rated 250\u00a0bar, 12.5\u00a0mm bore, 1.2 m, fitted 2022-05-31");
});

test("a missing gauge says what cannot be known", () =>
  expect(
    drawn({
      missing: [{ element: elementOf("fixedPump"), port: "out", text: "No pressure here: the pump cannot be told" }],
    }),
  ).toContain("<title>No pressure here: the pump cannot be told</title>"));

test("parts lead where a page sends them, and the chosen one is marked", () => {
  const relief = elementOf("relief");
  const html = drawn({ ways: { to: (element) => `?at=${element}`, chosen: relief } });
  expect(html).toContain(`href="/?at=${elementOf("fixedPump")}"`);
  expect(html.match(/aria-current="true"/g)).toHaveLength(1);
  expect(drawn()).not.toContain("aria-current");
});

test("ports that can be pressed are named", () => {
  const key = `${elementOf("fixedPump")}/out`;
  const html = drawn({ pick: { from: key, nameOf: (k) => `port ${k}`, onPick: () => undefined } });
  expect(html).toContain(`<title>port ${key}</title>`);
});

test("a name without end is clipped in the drawing and whole in its title", () => {
  const name = "Relief valve of the auxiliary winch circuit, port side";
  const long = { ...netlist, elements: netlist.elements.map((e) => (e.kind === "relief" ? { ...e, name } : e)) };
  const html = drawn({ netlist: long });
  expect(html).toContain("Relief valve of the…");
  expect(html).toContain(`<title>${name}, `);
});
