import { DAY, HOUR } from "@core";
import { renderToStaticMarkup } from "react-dom/server";
import type { ConditionState } from "@core";
import { MarginRule, marginText } from "./marginRule";
import { Due } from "./due";
import { SiteProvider, dayText, dueText, localInput, momentText, monthText } from "./site";
import { StateGlyph, StateWord } from "./state";
import { Verdict, partText } from "./verdict";
import { WorkingTable } from "./working";

const now = Date.UTC(2026, 10, 24, 9);
const site = { timeZone: "Europe/London", now, units: {} };

describe("dates as people say them", () => {
  test("near ones without, far ones with the year", () => {
    expect(dayText(Date.UTC(2027, 0, 18), site)).toBe("18\u00a0Jan");
    expect(dayText(Date.UTC(2027, 8, 21), site)).toBe("21\u00a0Sep\u00a02027");
    // what is printed and kept always has the year
    expect(dayText(Date.UTC(2027, 0, 18), { ...site, years: true })).toBe("18\u00a0Jan\u00a02027");
    expect(dayText(Date.UTC(2021, 7, 6), site)).toBe("6\u00a0Aug\u00a02021");
  });
  test("in the time zone of the site", () => {
    const late = Date.UTC(2026, 6, 20, 23, 30); // 00:30 next day in London
    expect(momentText(late, site)).toBe("21\u00a0Jul, 00:30");
    expect(localInput(late, site.timeZone)).toBe("2026-07-21T00:30");
    expect(monthText(late, site)).toBe("July 2026");
  });
  test.each([
    [-2, "2 days late"],
    [-1, "1 day late"],
    [0, "today"],
    [3, "Friday"],
    [9, "in 9 days"],
  ])("due %d days from now: %s", (days, text) => {
    expect(dueText(now + days * DAY, site)).toBe(text);
  });
  test.each([
    ["late only from the day after", now - DAY, true],
    ["not on its own day, though its hour is past", now - 8 * HOUR, false],
    ["not to come", now + DAY, false],
  ])("what is due stands out when it is late: %s", (_when, at, late) => {
    const html = renderToStaticMarkup(
      <SiteProvider value={site}>
        <Due at={at} />
      </SiteProvider>,
    );
    expect(html.includes("text-verm")).toBe(late);
  });
});

describe("margin rule", () => {
  const margin = { value: 0.86, low: 0.8, high: 0.92, before: 0.81 };
  test("says the margin in words for those who do not see it", () => {
    expect(marginText(margin, "alarm")).toBe("86 % of margin used");
    expect(marginText({ ...margin, value: -0.2 }, "steady")).toBe("0 % of margin used");
    expect(marginText({ ...margin, value: 40 }, "alarm")).toBe("far beyond the limit");
    expect(marginText(null, "unproven")).toBe("not yet known");
    expect(renderToStaticMarkup(<MarginRule margin={margin} state="alarm" />)).toContain(
      'aria-label="86 % of margin used"',
    );
  });
  test("the notch stays on the ruler however far beyond the limit", () => {
    const html = renderToStaticMarkup(
      <MarginRule margin={{ ...margin, value: 30, high: 60 }} state="alarm" width={100} />,
    );
    const places = [...html.matchAll(/M(\d+(?:\.\d+)?) 3\.5/g)].map((m) => Number(m[1]));
    expect(places).toHaveLength(1);
    expect(places[0]!).toBeLessThanOrEqual(95);
  });
  test("limit, value and baseline keep their order", () => {
    const html = renderToStaticMarkup(<MarginRule margin={{ ...margin, value: 0.5 }} state="drifting" width={108} />);
    const [, baseline, limit] = /M(\d+) 9\.5v10M(\d+(?:\.\d+)?) 5/.exec(html)!;
    const [, value] = /M(\d+(?:\.\d+)?) 3\.5h10/.exec(html)!;
    expect(Number(baseline)).toBeLessThan(Number(value) + 5);
    expect(Number(value) + 5).toBeLessThan(Number(limit));
  });
  test("unproven shows no whisker of a doubt that nobody knows", () => {
    expect(renderToStaticMarkup(<MarginRule margin={null} state="unproven" />)).toContain("not yet known");
  });
});

test("every state has a word and a glyph of its own", () => {
  const states: ConditionState[] = ["unproven", "steady", "drifting", "alert", "alarm"];
  const glyphs = states.map((state) => renderToStaticMarkup(<StateGlyph state={state} />));
  expect(new Set(glyphs).size).toBe(states.length);
  for (const state of states) expect(renderToStaticMarkup(<StateWord state={state} />)).toContain(state);
});

describe("verdict", () => {
  test("parts are written for this reader", () => {
    expect(partText({ text: "Case drain " }, site)).toBe("Case drain ");
    expect(partText({ value: 5.6, quantity: "caseDrainFlow" }, site)).toBe("5.60\u00a0L/min");
    expect(partText({ value: 0.0712, quantity: "caseDrainFlow", digits: 2 }, site)).toBe("0.071\u00a0L/min");
    expect(partText({ date: Date.UTC(2027, 0, 12), precision: "day" }, site)).toBe("12\u00a0Jan");
    expect(partText({ date: Date.UTC(2028, 4, 12), precision: "month" }, site)).toBe("May 2028");
  });
  test("what matters is strong, and nothing typed becomes markup", () => {
    const html = renderToStaticMarkup(
      <SiteProvider value={site}>
        <Verdict parts={[{ text: "<b>a</b> " }, { text: "8.6 %", strong: true }]} />
      </SiteProvider>,
    );
    expect(html).toContain("&lt;b&gt;a&lt;/b&gt;");
    expect(html).toMatch(/<strong[^>]*>8\.6\u00a0%<\/strong>/);
  });
});

test("figures within a line of the working are in the reader's units too", () => {
  const working = {
    formula: "F",
    rows: [
      {
        label: "ν at {}, {} of full flow",
        given: [
          { value: 50, quantity: "oilTemperature" as const },
          { value: 37.85, quantity: "flow" as const, digits: 3 },
        ],
        value: 1,
      },
    ],
    source: "S.",
  };
  const html = renderToStaticMarkup(
    <SiteProvider value={{ ...site, units: { temperature: "°F", flow: "gal/min" } }}>
      <WorkingTable working={working} />
    </SiteProvider>,
  );
  expect(html).toContain("ν at 122\u00a0°F, 10.00\u00a0gal/min of full flow");
});

test("the working shows every row, its source and its note", () => {
  const html = renderToStaticMarkup(
    <WorkingTable
      working={{
        formula: "F",
        rows: [
          { label: "ν at 46 °C", value: 35.31, quantity: "viscosity", digits: 3 },
          { label: "readings", value: 12 },
        ],
        source: "ASTM D341.",
        note: "Provisional.",
      }}
    />,
  );
  for (const text of ["F", "ν at 46 °C", "35.3\u00a0mm²/s", "readings", "12", "ASTM D341.", "Provisional."])
    expect(html).toContain(text);
});
