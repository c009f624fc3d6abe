/** What the pieces of the oil's pages say. */
import { DAY } from "@core";
import type { ReactElement } from "react";
import type { OilAssessment, OilSample } from "@core";
import { CauseList, FindingList, SuspectList } from "./chain";
import { FilterSection } from "./filters";
import { CodeLines, sizeChart } from "./sizes";
import { lineOf, SmallCharts } from "./smallCharts";
import { rendered, TEST_NOW, wordsOf } from "~/ui/testing";

const render = (element: ReactElement): string => rendered(element).replace(/<!-- -->/g, "");
const words = (element: ReactElement) => wordsOf(render(element));

describe("the chain", () => {
  test("findings stand with their day, or the two samples between which they came", () => {
    const html = render(
      <FindingList
        findings={[
          { at: TEST_NOW - 20 * DAY, until: null, text: "Element fitted.", tone: "bad" },
          { at: TEST_NOW - 15 * DAY, until: TEST_NOW - 5 * DAY, text: "Dirt.", tone: "bad", pointId: "p1" },
          { at: null, until: null, text: "Blocked.", tone: "doubt" },
        ]}
      />,
    );
    expect(html).toContain("4\u00a0Nov");
    expect(html).toContain("9\u00a0Nov – 19\u00a0Nov");
    expect(html).toContain("now");
    expect(html).toContain('href="/points/p1"');
  });
  test("the likeliest cause is in bold to its colon, never the one that nobody noted", () => {
    const cause = (id: string, share: number, text: string): OilAssessment["causes"][number] => ({
      id: id as "filterPast",
      share,
      text,
      at: null,
      componentId: null,
      tells: "Look.",
    });
    expect(
      render(
        <CauseList
          causes={[
            cause("filterPast", 0.7, "oil bypasses the filter: its drop is small"),
            cause("unknown", 0.3, "something that nobody noted"),
          ]}
        />,
      ),
    ).toMatch(/<strong[^>]*>oil bypasses the filter<\/strong>: its drop is small/);
    expect(
      render(
        <CauseList
          causes={[cause("unknown", 0.996, "something that nobody noted"), cause("filled", 0.004, "oil was filled")]}
        />,
      ),
    ).not.toContain("<strong");
    expect(words(<CauseList causes={[cause("filled", 0.004, "x")]} />)).toContain("less than 1 %");
  });
  test("a suspect names what of it is made of the metal, and whether its own reading agrees", () => {
    expect(
      words(
        <SuspectList suspects={[{ componentId: "p", name: "Pump", share: 0.67, parts: ["slippers"], agrees: true }]} />,
      ),
    ).toContain("67 % Pump : slippers . Its own reading got worse too");
  });
});

describe("filters", () => {
  const element = {
    componentId: "f",
    name: "Return filter",
    since: TEST_NOW - 100 * DAY,
    element: "EF",
    submission: "s",
    lifeId: "l",
  };
  const finding: OilAssessment["filters"][number] = {
    componentId: "f",
    name: "Return filter",
    now: 1.2,
    asFitted: 0.8,
    usualNew: 0.8,
    hoursLeft: { early: 400, middle: 800, late: null },
    daysLeft: { early: 50, middle: 100, late: null },
    past: null,
    blockedSpans: [],
    pastSince: null,
    blocked: false,
  };
  const page = (change: Partial<typeof finding> | null, mayLog = true) =>
    words(
      <FilterSection
        circuitId="k"
        filters={change ? [{ ...finding, ...change }] : []}
        elements={[element]}
        points={[{ componentId: "f", pointId: "p" }]}
        strainers={[]}
        mayLog={mayLog}
        now={TEST_NOW}
      />,
    );
  test("one that fills has its dates and what is not known; one that lets oil past has no hours left", () => {
    expect(page({})).toMatch(
      /Clogging: the bypass opens between 13 Jan and a date that cannot be estimated yet, most likely about 4 Mar/,
    );
    expect(page({})).toContain("400 or more running hours left");
    expect(page({ past: "it has burst" })).toMatch(/Oil bypasses it: it has burst/);
    expect(page({ past: "it has burst" })).not.toContain("running hours left");
    expect(page({ blocked: true })).toContain("Blocked: the bypass is open, or nearly. Replace the element.");
    expect(page({ hoursLeft: null, daysLeft: null })).toContain("No measurable clogging.");
  });
  test("one that nobody reads says what is not known; a viewer is offered no form", () => {
    expect(page(null)).toContain(
      "Its differential pressure is not read, so clogging and bypass flow cannot be detected.",
    );
    expect(page({})).toContain("Record a new element");
    expect(page({}, false)).not.toContain("Record a new element");
  });
});

