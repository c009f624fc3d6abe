import { physicallyOdd, physicsQuestion } from "./physics";

const known = { pumpedFlow: 46.2, workingPressure: 180 };

test.each([
  ["flow", 174, true],
  ["flow", 48, false],
  ["caseDrainFlow", 60, true],
  ["pressure", 900, true],
  ["pressure", 250, false],
  ["temperature", 175, true],
  ["temperature", 88, false],
] as const)("%s %d: asked %p", (quantity, value, asked) =>
  expect(physicallyOdd(quantity, value, known) !== undefined).toBe(asked),
);

test("what no plate states is not held against it", () =>
  expect(physicallyOdd("flow", 174, { pumpedFlow: null, workingPressure: null })).toBeUndefined());

test("what is asked says what to do", () => {
  const known = { pumpedFlow: 46.2, workingPressure: 180 };
  expect(physicsQuestion("flow", 174, known)).toEqual({
    kind: "physics",
    message: expect.stringMatching(/deliver.*Read it once more, or keep it and say why\.$/),
  });
  expect(physicsQuestion("flow", 44, known)).toBeUndefined();
});
