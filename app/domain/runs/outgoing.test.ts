import { outgoingWorkOf } from "./outgoing";

const id = "6f1f8a52-2b5e-4c7c-9d3f-1f2a3b4c5d6e";
const step = {
  kind: "step",
  submission: id,
  runId: id,
  at: Date.UTC(2026, 10, 24),
  step: "zero",
  entry: "done",
  values: { value: "0 bar" },
  reason: "",
  after: "",
};

test("a step, a finding and a photograph are read", () => {
  expect(outgoingWorkOf(step)).toMatchObject({ step: "zero", values: { value: "0 bar" } });
  expect(outgoingWorkOf({ ...step, kind: "finding", finding: "wear", values: { where: "plate" } })).toBeDefined();
  const photo = { ...step, kind: "workPhoto", finding: "", caption: "", marks: [{ x: 0.5, y: 0.5, radius: 0.1 }] };
  expect(outgoingWorkOf({ ...photo, base64: "AAAA" })).toBeDefined();
});

test.each([
  [null],
  ["step"],
  [{ ...step, kind: "reading" }],
  [{ ...step, submission: "x" }],
  [{ ...step, at: 5 }],
  [{ ...step, entry: "signed" }],
  [{ ...step, values: { value: 3 } }],
  [{ ...step, values: { "a b": "c" } }],
  [{ ...step, values: { value: "x".repeat(401) } }],
  [{ ...step, values: Object.fromEntries(Array.from({ length: 13 }, (_, i) => [`k${"abcdefghijklm"[i]}`, ""])) }],
  [{ ...step, reason: undefined }],
  [{ ...step, kind: "finding", finding: "ghost" }],
  [{ ...step, kind: "workPhoto", finding: "", caption: "", marks: [{ x: 2, y: 0, radius: 0.1 }], base64: "" }],
])("%#: what is none is none", (item) => {
  expect(outgoingWorkOf(item)).toBeUndefined();
});
