/** What the fleet file's schema cannot say is said by its checks, each with its place. */
import { fleetProblems } from "./check";
import type { FleetComponent, FleetFile, FleetPoint } from "./types";

const point = (change: Partial<FleetPoint> = {}): FleetPoint => ({
  name: "Case drain",
  quantity: "caseDrainFlow",
  state: "fullStroke",
  ...change,
});
const component = (change: Partial<FleetComponent> = {}): FleetComponent => ({
  name: "Pump",
  kind: "axialPistonPump",
  points: [point()],
  ...change,
});
const file = (parts: FleetComponent[] = [component()], change: Partial<FleetFile> = {}): FleetFile => ({
  format: "juncteral-fleet",
  version: 1,
  fluids: [{ name: "Oil", kv40: 46, kv100: 6.8, density15: 875 }],
  sites: [
    {
      name: "Quay",
      timeZone: "Europe/London",
      machines: [{ name: "Hoist", tag: "H-1", circuits: [{ name: "Circuit", fluid: "Oil", components: parts }] }],
    },
  ],
  ...change,
});
const problems = (given: FleetFile) => [...fleetProblems(given)];

test("a file that is right has none", () => expect(problems(file())).toEqual([]));

test("an oil that is thicker hot than cold", () =>
  expect(problems(file(undefined, { fluids: [{ name: "Odd", kv40: 6, kv100: 46, density15: 875 }] }))).toEqual([
    expect.stringMatching(/^Fluid Odd:/),
  ]));

test("a zone that is nowhere", () => {
  const odd = file();
  odd.sites[0]!.timeZone = "Mars/Base";
  expect(problems(odd)).toEqual(["Site Quay: Mars/Base is not a time zone."]);
});

describe("points", () => {
  test.each<[string, Partial<FleetPoint>, RegExp]>([
    ["a unit of something else", { unit: "bar" }, /^H-1\/Pump\/Case drain: bar is not a unit of case drain flow/],
    ["limits the wrong way round", { limit: { basis: "absolute", upper: 1, lower: 2 } }, /upper limit must lie above/],
    ["limits that are one", { limit: { basis: "absolute", upper: 2, lower: 2 } }, /upper limit must lie above/],
    ["an instrument that the file does not have", { instrument: "G-1" }, /the file has no instrument G-1/],
  ])("%s", (_what, change, words) => {
    expect(problems(file([component({ points: [point(change)] })]))).toEqual([expect.stringMatching(words)]);
  });
  test("an instrument of the file may be named, one limit may stand alone", () => {
    const good = file([component({ points: [point({ instrument: "G-1", limit: { basis: "absolute", upper: 2 } })] })], {
      instruments: [{ tag: "G-1", name: "Meter", quantity: "caseDrainFlow", fullScale: 10, accuracyClass: 1 }],
    });
    expect(problems(good)).toEqual([]);
  });
});

describe("lives of a part", () => {
  const life = (fittedAt: string, endedAt: string) => ({ fittedAt, endedAt });
  test.each([
    [
      "taken out before it was fitted",
      [life("2024-05-01T00:00:00Z", "2023-05-01T00:00:00Z")],
      undefined,
      /before it was fitted/,
    ],
    [
      "two at the same time",
      [life("2020-01-01T00:00:00Z", "2022-01-01T00:00:00Z"), life("2021-01-01T00:00:00Z", "2023-01-01T00:00:00Z")],
      undefined,
      /two parts cannot be in one place/,
    ],
    [
      "one that was fitted before the last was out",
      [life("2020-01-01T00:00:00Z", "2022-01-01T00:00:00Z")],
      "2021-06-01T00:00:00Z",
      /two parts cannot/,
    ],
  ])("%s", (_what, earlierLives, fittedAt, words) => {
    expect(problems(file([component({ earlierLives, ...(fittedAt && { fittedAt }) })]))[0]).toMatch(words);
  });
  test("one on the day when the other was taken out is right, in whatever order they stand", () =>
    expect(
      problems(
        file([
          component({
            fittedAt: "2024-01-01T00:00:00Z",
            earlierLives: [
              life("2022-01-01T00:00:00Z", "2024-01-01T00:00:00Z"),
              life("2020-01-01T00:00:00Z", "2022-01-01T00:00:00Z"),
            ],
          }),
        ]),
      ),
    ).toEqual([]));
});

describe("codes, diagrams and rounds", () => {
  test("a cleanliness code that is none, of a part and of a circuit", () => {
    expect(problems(file([component({ makersCode: "99/16/13" })]))[0]).toMatch(/^H-1\/Pump: 99\/16\/13:/);
    const odd = file();
    odd.sites[0]!.machines![0]!.circuits![0]!.targetCode = "18/16/99";
    expect(problems(odd)[0]).toMatch(/^H-1\/Circuit: 18\/16\/99:/);
  });
  test("a diagram of a component that the circuit does not have", () => {
    const odd = file();
    odd.sites[0]!.machines![0]!.circuits![0]!.diagram = {
      drawnBy: "R. Oduya",
      elements: [{ id: "a", kind: "fixedPump", name: "Pump", component: "Another pump" }],
      lines: [],
    };
    expect(problems(odd)[0]).toContain("its diagram has a component Another pump, the circuit has none");
  });
  test("a round to a point that is nowhere, and one to another site's point", () => {
    const given = file();
    given.sites[0]!.rounds = [{ name: "Walk", points: [{ code: "H-1/Pump/Nothing", state: "fullStroke" }] }];
    expect(problems(given)).toEqual(["Round Walk: there is no point H-1/Pump/Nothing at Quay."]);
    given.sites.push({
      name: "Yard",
      timeZone: "Europe/London",
      rounds: [{ name: "Far", points: [{ code: "H-1/Pump/Case drain", state: "fullStroke", site: "Quay" }] }],
    });
    expect(problems(given)).toHaveLength(1);
  });
});
