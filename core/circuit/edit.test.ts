import { expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  addElement,
  changeElement,
  joinPorts,
  portsOf,
  removeElement,
  removeLine,
  tieElement,
  type Change,
} from "./edit";
import { elementKindIds } from "./kinds";
import { netlistProblems, portKey, type Netlist } from "./netlist";
import { steadyState } from "./steady";

const empty: Netlist = { elements: [], lines: [], gauges: [] };
const kept = (c: Change): Netlist => {
  if (!c.ok) throw new Error(c.problem);
  return c.netlist;
};
const ref = (text: string) => ({ element: text.split(".")[0]!, port: text.split(".")[1]! });

test("drawn from nothing, step by step, it is solved", () => {
  let n = empty;
  for (const [kind, id] of [
    ["tank", "t"],
    ["fixedPump", "p"],
    ["relief", "r"],
    ["throttle", "o"],
  ] as const)
    n = kept(addElement(n, kind, "", id));
  for (const [a, b] of [
    ["t.T", "p.in"],
    ["p.out", "r.P"],
    ["r.T", "t.T"],
    ["p.out", "o.in"],
    ["o.out", "t.T"],
  ] as const)
    n = kept(joinPorts(n, ref(a), ref(b)));
  n = kept(changeElement(n, "o", { figure: { name: "diameter", value: 2.5 } }));
  expect(netlistProblems(n)).toEqual([]);
  expect(steadyState(n).ok).toBe(true);
});

test("what cannot be is answered, and nothing changes", () => {
  const n = kept(addElement(kept(addElement(empty, "tank", "", "t")), "fixedPump", "Pump A", "p"));
  expect(addElement(n, "relief", "", "p").ok).toBe(false);
  expect(joinPorts(n, ref("p.out"), ref("t.T"))).toMatchObject({
    ok: false,
    problem: expect.stringMatching(/delivers nothing/),
  });
  expect(changeElement(n, "p", { figure: { name: "speed", value: 99_999 } })).toMatchObject({
    ok: false,
    problem: expect.stringMatching(/Is the unit right/),
  });
  expect(changeElement(n, "gone", { name: "x" }).ok).toBe(false);
  expect(changeElement(n, "p", { figure: { name: "colour", value: 1 } }).ok).toBe(false);
  expect(
    kept(
      changeElement(kept(changeElement(n, "p", { figure: { name: "speed", value: 900 } })), "p", {
        figure: { name: "speed", value: null },
      }),
    ),
  ).toEqual(n);
});

test("taken out, nothing that hung on it is left", () => {
  let n = kept(addElement(kept(addElement(empty, "tank", "", "t")), "fixedPump", "", "p"));
  n = kept(joinPorts(n, ref("t.T"), ref("p.in")));
  expect(removeElement(n, "p")).toEqual({ ...empty, elements: [n.elements[0]] });
  expect(removeLine(n, n.lines[0]!.id).lines).toEqual([]);
});

test("whatever is added and joined at random: ids stay single, lines end at ports, and the solver answers in words or figures", () =>
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...elementKindIds), { minLength: 1, maxLength: 9 }),
      fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 24 }),
      (kinds, joints) => {
        let n = kept(addElement(empty, "tank", "", "t"));
        kinds.forEach((kind, i) => (n = kept(addElement(n, kind, "", `e${i}`))));
        const ports = portsOf(n);
        for (const [a, b] of joints) {
          const joined = joinPorts(n, ports[a % ports.length]!, ports[b % ports.length]!);
          if (joined.ok) n = joined.netlist;
        }
        expect(new Set(n.lines.map((l) => l.id)).size).toBe(n.lines.length);
        const known = new Set(portsOf(n).map(portKey));
        for (const l of n.lines) expect(known.has(portKey(l.from)) && known.has(portKey(l.to))).toBe(true);
        expect(netlistProblems(n).filter((p) => p.grave)).toEqual([]);
        const solved = steadyState(n);
        if (solved.ok) expect(solved.guess.every(Number.isFinite)).toBe(true);
        else expect(solved.problem).toMatch(/limits the pressure|No balance/);
      },
    ),
    { numRuns: 150 },
  ));

test("a drawn symbol is said to be a component on record: its lines and figures stay", () => {
  let n = kept(addElement(kept(addElement(empty, "tank", "", "t")), "fixedPump", "Drawn", "drawn-1"));
  n = kept(joinPorts(n, ref("drawn-1.in"), ref("t.T")));
  n = kept(changeElement(n, "drawn-1", { figure: { name: "displacement", value: 63 } }));
  const pump = { id: "c1", kind: "gearPump", name: "Lube pump" };
  const tied = kept(tieElement(n, "drawn-1", pump));
  expect(tied.elements[1]).toMatchObject({
    id: "c1",
    componentId: "c1",
    name: "Lube pump",
    data: { displacement: 63 },
  });
  expect(tied.lines[0]!.from).toEqual({ element: "c1", port: "in" });
  expect(netlistProblems(tied).length).toBe(netlistProblems(n).length);
  // no other kind, none twice, none that is gone
  expect(tieElement(n, "drawn-1", { ...pump, kind: "reliefValve" })).toMatchObject({ ok: false });
  expect(tieElement(tied, "c1", pump)).toMatchObject({ ok: false });
  expect(tieElement(n, "gone", pump)).toMatchObject({ ok: false });
});
