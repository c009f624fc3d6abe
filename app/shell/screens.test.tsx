/** The frame of every page: counts beside places, who is signed in, and a warning where assessments stand still. */
import { HOUR } from "@core";
import type { ComponentType } from "react";
import { rendered, renderedPage, TEST_NOW, wordsOf } from "~/ui/testing";
import Shell, { ErrorBoundary } from "./shell";

type Frame = Parameters<typeof Shell>[0]["loaderData"];
const working = { runs: true, lastSeen: TEST_NOW, waiting: 0, failed: 0 };
const show = (change: object = {}) =>
  renderedPage(Shell, {
    user: { id: "u1", name: "T. Wren", role: "technician", units: {} },
    now: TEST_NOW,
    site: "Eskermouth Harbour",
    timeZone: "Europe/London",
    decisions: 0,
    oils: 0,
    openWork: 0,
    worker: working,
    ...change,
  } as unknown as Frame);
/** The link of a place, from its address to its end. */
const placeLink = (html: string, to: string) =>
  [...html.matchAll(/<a [^>]*href="([^"]*)"[^>]*>.*?<\/a>/g)].find((m) => m[1] === to && !m[0].includes("sr-only"))![0];

test("what asks for somebody stands as a number beside its place, and nothing where nothing does", () => {
  const html = show({ decisions: 8, oils: 3, openWork: 1 });
  expect(wordsOf(placeLink(html, "/"))).toBe("Today 8");
  expect(wordsOf(placeLink(html, "/oil"))).toBe("Oil 3");
  expect(wordsOf(placeLink(html, "/work"))).toBe("Work 1");
  expect(wordsOf(placeLink(html, "/fleet"))).toBe("Fleet");
  expect(wordsOf(placeLink(show(), "/"))).toBe("Today");
});
test("the site and who is signed in, with the role, lead to the account", () => {
  expect(wordsOf(placeLink(show(), "/account"))).toBe("T. Wren, technician");
  expect(wordsOf(show())).toContain("Eskermouth Harbour");
});
test("the first link goes past the places to the screen", () => {
  const html = show();
  expect(html.indexOf('href="#screen"')).toBeLessThan(html.indexOf('aria-label="Places"'));
  expect(html).toMatch(/<main id="screen" tabindex="-1"/i);
});

describe("assessments that stand still", () => {
  const warned = (worker: object, role = "technician") => {
    const html = show({ worker: { ...working, ...worker }, user: { id: "u", name: "N", role, units: {} } });
    return /<p role="status"[^>]*>(.*?)<\/p>/.exec(html)?.[1] ?? null;
  };
  test("nothing is said while the worker runs, however much waits", () => expect(warned({ waiting: 400 })).toBeNull());
  test("nor where it does not run and nothing waits", () => expect(warned({ runs: false })).toBeNull());
  test("since when, and how many wait", () =>
    expect(warned({ runs: false, waiting: 12, lastSeen: TEST_NOW - HOUR })).toBe(
      "Assessments have stopped since 24\u00a0Nov, 08:00: " +
        "12 are waiting and no worker is running. Readings are safe; " +
        "their assessments are out of date.",
    ));
  test("a worker that was never seen gives no date; a great many are not counted out", () => {
    const said = warned({ runs: false, waiting: 5000, lastSeen: null })!;
    expect(said).toContain("Assessments have stopped: ");
    expect(said).toContain("very many are waiting and no worker is running. Readings are safe; ");
  });
  test("what could not be assessed is an engineer's to see to", () => {
    expect(warned({ failed: 1 }, "engineer")).toBe("1 record could not be assessed. See Records.");
    expect("1 record could not be assessed. See Records.").not.toMatch(/records /);
    expect(warned({ failed: 2 }, "technician")).toBeNull();
  });
  test("a worker that stopped comes before what failed", () =>
    expect(warned({ runs: false, waiting: 1, failed: 2 }, "engineer")).toContain("their assessments are out of date."));
});

describe("an address that fails inside the frame", () => {
  const Boundary = ErrorBoundary as unknown as ComponentType<{ error: unknown }>;
  const failed = (error: unknown) => wordsOf(rendered(<Boundary error={error} />));
  const answer = (status: number, data: unknown) => ({ status, statusText: "", internal: false, data });
  test("no such record: named, with the way back to Today", () => {
    const said = failed(answer(404, { kind: "missing", what: "point" }));
    expect(said).toContain(
      "The address may be old, or the record was retired. The find box opens machines and points by name.",
    );
    expect(said).toContain("Go to Today");
  });
  test("a fault of ours never shows its message", () => {
    const said = failed(new Error("relation readings does not exist"));
    expect(said).toContain("This page could not be made");
    expect(said).not.toContain("relation");
  });
});
