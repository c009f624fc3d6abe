import { readFileSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { number, object } from "yup";
import { mayAct } from "./permissions";
import { check, localMoment, nameField, pastMoment, quantityField, textField } from "./validate";

describe("roles", () => {
  test.each([
    ["viewer", "viewer", true],
    ["viewer", "technician", false],
    ["technician", "engineer", false],
    ["engineer", "technician", true],
  ] as const)("%s doing what needs %s: %s", (has, needs, may) => expect(mayAct(has, needs)).toBe(may));

  test("every loader and action of every route is guarded", () => {
    const files: string[] = [];
    const walk = (dir: string) =>
      readdirSync(dir).forEach((name) => {
        const path = join(dir, name);
        if (statSync(path).isDirectory()) walk(path);
        else if (/\.tsx?$/.test(name) && !/\.test\./.test(name)) files.push(path);
      });
    walk("app");
    const open = new Map([
      ["app/root.tsx", "theme only"],
      ["app/account/signIn.tsx", "openLoader"],
      ["app/account/first.tsx", "openLoader: the key in its address lets one in, once"],
      ["app/account/signOut.ts", "redirects"],
      ["app/plan/calendarFeed.ts", "guardToken: its token is its key"],
    ]);
    const routes = readFileSync("app/routes.ts", "utf8");
    let seen = 0;
    for (const file of files) {
      const text = readFileSync(file, "utf8");
      for (const [, name, made] of text.matchAll(
        /export (?:const|async function|function) (loader|action)\b\s*(=\s*[\w.]+)?/g,
      )) {
        if (open.has(file) && !(file.endsWith("signOut.ts") && name === "action")) continue;
        expect(`${file} ${name} ${made ?? "function"}`).toBe(
          `${file} ${name} = ${name === "loader" ? "guard" : "guardAction"}`,
        );
        seen++;
      }
    }
    expect(seen).toBeGreaterThan(25);
    for (const [, file] of routes.matchAll(/(?:route|index|layout)\((?:"[^"]*", )?"([^"]+)"/g))
      expect(files).toContain(`app/${file}`);
  });
});

test("in the hour that comes twice a moment that has passed is the earlier one, where the later one lies ahead", () => {
  const zone = "Europe/London";
  const first = Date.UTC(2026, 9, 25, 0, 30);
  expect(pastMoment("2026-10-25T01:30", zone, first + 60_000)).toBe(first);
  expect(pastMoment("2026-10-25T01:30", zone, first + 3_700_000)).toBe(first + 3_600_000);
  // what lies ahead on any other day stays ahead
  expect(pastMoment("2026-10-26T01:30", zone, first)).toBe(Date.UTC(2026, 9, 26, 1, 30));
});

describe("forms", () => {
  const schema = object({
    name: nameField("it"),
    hours: quantityField("runningHours"),
    value: quantityField("caseDrainFlow", { required: true, assume: "gal/min" }),
    note: textField(5),
    n: number().typeError("Write a number."),
  });
  test("good input", async () => {
    expect(await check(schema, { name: " Pump ", hours: "", value: "2", note: "" })).toMatchObject({
      ok: true,
      values: { name: "Pump", hours: null, value: { value: 7.570823568, unit: "gal/min" } },
    });
  });
  test("every field gets its own message at once", async () => {
    const result = await check(schema, { name: "x".repeat(101), hours: "soon", value: "", note: "too long", n: "abc" });
    expect(result).toMatchObject({
      ok: false,
      problems: {
        name: "At most 100 characters.",
        hours: expect.stringContaining("not a number"),
        value: expect.stringContaining("Enter a value"),
        note: "At most 5 characters.",
        n: "Write a number.",
      },
    });
  });
  test("local times", () => {
    expect(localMoment("2026-07-20T10:40", "Europe/London")).toBe(Date.UTC(2026, 6, 20, 9, 40));
    expect(localMoment("2026-11-20 10:40", "Europe/London")).toBe(Date.UTC(2026, 10, 20, 10, 40));
    expect(localMoment("20.11.2026", "Europe/London")).toBeNaN();
    expect(localMoment("2026-13-20T10:40", "Europe/London")).toBeNaN();
  });
});
