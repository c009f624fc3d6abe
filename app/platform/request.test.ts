/** JSON as tablets send it, and as nobody of ours does: looked at before it is parsed. */
import { jsonOf } from "./request.server";

const sent = (text: string) =>
  jsonOf(new Request("http://quay/", { method: "POST", body: text, headers: { "Content-Type": "application/json" } }));

test("a batch of entries comes through, texts cleaned, a photograph of megabytes among them", async () => {
  const photo = "A".repeat(3_000_000);
  const batch = [{ kind: "photo", base64: photo }, { note: 'a "quoted" \\ text, [not] {a} list\0' }];
  expect(await sent(JSON.stringify(batch))).toEqual([
    { kind: "photo", base64: photo },
    { note: 'a "quoted" \\ text, [not] {a} list' },
  ]);
});

test.each([
  ["deeper than any of ours", "[".repeat(500_000)],
  ["more values than any of ours", `[${"0,".repeat(400_000)}0]`],
  ["a text that does not end", '["abc'],
  ["nothing", ""],
])("%s is none, and is told from one without being parsed", async (_what, text) => {
  expect(await sent(text)).toBeUndefined();
});

test("names that every object has are left out: they reach into programs", async () => {
  const found = (await sent('{"fields":{"__proto__":"x","constructor":"y","value":"3"}}')) as { fields: object };
  expect(Object.keys(found.fields)).toEqual(["value"]);
});
