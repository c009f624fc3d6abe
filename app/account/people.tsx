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
} from "~/domain/access/people.server";
import { people as texts } from "./texts";

export const meta = () => [{ title: texts.peopleJuncteral }];

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
  else if (!id) done = { ok: false, status: 404, problems: { form: texts.thereIsNoSuch } };
  else if (fields.intent === "password") done = await setPassword(id, fields, user);
  else if (fields.intent === "end" || fields.intent === "give")
    done = await setAccess(id, fields.intent === "give", user);
  else done = await changePerson(id, fields, user);
  if (!done.ok) return refused(done, { about: `${fields.intent ?? texts.change} ${id ?? ""}` });
  // who has just taken the own access or role away goes on as what is left
  return redirect(
    `/account/people?said=${Object.hasOwn(saidText, fields.intent ?? "") ? fields.intent : texts.change}`,
  );
});

const roleOptions = [
  { value: "viewer", label: texts.viewerLooks },
  { value: "technician", label: texts.technicianLogsImportsWorks },
  { value: "engineer", label: texts.engineerEverything },
];
const saidText: Record<string, string> = {
  add: texts.addedHandOverThe,
  change: texts.saved,
  password: texts.thePasswordIsChanged,
  end: texts.accessEndedThePerson,
  give: texts.thePersonMaySign,
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
            {texts.signsInAs(p.signIn)},{" "}
            {p.endedAt ? texts.wasUntil(p.role, dayText(p.endedAt, site)) : texts.since(p.role, dayText(p.since, site))}
            {own ? texts.you : ""}
          </span>
        </summary>
        <div className="mt-3 mb-2 grid max-w-2xl gap-x-8 gap-y-4 sm:grid-cols-2">
          {p.endedAt ? null : (
            <Form method="post" noValidate className="grid content-start gap-3" aria-label={texts.whatMayDo(p.name)}>
              <input type="hidden" name="person" value={p.id} />
              <input type="hidden" name="version" value={p.version} />
              <input type="hidden" name="intent" value="change" />
              <FormProblemsProvider problems={of("change")}>
                <div className="grid gap-3">
                  <TextField name="name" label={texts.name} defaultValue={p.name} maxLength={100} />
                  <SelectField name="role" label={texts.mayDo} defaultValue={p.role} options={roleOptions} />
                  <Button tone="plain">{texts.save}</Button>
                </div>
              </FormProblemsProvider>
            </Form>
          )}
          <div className="grid content-start gap-4">
            {p.endedAt ? null : (
              <Form method="post" noValidate className="grid gap-3" aria-label={texts.aNewPasswordFor(p.name)}>
                <input type="hidden" name="person" value={p.id} />
                <input type="hidden" name="intent" value="password" />
                <FormProblemsProvider problems={of("password")}>
                  <div className="grid gap-3">
                    <TextField
                      name="password"
                      label={texts.newPassword}
                      type="password"
                      autoComplete="new-password"
                      hint={texts.forOneWhoHas}
                      maxLength={200}
                    />
                    <Button tone="plain">{texts.setIt}</Button>
                  </div>
                </FormProblemsProvider>
              </Form>
            )}
            <Form method="post" aria-label={texts.accessOf(p.name)}>
              <input type="hidden" name="person" value={p.id} />
              <FormProblemsProvider problems={of("end") ?? of("give")}>
                {p.endedAt ? (
                  <Button tone="plain" name="intent" value="give">
                    {texts.giveAccessBack}
                  </Button>
                ) : (
                  <ConfirmButton
                    intent="end"
                    label={texts.endAccess}
                    question={texts.endTheAccessOf(p.name)}
                    explain={texts.thePersonIsSigned}
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
        crumbs={[{ label: texts.account, to: "/account" }, { label: texts.people }]}
        title={active === 1 ? texts.onePersonMaySign : texts.peopleMaySignIn(active)}
      >
        {texts.viewersLookTechniciansLog}
      </PageHead>
      {said && Object.hasOwn(saidText, said) && !answer ? <Notice>{saidText[said]}</Notice> : null}
      <div className="grid gap-x-8 xl:grid-cols-[minmax(0,1fr)_300px]">
        <Section title={texts.who}>
          <ul>
            {people.map((p) => (
              <PersonRow key={`${p.id} ${p.version}`} p={p} own={p.id === own} answer={answer} />
            ))}
          </ul>
        </Section>
        <Section title={texts.addAPerson}>
          <Form method="post" noValidate className="mt-3" key={people.length}>
            <input type="hidden" name="intent" value="add" />
            <FormProblemsProvider problems={answer?.about === "add " ? answer.problems : undefined}>
              <div className="grid gap-3">
                <TextField name="name" label={texts.name} hint={texts.asItStandsBeside} maxLength={100} />
                <TextField name="signIn" label={texts.signInName} autoCapitalize="none" maxLength={40} />
                <SelectField name="role" label={texts.mayDo} defaultValue="technician" options={roleOptions} />
                <TextField
                  name="password"
                  label={texts.firstPassword}
                  type="password"
                  autoComplete="new-password"
                  hint={texts.atLeast10Characters}
                  maxLength={200}
                />
                <Button>{texts.add}</Button>
              </div>
            </FormProblemsProvider>
          </Form>
        </Section>
      </div>
    </>
  );
}
