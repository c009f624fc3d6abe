import { check } from "~/platform/validate";
import { bookingSchema } from "./form";

test("a booking needs its component and hours", async () => {
  expect(await check(bookingSchema, { componentId: "", kind: "dance", crewHours: "", submission: "x" })).toMatchObject({
    ok: false,
    problems: {
      componentId: expect.any(String),
      kind: expect.any(String),
      crewHours: expect.any(String),
      submission: expect.any(String),
    },
  });
});
