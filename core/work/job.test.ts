import fc from "fast-check";
import { jobStages, jobStand, type JobWork } from "./job";

const work = (change: Partial<JobWork> = {}): JobWork => ({
  cancelled: false,
  done: false,
  proven: false,
  signed: false,
  ...change,
});
const states = (facts: Parameters<typeof jobStand>[0]) => jobStand(facts).stages.map((s) => s.state);

test("a complaint waits for its cause", () => {
  expect(jobStand({ causes: [], works: [], closed: false }).here).toBe("cause");
});
test("work that was decided without an isolation passes its cause by", () => {
  expect(states({ causes: [], works: [work()], closed: false })).toEqual([
    "done",
    "left",
    "done",
    "here",
    "ahead",
    "ahead",
  ]);
});
test("an isolation that is open holds the job at its cause, though work is booked", () => {
  expect(jobStand({ causes: [{ closed: false }], works: [work()], closed: false }).here).toBe("cause");
});
test("a found cause asks for a decision, cancelled work is none", () => {
  expect(jobStand({ causes: [{ closed: true }], works: [work({ cancelled: true })], closed: false }).here).toBe(
    "decided",
  );
});
test("several pieces stand where the least far one does", () => {
  const signed = work({ done: true, proven: true, signed: true });
  expect(jobStand({ causes: [], works: [signed, work({ done: true })], closed: false }).here).toBe("proven");
  expect(jobStand({ causes: [], works: [signed], closed: false }).here).toBeNull();
});
test("ended by hand it is nowhere, and what was not done is left", () => {
  const stand = jobStand({ causes: [], works: [], closed: true });
  expect(stand.here).toBeNull();
  expect(stand.stages.map((s) => s.state)).toEqual(["done", "left", "left", "left", "left", "left"]);
});
test("it is at one stage at most, everything before it is done or passed by, nothing after it is here", () => {
  const works = fc.array(
    fc.record({ cancelled: fc.boolean(), done: fc.boolean(), proven: fc.boolean(), signed: fc.boolean() }),
    { maxLength: 3 },
  );
  fc.assert(
    fc.property(
      fc.array(fc.record({ closed: fc.boolean() }), { maxLength: 2 }),
      works,
      fc.boolean(),
      (c, w, closed) => {
        const { stages, here } = jobStand({ causes: c, works: w, closed });
        expect(stages.map((s) => s.id)).toEqual([...jobStages]);
        expect(stages.filter((s) => s.state === "here").map((s) => s.id)).toEqual(here === null ? [] : [here]);
        if (here !== null)
          for (const s of stages.slice(0, jobStages.indexOf(here))) expect(["done", "left"]).toContain(s.state);
      },
    ),
  );
});
