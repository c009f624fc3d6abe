import { describe, expect, test } from "@jest/globals";
import type { Explanation } from "./explain";
import { actsNow, standingDiagnosis } from "./standing";
import type { Netlist } from "../circuit/netlist";

const element = (id: string, kind: Netlist["elements"][number]["kind"]) => ({
  id,
  kind,
  name: id.toUpperCase(),
  componentId: id,
  data: {},
});
const netlist: Netlist = {
  elements: [element("a", "cylinder"), element("b", "cylinder"), element("r", "relief"), element("f", "filter")],
  lines: [],
  gauges: [],
};
const say = (
  share: number,
  faults: [string, string][],
  explains: string[] = [],
  leaves: string[] = [],
): Explanation => ({
  faults: faults.map(([id, fault]) => ({ element: id, fault, severity: 1 })),
  unknown: false,
  share,
  explains,
  leaves,
});
const other = (share: number): Explanation => ({ ...say(share, []), unknown: true });

describe("what is named", () => {
  test("a weak spring and a low setting of one valve are one fault, named by the likelier", () => {
    const d = standingDiagnosis(
      netlist,
      [say(0.45, [["r", "setLow"]], ["p"]), say(0.4, [["r", "springBroken"]], ["p"]), other(0.15)],
      ["p"],
    );
    expect(d.named).toHaveLength(1);
    expect(d.named[0]).toMatchObject({ cause: "relief.setLow", places: ["R"] });
    expect(d.named[0]!.share).toBeCloseTo(0.85);
    expect(d.named[0]!.alike.map((x) => x.cause)).toEqual(["relief.spring"]);
    expect(d.leaves).toEqual([]);
  });
  test("the same fault of two cylinders that the readings cannot part is one, at either place", () => {
    const d = standingDiagnosis(
      netlist,
      [say(0.5, [["a", "pistonLeak"]], ["m"]), say(0.45, [["b", "pistonLeak"]], ["m"]), other(0.05)],
      ["m"],
    );
    expect(d.named).toHaveLength(1);
    expect(d.named[0]!.places).toEqual(["A", "B"]);
  });
  test("two independent faults are two, each with its own points and its own chance", () => {
    const d = standingDiagnosis(
      netlist,
      [
        say(
          0.6,
          [
            ["f", "blocked"],
            ["r", "setLow"],
          ],
          ["p", "q"],
        ),
        say(0.3, [["f", "blocked"]], ["q"], ["p"]),
        say(0.05, [["r", "setLow"]], ["p"], ["q"]),
        other(0.05),
      ],
      ["p", "q"],
    );
    expect(d.named.map((f) => [f.cause, f.explains])).toEqual([
      ["filter.blocked", ["q"]],
      ["relief.setLow", ["p"]],
    ]);
    expect(d.named[0]!.share).toBeCloseTo(0.9);
    expect(d.named[1]!.share).toBeCloseTo(0.65);
  });
  test("nothing is named where something unknown is as likely, and what is off is left", () => {
    const d = standingDiagnosis(netlist, [other(0.6), say(0.4, [["f", "blocked"]], ["q"])], ["q"]);
    expect(d.named).toEqual([]);
    expect(d.possible.map((f) => f.cause)).toEqual(["filter.blocked"]);
    expect(d.leaves).toEqual(["q"]);
  });
  test("a fault that explains nothing is not named, however the shares fall", () => {
    const d = standingDiagnosis(netlist, [say(0.9, [["f", "blocked"]], [], ["q"]), other(0.1)], ["q"]);
    expect(d.named).toEqual([]);
  });
});

test("a setting is put right now, a worn part is not", () => {
  expect(actsNow("relief.setLow")).toBe(true);
  expect(actsNow("pump.caseLeak")).toBe(false);
});
