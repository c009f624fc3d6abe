import { componentKindIds, componentKinds, missingPoints } from "./kinds";

test("says what cannot be known without a point", () => {
  expect(missingPoints([{ id: "p", kind: "axialPistonPump", quantities: ["pressure", "vacuum"] }])).toEqual([
    { componentId: "p", quantity: "caseDrainFlow", unknown: expect.stringContaining("wear") },
  ]);
  expect(missingPoints([{ id: "x", kind: "unheard of", quantities: [] }])).toEqual([]);
});

test("a kind with all its points lacks nothing", () => {
  for (const kind of componentKindIds)
    expect(missingPoints([{ id: kind, kind, quantities: componentKinds[kind].needs.map((n) => n.quantity) }])).toEqual(
      [],
    );
});
