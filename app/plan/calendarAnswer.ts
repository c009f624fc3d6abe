/** A calendar as an HTTP answer. */
export const calendarAnswer = (text: string) =>
  new Response(text, {
    headers: {
      "Content-Type": "text/calendar; charset=utf-8",
      "Content-Disposition": 'inline; filename="juncteral.ics"',
    },
  });
