/** The screen of one point of a walk: which fields it has, and what it says before anything is typed. */
import { renderToStaticMarkup } from "react-dom/server";
import { assess, DAY } from "@core";
import type { Walk } from "~/device/store.client";
import type { WalkPoint } from "~/domain/rounds/queries.server";
import { SiteProvider } from "~/ui/site";
import { drain, NOW } from "./testPoint";
import { conditionsOf } from "./walkConditions";
import { WalkPointScreen } from "./walkPoint";

const walk: Walk = { roundId: "r", way: ["p"], index: 0, done: {}, conditions: {}, held: {}, startedAt: NOW };
const nothing = async () => undefined;
const outbox = { look: nothing, send: nothing } as unknown as Parameters<typeof WalkPointScreen>[0]["outbox"];

function screen(change: Partial<WalkPoint> = {}, of: Partial<Walk> = {}, units = {}): string {
  return renderToStaticMarkup(
    <SiteProvider value={{ timeZone: "Europe/London", now: NOW, units }}>
      <WalkPointScreen
        round={{ id: "r" }}
        point={{ ...drain, ...change }}
        parts={[]}
        walk={{ ...walk, ...of }}
        present={() => NOW}
        user={{ id: "u", units }}
        outbox={outbox}
        onDone={() => undefined}
      />
    </SiteProvider>,
  );
}
const fieldsOf = (html: string) => [...html.matchAll(/<input id="w-(\w+)"/g)].map(([, name]) => name);
const valueOf = (html: string, name: string) => new RegExp(`id="w-${name}"[^>]*value="([^"]*)"`).exec(html)?.[1];

test("a value with its load, its oil and the hours", () =>
  expect(fieldsOf(screen())).toEqual(["temperature", "pressure", "hours", "value"]));

test("over a cycle the least is asked for as well, and first", () =>
  expect(fieldsOf(screen({ readState: "cycle" }))).toEqual(["temperature", "pressure", "hours", "least", "value"]));

test("a point that reads the oil itself does not ask for it twice", () =>
  expect(fieldsOf(screen({ quantity: "temperature", unit: "°C", isOilTemperature: true }))).toEqual([
    "pressure",
    "hours",
    "value",
  ]));

test("what was noted at the machine's last point stands there already", () => {
  const html = screen({}, { conditions: { m: { temperature: "48", pressure: "205", hours: "12020" } } });
  expect([valueOf(html, "temperature"), valueOf(html, "pressure"), valueOf(html, "hours")]).toEqual([
    "48",
    "205",
    "12020",
  ]);
  expect(valueOf(html, "value")).toBe("");
});

test("a bare figure's unit stands beside it: the point's for the value, the reader's for the conditions", () => {
  const html = screen({}, {}, { pressure: "psi", temperature: "°F" });
  for (const unit of ["L/min", "psi", "°F"]) expect(html).toContain(`>${unit}</span>`);
});

test("never read, and nothing expected, is said", () => {
  const html = screen({ last: null });
  expect(html).toContain("Never read before.");
  expect(html).toContain("No expected range yet. ".trim());
});

test("with a past it says what to expect; less sure where it was never read like this", () => {
  const readings = Array.from({ length: 24 }, (_, k) => ({
    at: NOW - (24 - k) * 14 * DAY,
    value: 1.5 + 0.02 * (k % 3),
    pressure: 205 + (k % 5),
    temperature: 48 + (k % 4),
  }));
  const { expectation } = assess(
    readings,
    { quantity: "caseDrainFlow", limit: { upper: 6.5 }, reference: { pressure: 210, temperature: 50 } },
    { fluid: drain.fluid },
  );
  const usual = screen({ expectation }, { conditions: { m: { temperature: "50", pressure: "208", hours: "" } } });
  expect(usual).toContain(" under these conditions");
  expect(usual).not.toContain(", less sure: it was never read like this");
  const cold = screen({ expectation }, { conditions: { m: { temperature: "10", pressure: "90", hours: "" } } });
  expect(cold).toContain(", less sure: it was never read like this");
  expect(screen({ expectation })).toContain(" at the usual conditions");
});

test("conditions are those of the point, its state and its instrument; the ones that were seen are ticked", () => {
  const point = {
    ...drain,
    conditions: "at 210 bar, boom level, ",
    instrument: { id: "i", tag: "FM-2", name: "Meter" },
  };
  const all = conditionsOf(point);
  expect(all).toEqual(["at 210 bar", "boom level", "Read as it runs", "With FM-2"]);
  const html = screen(point, { held: { m: ["boom level"] } });
  expect(html.match(/aria-pressed="true"/g)).toHaveLength(1);
  expect(html.match(/aria-pressed="false"/g)).toHaveLength(3);
});

test("a point that was dealt with on this round says how", () =>
  expect(screen({}, { done: { p: "skipped" } })).toContain("skipped"));

test("the caution stands above the fields", () => {
  const html = screen({ caution: "Never feel for a leak with the hand." });
  expect(html.indexOf("Never feel for a leak")).toBeGreaterThan(0);
  expect(html.indexOf("Never feel for a leak")).toBeLessThan(html.indexOf("w-value"));
});
