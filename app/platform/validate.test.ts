import { number, object, string } from "yup";
import { check } from "./validate";

test("no message is of the checking library's own wording", async () => {
  const schema = object({
    version: number().required().max(3).integer(),
    kind: string().oneOf(["a"]).required(),
    name: string().max(2),
  });
  const checked = await check(schema, { version: "x", kind: "z", name: "long" });
  if (checked.ok) throw new Error("taken");
  expect(checked.problems).toEqual({
    version: "The form is out of date: load the page again.",
    kind: "Choose one of those offered.",
    name: "At most 2 characters.",
  });
  const empty = await check(schema, {});
  if (empty.ok) throw new Error("taken");
  for (const message of Object.values(empty.problems)) expect(message).not.toMatch(/must|type|`/);
});
