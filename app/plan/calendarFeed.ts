import { calendarText, opensFeed } from "~/domain/plan/index.server";
import { guardToken, notFound } from "~/platform/guard.server";
import { calendarAnswer } from "./calendarAnswer";

/** The calendar at a private address: its token stands for the person who made it. */
export const loader = guardToken(async ({ params, request }) => {
  if (!(await opensFeed(params.token ?? ""))) throw notFound("calendar");
  return calendarAnswer(await calendarText(new URL(request.url).origin));
});
