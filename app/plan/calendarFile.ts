import { calendarText } from "~/domain/plan/index.server";
import { guard } from "~/platform/guard.server";
import { calendarAnswer } from "./calendarAnswer";

/** The calendar as a file, for people who are signed in. */
export const loader = guard("viewer", async ({ request }) =>
  calendarAnswer(await calendarText(new URL(request.url).origin)),
);
