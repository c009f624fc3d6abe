import { isFarReference, usualCondition } from "./reference";

const at = (pressure: number | null, temperature: number | null) => ({ pressure, temperature });

describe("how a point is usually read", () => {
  test("the medians of what noted both; nothing from fewer than four", () => {
    expect(usualCondition([at(250, 50), at(251, 52), at(249, 48)])).toBeNull();
    expect(usualCondition([at(250, 50), at(251, 52), at(249, 48), at(null, 50), at(900, null), at(252, 51)])).toEqual({
      pressure: 251,
      temperature: 51,
    });
  });
  test("the newest count: a machine that was set anew is read anew", () => {
    expect(
      usualCondition([
        ...Array.from({ length: 60 }, () => at(100, 40)),
        ...Array.from({ length: 24 }, () => at(250, 50)),
      ]),
    ).toEqual({ pressure: 250, temperature: 50 });
  });
});

describe("a reference far from it", () => {
  const usual = { pressure: 250, temperature: 50 };
  test.each([
    [at(100, 50), true],
    [at(250, 50), false],
    [at(210, 50), false],
    [at(320, 50), true],
    [at(250, 70), true],
    [at(250, 40), false],
    [at(null, null), false],
  ])("%p: %p", (reference, far) => expect(isFarReference(reference, usual)).toBe(far));
});
