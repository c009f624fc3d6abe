import { Form } from "react-router";
import type { Route } from "./+types/calendar";
import { feedsOf, makeFeed, revokeFeed } from "~/domain/plan/calendar.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { formFields } from "~/platform/request.server";
import { ConfirmButton } from "~/ui/confirm";
import { Button, Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, momentText, useSite } from "~/ui/site";
import { calendar as texts } from "./texts";

export const meta = () => [{ title: texts.calendarJuncteral }];

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
        crumbs={[{ label: texts.plan, to: "/plan" }, { label: texts.calendar }]}
        title={texts.stopsAndBookedWork}
      />
      {actionData?.problems?.form ? <Notice tone="verm">{actionData.problems.form}</Notice> : null}
      <Section title={texts.onceAsAFile}>
        <p className="py-2">
          <a href="/plan/calendar.ics" className="way" download="juncteral.ics">
            {texts.downloadTheCalendar}
          </a>
          <span className="text-ink-2"> {texts.icalendarItDoesNot}</span>
        </p>
      </Section>
      <Section title={texts.keptUpToDate}>
        <p className="py-2 text-ink-2">{texts.enterTheAddressIn}</p>
        {address ? (
          <Notice tone="sea">
            <label htmlFor="feed-address" className="block">
              {texts.yourAddressItIs}
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
                  {texts.made(dayText(f.madeAt, site))}
                  <span className="text-ink-2">
                    , {f.lastReadAt === null ? texts.neverRead : texts.lastRead(momentText(f.lastReadAt, site))}
                  </span>
                </span>
                <Form method="post">
                  <input type="hidden" name="feed" value={f.id} />
                  <ConfirmButton
                    intent="revoke"
                    label={texts.revoke}
                    question={texts.revokeThisAddress}
                    explain={texts.calendarsThatReadIt}
                  />
                </Form>
              </li>
            ))}
          </ul>
        ) : null}
        <Form method="post">
          <Button name="intent" value="make">
            {texts.makeAPrivateAddress}
          </Button>
        </Form>
      </Section>
    </div>
  );
}
