import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { draftCircuit, elementKinds } from "@core";
import { askedOf, nothingAsked, over, searchOf, type Asked } from "./whatIf";

const { netlist } = draftCircuit({
  workingPressure: 200,
  components: ["axialPistonPump", "reliefValve", "proportionalValve", "cylinder"].map((kind, i) => ({
    id: `c${i}`,
    kind,
    name: kind,
    displacement: null,
    speed: null,
    points: [],
  })),
});

test("what is asked comes back from its address", () => {
  const asked: Asked = {
    oil: 35,
    commands: { c2: -0.5 },
    data: { c1: { crack: 180 } },
    faults: { c0: { caseLeak: 3 }, c3: { pistonLeak: 0.02 } },
  };
  expect(askedOf(searchOf(asked, netlist), netlist)).toEqual(asked);
  expect(searchOf(nothingAsked, netlist).toString()).toBe("");
});

test("an address that was tampered with asks for nothing impossible", () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom("set", "fault", "command", "oil"), fc.string())), (pairs) => {
      const asked = askedOf(new URLSearchParams(pairs), netlist);
      for (const [id, faults] of Object.entries(asked.faults))
        for (const [name, severity] of Object.entries(faults)) {
          const kind = elementKinds[netlist.elements.find((e) => e.id === id)!.kind];
          expect(severity).toBeLessThanOrEqual(kind.faults[name]!.greatest);
        }
      if (asked.oil !== null) expect(Math.abs(asked.oil)).toBeLessThan(200);
    }),
  ));

test.each(["set=99~crack~100", "set=1~crack~-5", "fault=0~nothing~1", "command=0~to~1", "oil=hot"])(
  "%s is passed over",
  (text) => expect(askedOf(new URLSearchParams(text), netlist)).toEqual(nothingAsked),
);

test("what is asked lies over what was fitted, and the fit stays as it is", () => {
  const fitted = { a: { x: 1, y: 2 } };
  expect(over(fitted, { a: { y: 3 }, b: { z: 4 } })).toEqual({ a: { x: 1, y: 3 }, b: { z: 4 } });
  expect(fitted).toEqual({ a: { x: 1, y: 2 } });
});
