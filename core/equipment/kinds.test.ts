import { componentKindIds, componentKinds, missingPoints } from "./kinds";

test("says what cannot be known without a point", () => {
  expect(missingPoints([{ id: "p", kind: "axialPistonPump", quantities: ["pressure", "vacuum"] }])).toEqual([
    { componentId: "p", quantity: "caseDrainFlow", unknown: expect.stringContaining("wear") },
  ]);
  expect(missingPoints([{ id: "x", kind: "unheard of", quantities: [] }])).toEqual([]);
});

test("each point left out is missed by its name, with what it would have told", () => {
  for (const kind of componentKindIds) {
    const needs = componentKinds[kind].needs;
    for (const left of needs) {
      const quantities = needs.filter((n) => n !== left).map((n) => n.quantity);
      expect(missingPoints([{ id: "x", kind, quantities }])).toEqual([
        { componentId: "x", quantity: left.quantity, unknown: left.unknown },
      ]);
      expect(left.unknown.length).toBeGreaterThan(15);
    }
  }
});
