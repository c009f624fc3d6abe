import { Form } from "react-router";
import type { Route } from "./+types/calendar";
import { feedsOf, makeFeed, revokeFeed } from "~/domain/plan/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { formFields } from "~/platform/request.server";
import { ConfirmButton } from "~/ui/confirm";
import { Button, Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, momentText, useSite } from "~/ui/site";

export const meta = () => [{ title: "Calendar · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({ feeds: await feedsOf(user.id) }));

export const action = guardAction("viewer", async ({ request, user }) => {
  const fields = await formFields(request);
  if (fields.intent === "revoke") {
    const done = await revokeFeed(isUuid(fields.feed) ? fields.feed : crypto.randomUUID(), user);
    return done.ok ? { address: null, problems: undefined } : refused(done);
  }
  const made = await makeFeed(user);
  if (!made.ok) return refused(made);
  return { address: `${new URL(request.url).origin}/calendar/${made.token}.ics`, problems: undefined };
});

export default function Calendar({ loaderData: { feeds }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const address = actionData && "address" in actionData ? actionData.address : null;
  return (
    <div className="max-w-3xl">
      <PageHead
        crumbs={[{ label: "Plan", to: "/plan" }, { label: "Calendar" }]}
        title="Stops and booked work in your own calendar"
      />
      {actionData?.problems?.form ? <Notice tone="verm">{actionData.problems.form}</Notice> : null}
      <Section title="Once, as a file">
        <p className="py-2">
          <a href="/plan/calendar.ics" className="way" download="juncteral.ics">
            Download the calendar
          </a>
          <span className="text-ink-2"> (iCalendar). It does not change when the plan does.</span>
        </p>
      </Section>
      <Section title="Kept up to date, at a private address">
        <p className="py-2 text-ink-2">
          Enter the address in a calendar program as a subscription. Whoever has it can read stops and booked work
          without signing in: revoke it when it was passed on or a device is lost.
        </p>
        {address ? (
          <Notice tone="sea">
            <label htmlFor="feed-address" className="block">
              Your address. It is shown only now:
            </label>
            <input
              id="feed-address"
              readOnly
              value={address}
              className="mt-1 w-full border border-line-2 bg-sheet px-2 py-1.5 text-sm"
              onFocus={(e) => e.target.select()}
            />
          </Notice>
        ) : null}
        {feeds.length > 0 ? (
          <ul className="mb-3">
            {feeds.map((f) => (
              <li key={f.id} className="ruled flex flex-wrap items-center justify-between gap-3 py-1.5">
                <span>
                  {`Made ${dayText(f.madeAt, site)}`}
                  <span className="text-ink-2">
                    , {f.lastReadAt === null ? "never read" : `last read ${momentText(f.lastReadAt, site)}`}
                  </span>
                </span>
                <Form method="post">
                  <input type="hidden" name="feed" value={f.id} />
                  <ConfirmButton
                    intent="revoke"
                    label="Revoke"
                    question="Revoke this address?"
                    explain="Calendars that read it hear nothing more; what they have stays with them."
                  />
                </Form>
              </li>
            ))}
          </ul>
        ) : null}
        <Form method="post">
          <Button name="intent" value="make">
            Make a private address
          </Button>
        </Form>
      </Section>
    </div>
  );
}
