/** What calculations of pumps say, case by case; figures worked out apart from the application. */
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

describe("theoretical flow and efficiency", () => {
  test("without a measured flow it says what the pump displaces and no efficiency", () => {
    const outcome = outcomeOf("pump-flow", { flow: "", pressure: "" });
    expect(textOf(outcome)).toBe("It displaces 65.25 at this speed.");
    expect(outcome.working.rows.map((r) => r.label)).toEqual(["V", "n", "Q_t"]);
    expect(outcome.notes).toEqual([]);
  });
  test("an efficiency without its pressure is called worth little", () => {
    const [note] = outcomeOf("pump-flow", { pressure: "" }).notes!;
    expect(note).toMatch(/no load/);
    expect(outcomeOf("pump-flow", { pressure: "210" }).notes).toEqual([]);
  });
  test("more than it displaces is no good pump: speed, displacement and meter are asked for", () => {
    // 1.02 times 65.25 L/min is 66.555
    expect(outcomeOf("pump-flow", { flow: "66.5" }).notes).toEqual([]);
    expect(outcomeOf("pump-flow", { flow: "66.6" }).notes![0]).toMatch(/check the speed/);
  });
  test("twice the speed displaces twice as much", () => {
    const at = (speed: string) => rowOf(outcomeOf("pump-flow", { speed }), "Q_t");
    expect(at("2900") / at("1450")).toBeCloseTo(2, 12);
  });
});

describe("case drain share", () => {
  // read at the reference itself nothing is corrected: the share is as read
  const atReference = { temperature: "50", pressure: "210" };
  test("at its reference it is as read: 6.525 of 65.25 L/min are 10 %", () => {
    const outcome = outcomeOf("case-drain", { ...atReference, flow: "6.525" });
    expect(rowOf(outcome, "Q_ref")).toBeCloseTo(6.525, 9);
    expect(textOf(outcome)).toContain("10.0 % of full flow (as read 10.0 %)");
  });
  test.each([
    ["6.6", "bad"],
    // six tenths of the limit: 3.915 L/min
    ["3.95", "doubt"],
    ["3.8", "good"],
  ])("%s L/min under a limit of 10 %% is %s", (flow, tone) => {
    expect(outcomeOf("case-drain", { ...atReference, flow }).tone).toBe(tone);
  });
  test("warm oil makes a good pump look worn: corrected it is less than as read, by the ratio of viscosities", () => {
    const outcome = outcomeOf("case-drain", { flow: "4", temperature: "65", pressure: "210" });
    const corrected = rowOf(outcome, "Q_ref");
    expect(corrected).toBeLessThan(4);
    expect(corrected).toBeCloseTo(4 * rowOf(outcome, "μ/μ_ref"), 9);
  });
  test("read at half the pressure it is twice as much at the reference", () => {
    expect(rowOf(outcomeOf("case-drain", { flow: "2", temperature: "50", pressure: "105" }), "Q_ref")).toBeCloseTo(
      4,
      9,
    );
  });
  test("the curve of the same wear passes through the reading", () => {
    const outcome = outcomeOf("case-drain", { temperature: "56" });
    const [line, read] = outcome.chart!.series;
    const [x, y] = read!.points[0]!;
    const near = line!.points.reduce((a, b) => (Math.abs(b[0] - x) < Math.abs(a[0] - x) ? b : a));
    expect(near[1] / y).toBeCloseTo(1, 1);
  });
});

describe("load test", () => {
  const worn = "10 63 50\n60 60 50\n110 57 50\n160 54 50\n210 50 50";
  test("a loss of a fifth from no load to work is wear", () => {
    const outcome = outcomeOf("load-test", { steps: worn });
    expect(outcome.tone).toBe("bad");
    expect(textOf(outcome)).toMatch(/^Worn\./);
  });
  test("short of flow already without load is inlet, speed or displacement, and no wear", () => {
    const outcome = outcomeOf("load-test", { steps: "10 52 50\n60 51.4 50\n110 50.8 50\n160 50.2 50\n210 49.6 50" });
    expect(textOf(outcome)).toMatch(/^Not wear: inlet, speed or displacement\./);
    expect(outcome.tone).toBe("bad");
  });
  test("what the driver loses in speed is not taken for leakage", () => {
    // 3 % slower at the top: the flow falls with the speed and with nothing else
    const steps = [10, 60, 110, 160, 210]
      .map((p, i) => {
        const n = 1450 * (1 - 0.0075 * i);
        return `${p} ${((45 * n) / 1000).toFixed(3)} 50 ${n.toFixed(1)}`;
      })
      .join("\n");
    const outcome = outcomeOf("load-test", { steps });
    expect(outcome.tone).toBe("good");
    expect(Math.abs(rowOf(outcome, "G, L·mPa·s/(min·bar)"))).toBeLessThan(0.2);
  });
  test("steps above the compensator's setting are left out and say so", () => {
    const steps = `${worn}\n215 20 50`;
    const outcome = outcomeOf("load-test", { steps, compensator: "212" });
    expect(outcome.working.note).toMatch(/compensator acts/);
    expect(outcome.table!.rows.at(-1)!.at(-1)).not.toBe("");
    expect(outcomeOf("load-test", { steps: worn }).working.note).toBe("");
  });
  test("last time's leakage is compared with this one's, and its uncertainty counts", () => {
    const now = rowOf(outcomeOf("load-test", { steps: worn }), "G, L·mPa·s/(min·bar)");
    const note = (before: number) => outcomeOf("load-test", { steps: worn, before: String(before) }).notes![0]!;
    expect(note(now / 3)).toMatch(/: 3\.0\d? times\.$/);
    expect(note(now)).toMatch(/within the uncertainty of this test\.$/);
    expect(note(0)).toContain("from nothing");
  });
  test("two steps are too few, and it says how many are needed", () =>
    expect(problemsOf("load-test", { steps: "10 63\n210 50" }).steps).toMatch(/At least 3 lines/));
});

describe("power to drive a pump", () => {
  test("the driver's rating decides", () => {
    // 200 bar and 60 L/min are 20 kW, at 85 % 23.53 kW
    expect(rowOf(outcomeOf("pump-power"), "P at the shaft")).toBeCloseTo(20 / 0.85, 9);
    expect(outcomeOf("pump-power", { driver: "23" })).toMatchObject({ tone: "bad" });
    expect(textOf(outcomeOf("pump-power", { driver: "23" }))).toMatch(/more than the driver gives\.$/);
    expect(textOf(outcomeOf("pump-power", { driver: "24" }))).toMatch(/the driver carries it\.$/);
    expect(textOf(outcomeOf("pump-power", { driver: "" }))).toMatch(/in the oil\.$/);
  });
  test("an efficiency under a tenth or above one is refused beside its field", () => {
    expect(problemsOf("pump-power", { efficiency: "101" }).efficiency).toMatch(/between 10(\.0)? and 100/);
    expect(problemsOf("pump-power", { efficiency: "9" }).efficiency).toMatch(/between 10(\.0)? and 100/);
  });
});
