import { analyseLoadTest } from "../pump/loadTest";
import { random } from "../random/random";
import { restingKnobs, simulateTester, type TesterSample } from "../simulation/tester";
import { isNewStep, isStuck, readTesterLine, stillStep, type Timed } from "./live";

const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
const hidden = { displacement: 45, speed: 1450, noLoadShare: 0.97, conductance: 1.1, fluid };

/** Drive the tester as a person would: raise the relief, wait, raise again. */
function run(knobs: Partial<typeof restingKnobs> = {}, seed = 3) {
  const tester = simulateTester(hidden, random(seed));
  const samples: Timed[] = [];
  const taken: TesterSample[] = [];
  let bad = 0;
  for (let i = 0; i < 600; i++) {
    const relief = 10 + 40 * Math.floor(i / 100);
    const line = tester(0.1, { ...restingKnobs, ...knobs, relief });
    if (line === null) continue;
    const read = readTesterLine(JSON.stringify(line));
    if (!read.ok) {
      bad++;
      continue;
    }
    samples.push({ ...read.sample, at: i * 100 });
    const step = stillStep(samples);
    if (step && isNewStep(step, taken)) taken.push(step);
  }
  return { taken, samples, bad };
}

test("steps are taken where it holds still, and the hidden wear is found", () => {
  const { taken } = run();
  expect(taken).toHaveLength(6);
  const found = analyseLoadTest(taken, { displacement: 45, speed: 1450, workingPressure: 210, fluid });
  expect(found.verdict).toBe("wear");
  expect(Math.abs(found.conductance.value - 1.1)).toBeLessThan(0.12);
  expect(Math.abs(found.noLoadShare.value - 0.97)).toBeLessThan(0.01);
});

test("dropouts and nonsense are survived", () => {
  const { taken, bad } = run({ dropout: 0.3, nonsense: 0.1 });
  expect(bad).toBeGreaterThan(10);
  const found = analyseLoadTest(taken, { displacement: 45, speed: 1450, workingPressure: 210, fluid });
  expect(Math.abs(found.conductance.value - 1.1)).toBeLessThan(0.15);
});

test("a stuck meter gives no step", () => {
  const { taken, samples } = run({ stuck: true });
  expect(isStuck(samples)).toBe(true);
  expect(taken.length).toBeLessThanOrEqual(1);
});

test("the oil warms under load", () => {
  const { samples } = run();
  expect(samples.at(-1)!.temperature).toBeGreaterThan(samples[0]!.temperature + 1);
});

test("the oil can be held at a temperature, and the leak follows it", () => {
  const tester = simulateTester(hidden, random(5));
  const at = (oil: number) => {
    let line;
    for (let i = 0; i < 300; i++) line = tester(0.1, { ...restingKnobs, noise: 0, relief: 200, oil });
    return line as TesterSample;
  };
  const [cold, hot] = [at(30), at(70)];
  expect(cold.temperature).toBeCloseTo(30, 0);
  expect(hot.flow).toBeLessThan(cold.flow - 1);
});

test.each(["", "nothing", "[]", "7", '{"pressure":1}', '{"pressure":"----","flow":1,"temperature":40,"speed":1}'])(
  "%j is unreadable",
  (line) => expect(readTesterLine(line)).toEqual({ ok: false, why: "unreadable" }),
);
test("a value that cannot be is impossible", () =>
  expect(readTesterLine('{"pressure":-9999,"flow":1,"temperature":40,"speed":1}')).toEqual({
    ok: false,
    why: "impossible",
  }));
