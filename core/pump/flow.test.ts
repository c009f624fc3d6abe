import { hydraulicPower, theoreticalFlow } from "./flow";

test("theoretical flow and power", () => {
  expect(theoreticalFlow(45, 1450)).toBe(65.25);
  expect(hydraulicPower(200, 60)).toBe(20);
  expect(() => theoreticalFlow(0, 1450)).toThrow(RangeError);
});
