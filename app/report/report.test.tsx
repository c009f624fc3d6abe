/** The chart of a report: what it says to a reader who does not see it, odd figures, and labels that stay apart. */
import { DAY } from "@core";
import { renderToStaticMarkup } from "react-dom/server";
import fc from "fast-check";
import type { ReportChart } from "~/domain/report/charts.server";
import { SiteProvider } from "~/ui/site";
import { PointChart, spread } from "./pointChart";

const now = Date.UTC(2026, 10, 24, 9);

const chart = (change: Partial<ReportChart> = {}): ReportChart => ({
  readings: Array.from({ length: 12 }, (_, i) => ({ at: now - (12 - i) * 30 * DAY, value: 2 + i / 4, odd: i === 3 })),
  asNew: 2,
  limits: { upper: 6.5, lower: null },
  ahead: [1, 2, 3].map((n) => ({ at: now + n * 60 * DAY, p10: 4.5 + n / 4, p50: 5 + n / 2, p90: 6 + n })),
  ...change,
});

const render = (c: ReportChart) =>
  renderToStaticMarkup(
    <SiteProvider value={{ timeZone: "Europe/London", now, units: {} }}>
      <PointChart chart={c} quantity="caseDrainFlow" unit="L/min" state="alert" />
    </SiteProvider>,
  );

test("is told in words, with its limit, what it was as new, and the last reading", () => {
  const html = render(chart());
  expect(html).toContain('role="img"');
  expect(html).toMatch(/aria-label="12 readings from .*, last 4\.75\sL.min, limit 6\.50\sL.min, as new 2\.00\sL.min"/);
});

test("a reading that is left out of the judgement is hollow", () => {
  expect(render(chart()).match(/fill="none" stroke="currentColor"><\/circle>/g)).toHaveLength(1);
});

test("nothing read: nothing drawn", () => expect(render(chart({ readings: [] }))).toBe(""));

test("without limit, baseline or forecast there are the readings alone", () => {
  const html = render(chart({ limits: null, asNew: null, ahead: [] }));
  expect(html.match(/<circle/g)).toHaveLength(12);
  expect(html).not.toContain("limit");
});

test("whatever is read, every place on the sheet is a number", () => {
  const value = fc.double({ min: -1e6, max: 1e6, noNaN: true });
  const at = fc.integer({ min: now - 3000 * DAY, max: now });
  const readings = fc.array(fc.record({ at, value, odd: fc.boolean() }), { maxLength: 30 });
  fc.assert(
    fc.property(readings, fc.option(value), fc.option(value), (given, asNew, upper) => {
      const sorted = given.toSorted((a, b) => a.at - b.at);
      expect(render(chart({ readings: sorted, asNew, limits: { upper, lower: null } }))).not.toMatch(/NaN|Infinity/);
    }),
  );
});

test("labels keep their order and their distance", () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 150, noNaN: true }), { maxLength: 5 }), (ys) => {
      const placed = spread(ys.map((y) => ({ y, text: String(y), tone: "" })));
      for (const [i, l] of placed.entries()) {
        if (i > 0) expect(l.y - placed[i - 1]!.y).toBeGreaterThanOrEqual(13 - 1e-9);
        expect(l.y).toBeGreaterThanOrEqual(Number(l.text));
      }
    }),
  );
});