describe("the newest sample", () => {
  const sample: OilSample = {
    id: "s",
    number: "S-1",
    at: TEST_NOW,
    hours: null,
    place: "port",
    state: "working",
    code: null,
    results: { over4: { value: 1500 }, over6: { value: 450 }, over14: { value: 200 } },
  };
  const target: OilAssessment["target"] = { codes: [18, 16, 13], text: "18/16/13", because: "Pump (typical guidance)" };
  test("codes, target with its reason, and how far over at each size", () => {
    const said = words(<CodeLines sample={sample} target={target} over={[0, 0, 2]} />);
    expect(said).toContain("18/16/15");
    expect(said).toContain("18/16/13, Pump (typical guidance)");
    expect(said).toContain("met over 4 µm, met over 6 µm, +2 over 14 µm");
    expect(words(<CodeLines sample={sample} target={null} over={[]} />)).toContain("none: no part asks for one");
    expect(words(<CodeLines sample={{ ...sample, results: {} }} target={target} over={[]} />)).toContain(
      "No particle count in this sample.",
    );
  });
  test("its counts over size against where the target's numbers end; too few sizes make no picture", () => {
    const chart = sizeChart(sample, target)!;
    expect(chart.series.map((s) => s.points.length)).toEqual([3, 3, 3]);
    expect(chart.series[2]!.points).toEqual([
      [4, 2500],
      [6, 640],
      [14, 80],
    ]);
    expect(sizeChart({ ...sample, results: { over4: { value: 3 } } }, target)).toBeNull();
    expect(sizeChart(sample, null)!.series).toHaveLength(2);
  });
});

describe("what the laboratory found, in small", () => {
  const points = [
    { at: TEST_NOW - 400 * DAY, value: 5, below: true },
    { at: TEST_NOW - 200 * DAY, value: 22, below: false },
    { at: TEST_NOW - 20 * DAY, value: 48, below: false },
  ];
  const show = (changes: number[], line: { value: number; label: string } | null) =>
    render(<SmallCharts charts={[{ id: "iron", points, line }]} changes={changes} now={TEST_NOW} />);
  test("newest in bold, range and limit in words, as much for who cannot see it", () => {
    const html = show([], { value: 60, label: "limit" });
    expect(html).toMatch(/<strong[^>]*>48/);
    expect(html).toMatch(/aria-label="Iron, 3 samples: &lt; 10.*48.*limit 60/);
    expect(wordsOf(html)).toMatch(/5.* to 48.*limit 60/);
    // "less than" is hollow
    expect(html.match(/fill="var\(--sheet\)"/g)).toHaveLength(1);
  });
  test("a line is not drawn over a change of oil", () => {
    const pathOf = (html: string) => /<path d="(M[^"]*)" stroke="currentColor"/.exec(html)![1]!;
    expect(pathOf(show([], null)).match(/M/g)).toHaveLength(1);
    expect(pathOf(show([TEST_NOW - 100 * DAY], null)).match(/M/g)).toHaveLength(2);
    // one before the first sample parts nothing
    expect(pathOf(show([TEST_NOW - 900 * DAY], null)).match(/M/g)).toHaveLength(1);
  });
  test("what is dashed: the limit of a metal, the stated viscosity", () => {
    expect(lineOf("iron", [{ id: "iron", fixed: 60 }], 46)).toEqual({ value: 60, label: "limit" });
    expect(lineOf("kv40", [], 46)).toEqual({ value: 46, label: "stated" });
    expect(lineOf("water", [], 46)).toBeNull();
    expect(render(<SmallCharts charts={[]} changes={[]} now={TEST_NOW} />)).toBe("");
  });
});
