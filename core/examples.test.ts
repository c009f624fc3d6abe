/** Every example in the docs of core is run: what it promises is what comes out. */
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";

const sources = readdirSync(__dirname, { recursive: true, encoding: "utf8" }).filter(
  (file) => file.endsWith(".ts") && !/\.test\.ts$|\.d\.ts$/.test(file),
);

interface Example {
  file: string;
  code: string;
  result: string;
}

const examples: Example[] = sources.flatMap((file) =>
  [...readFileSync(join(__dirname, file), "utf8").matchAll(/@example (.+?) \/\/ (.+)/g)].map(([, code, result]) => ({
    file,
    code: code!,
    result: result!.split(/[:,] /)[0]!.startsWith("{") ? result! : result!.split(/[:,;] /)[0]!,
  })),
);

/** Half of the last digit that is written. */
const tolerance = (written: string) => 0.5 * 10 ** -(written.split(".")[1]?.length ?? 0) + 1e-9;

test("there are examples", () => expect(examples.length).toBeGreaterThan(25));

test.each(examples)("$file: $code", async ({ file, code, result }) => {
  const names = (await import(join(__dirname, file))) as Record<string, unknown>;
  const value: unknown = new Function(...Object.keys(names), `return ${code}`)(...Object.values(names));
  if (result === "NaN") expect(value).toBeNaN();
  else if (/^-?[\d.]+$/.test(result))
    expect(Math.abs((value as number) - Number(result))).toBeLessThanOrEqual(tolerance(result));
  else if (result.startsWith("{")) expect(value).toEqual(new Function(`return (${result})`)());
  else throw new Error(`“${result}” is no figure that can be compared.`);
});
