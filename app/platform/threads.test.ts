/** Threads of a task: what waits, and what is given up. */
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { closeThreads, inThreads, ThreadsBusy } from "./threads.server";

const NAME = "slow-for-a-test";
const file = `build/threads/${NAME}.js`;
const before = process.env.NODE_ENV;

beforeAll(() => {
  mkdirSync("build/threads", { recursive: true });
  writeFileSync(file, "export default (ms) => new Promise((done) => setTimeout(() => done(ms), ms));\n");
  process.env.NODE_ENV = "production";
});
afterAll(async () => {
  process.env.NODE_ENV = before!;
  await closeThreads();
  rmSync(file, { force: true });
});

const inPlace = (ms: number) => Promise.resolve(-ms);

test("more than may wait are refused at once, those that wait are done", async () => {
  const slow = inThreads<number, number>(NAME, inPlace, { most: 1, waiting: 1 });
  const first = slow(400);
  // the thread has taken the first before the second is sent
  await new Promise((done) => setTimeout(done, 150));
  const second = slow(1);
  await expect(slow(1)).rejects.toThrow(ThreadsBusy);
  expect(await Promise.all([first, second])).toEqual([400, 1]);
});

jest.setTimeout(30_000);
test("what takes too long is given up, and the next is done", async () => {
  const slow = inThreads<number, number>(NAME, inPlace, { most: 1, givenUp: 4000 });
  expect(await slow(1)).toBe(1);
  await expect(slow(60_000)).rejects.toThrow(ThreadsBusy);
  expect(await slow(1)).toBe(1);
});

test("without a built file it is done in place", async () => {
  expect(await inThreads<number, number>("nobody-built-this", inPlace)(3)).toBe(-3);
});
