/**
 * Every example in the docs of core is run: what it promises is what comes out. An example is JavaScript; a line that ends with
 * `// result`, or comes before a line of it, is an expression with what it gives, as a literal, with a remark after ": " or ", " where
 * the result is a bare figure or word. What core exports, what the file exports and `circuitOf`, to write a circuit down, are at hand by name.
 */
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { circuitOf } from "./circuit/build";
import * as core from "./index";

const sources = readdirSync(__dirname, { recursive: true, encoding: "utf8" }).filter(
  (file) => file.endsWith(".ts") && !/\.test\.ts$|\.d\.ts$/.test(file),
);

interface Example {
  file: string;
  lines: string[];
}

const lineOf = (comment: string) => comment.replace(/^\s*\* ?/, "");

/** The examples of a file: from each `@example` to the next tag or the end of the comment. */
function examplesOf(file: string): Example[] {
  const source = readFileSync(join(__dirname, file), "utf8");
  return [...source.matchAll(/@example([^]*?)(?=\n\s*\* @|\s*\*\/)/g)].map(([, block]) => ({
    file,
    lines: block!.split("\n").map(lineOf).filter(Boolean),
  }));
}

const RESULT = /^(.*?);? ?\/\/ (.+)$/;

/** What is promised: a literal whole, of a bare figure or word what stands before a remark. */
const promised = (text: string) => (/^[{["]/.test(text) ? text : text.split(/[:,;] /)[0]!);

/** Half of the last digit that is written. */
const tolerance = (written: number) => 0.5 * 10 ** -(String(written).split(".")[1]?.length ?? 0) + 1e-9;

/** Is it what was promised? A figure to its last digit; of an object what is written of it, of a list everything. */
function expectLike(value: unknown, written: unknown): void {
  if (typeof written === "number" && Number.isFinite(written)) {
    expect(typeof value).toBe("number");
    expect(Math.abs((value as number) - written)).toBeLessThanOrEqual(tolerance(written));
  } else if (Array.isArray(written)) {
    expect(value).toHaveLength(written.length);
    written.forEach((one, k) => expectLike((value as unknown[])[k], one));
  } else if (written !== null && typeof written === "object") {
    expect(value).toEqual(expect.any(Object));
    for (const [key, one] of Object.entries(written)) expectLike((value as Record<string, unknown>)[key], one);
  } else expect(value).toEqual(written);
}

async function run({ file, lines }: Example): Promise<number> {
  const names = { ...core, circuitOf, ...((await import(join(__dirname, file))) as Record<string, unknown>) };
  let promises = 0;
  const check = (value: () => unknown, result: string) => {
    promises++;
    if (result === "RangeError") expect(value).toThrow(RangeError);
    else expectLike(value(), new Function(`return (${result})`)());
  };
  let open = "";
  const body = lines.map((line) => {
    const [, code, result] = RESULT.exec(line) ?? [];
    open += `${code ?? line}\n`;
    if (result === undefined && !line.endsWith(";")) return "";
    const whole = open;
    open = "";
    return result === undefined ? whole : `check(() => (${whole}), ${JSON.stringify(promised(result))});\n`;
  });
  if (open) throw new Error(`An example ends in the middle: ${open}`);
  new Function("check", ...Object.keys(names), body.join(""))(check, ...Object.values(names));
  return promises;
}

const examples = sources.flatMap(examplesOf);

test("there are examples", () => expect(examples.length).toBeGreaterThan(150));

test.each(examples.map((e) => [e.file, e.lines.at(-1)!, e] as const))("%s: %s", async (_file, _last, example) => {
  expect(await run(example)).toBeGreaterThan(0);
});
