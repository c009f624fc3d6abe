import { Form, redirect } from "react-router";
import type { Route } from "./+types/people";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { formFields } from "~/platform/request.server";
import { ConfirmButton } from "~/ui/confirm";
import { Button, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import {
  addPerson,
  changePerson,
  people,
  setAccess,
  setPassword,
  type Done,
  type Person,
} from "~/domain/access/index.server";

export const meta = () => [{ title: "People · Juncteral" }];

export const loader = guard("engineer", async ({ user, request }) => ({
  people: await people(),
  own: user.id,
  said: new URL(request.url).searchParams.get("said"),
}));

export const action = guardAction("engineer", async ({ request, user }) => {
  const fields = await formFields(request);
  const id = isUuid(fields.person) ? fields.person : null;
  let done: Done;
  if (fields.intent === "add") done = await addPerson(fields, user);
  else if (!id) done = { ok: false, because: "gone", problems: { form: "There is no such person." } };
  else if (fields.intent === "password") done = await setPassword(id, fields, user);
  else if (fields.intent === "end" || fields.intent === "give")
    done = await setAccess(id, fields.intent === "give", user);
  else done = await changePerson(id, fields, user);
  if (!done.ok) return refused(done, { about: `${fields.intent ?? "change"} ${id ?? ""}` });
  // who has just taken the own access or role away goes on as what is left
  return redirect(`/account/people?said=${Object.hasOwn(saidText, fields.intent ?? "") ? fields.intent : "change"}`);
});

const roleOptions = [
  { value: "viewer", label: "viewer: looks" },
  { value: "technician", label: "technician: logs, imports, works" },
  { value: "engineer", label: "engineer: everything" },
];
const saidText: Record<string, string> = {
  add: "Added. Hand over the password in person; it can be changed under Account.",
  change: "Saved.",
  password: "The password is changed; the person is signed out everywhere.",
  end: "Access ended; the person is signed out everywhere.",
  give: "The person may sign in again.",
};

function PersonRow({
  p,
  own,
  answer,
}: {
  p: Person;
  own: boolean;
  answer: { problems: Record<string, string>; about: string } | undefined;
}) {
  const site = useSite();
  const of = (intent: string) => (answer?.about === `${intent} ${p.id}` ? answer.problems : undefined);
  const open = ["change", "password", "end", "give"].some((intent) => of(intent));
  return (
    <li className="ruled py-2">
      <details open={open || undefined}>
        <summary className="cursor-pointer [overflow-wrap:anywhere]">
          <strong className={`font-semibold ${p.endedAt ? "text-ink-2" : ""}`}>{p.name}</strong>{" "}
          <span className="text-sm text-ink-2">
            {`signs in as ${p.signIn}`},{" "}
            {p.endedAt
              ? `was ${p.role} until ${dayText(p.endedAt, site)}`
              : `${p.role} since ${dayText(p.since, site)}`}
            {own ? ": you" : ""}
          </span>
        </summary>
        <div className="mt-3 mb-2 grid max-w-2xl gap-x-8 gap-y-4 sm:grid-cols-2">
          {p.endedAt ? null : (
            <Form method="post" noValidate className="grid content-start gap-3" aria-label={`What ${p.name} may do`}>
              <input type="hidden" name="person" value={p.id} />
              <input type="hidden" name="version" value={p.version} />
              <input type="hidden" name="intent" value="change" />
              <FormProblemsProvider problems={of("change")}>
                <div className="grid gap-3">
                  <TextField name="name" label="Name" defaultValue={p.name} maxLength={100} />
                  <SelectField name="role" label="May do" defaultValue={p.role} options={roleOptions} />
                  <Button tone="plain">Save</Button>
                </div>
              </FormProblemsProvider>
            </Form>
          )}
          <div className="grid content-start gap-4">
            {p.endedAt ? null : (
              <Form method="post" noValidate className="grid gap-3" aria-label={`A new password for ${p.name}`}>
                <input type="hidden" name="person" value={p.id} />
                <input type="hidden" name="intent" value="password" />
                <FormProblemsProvider problems={of("password")}>
                  <div className="grid gap-3">
                    <TextField
                      name="password"
                      label="New password"
                      type="password"
                      autoComplete="new-password"
                      hint="For one who has forgotten it; at least 10 characters"
                      maxLength={200}
                    />
                    <Button tone="plain">Set it</Button>
                  </div>
                </FormProblemsProvider>
              </Form>
            )}
            <Form method="post" aria-label={`Access of ${p.name}`}>
              <input type="hidden" name="person" value={p.id} />
              <FormProblemsProvider problems={of("end") ?? of("give")}>
                {p.endedAt ? (
                  <Button tone="plain" name="intent" value="give">
                    Give access back
                  </Button>
                ) : (
                  <ConfirmButton
                    intent="end"
                    label="End access"
                    question={`End the access of ${p.name}?`}
                    explain="The person is signed out at once. What was written under the name stays."
                  />
                )}
              </FormProblemsProvider>
            </Form>
          </div>
        </div>
      </details>
    </li>
  );
}

export default function People({ loaderData: { people, own, said }, actionData }: Route.ComponentProps) {
  const answer = actionData && "about" in actionData ? actionData : undefined;
  const active = people.filter((p) => !p.endedAt).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Account", to: "/account" }, { label: "People" }]}
        title={active === 1 ? "One person may sign in" : `${active} people may sign in`}
      >
        Viewers look, technicians log, engineers decide.
      </PageHead>
      {said && Object.hasOwn(saidText, said) && !answer ? <Notice>{saidText[said]}</Notice> : null}
      <div className="grid gap-x-8 xl:grid-cols-[minmax(0,1fr)_300px]">
        <Section title="Who">
          <ul>
            {people.map((p) => (
              <PersonRow key={`${p.id} ${p.version}`} p={p} own={p.id === own} answer={answer} />
            ))}
          </ul>
        </Section>
        <Section title="Add a person">
          <Form method="post" noValidate className="mt-3" key={people.length}>
            <input type="hidden" name="intent" value="add" />
            <FormProblemsProvider problems={answer?.about === "add " ? answer.problems : undefined}>
              <div className="grid gap-3">
                <TextField name="name" label="Name" hint="As it stands beside readings" maxLength={100} />
                <TextField name="signIn" label="Sign-in name" autoCapitalize="none" maxLength={40} />
                <SelectField name="role" label="May do" defaultValue="technician" options={roleOptions} />
                <TextField
                  name="password"
                  label="First password"
                  type="password"
                  autoComplete="new-password"
                  hint="At least 10 characters"
                  maxLength={200}
                />
                <Button>Add</Button>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
      </div>
    </>
  );
}
