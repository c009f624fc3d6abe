import { Form, redirect, useActionData } from "react-router";
import { openAction, openLoader, notFound, problems } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { addFirstEngineer, firstKeyHolds, firstPasswordProblem, signIn } from "~/platform/session.server";
import { Button, FormProblemsProvider, Notice, TextField } from "~/ui/form";
import { Mark } from "~/ui/mark";

const ADDRESS_IS_USED =
  "This address holds no more: the first engineer is made, or a newer address was printed. Sign in.";
const SIGN_IN_RULE = "2 to 40 letters, digits, dots, dashes; no spaces.";

export const meta = () => [{ title: "First engineer · Juncteral" }];

/** The key in the address is what lets one in: `npm start` printed it. */
export const loader = openLoader(async ({ params }) => {
  if (!(await firstKeyHolds(params.key ?? ""))) throw notFound("first engineer to make: the address held once");
  return null;
});

const signInName = /^[a-z0-9][a-z0-9._-]{1,39}$/;

export const action = openAction(async ({ request, params, context }) => {
  if (!(await firstKeyHolds(params.key ?? ""))) return problems({ form: ADDRESS_IS_USED }, 409);
  const fields = await formFields(request);
  const name = (fields.name ?? "").trim();
  const chosen = (fields.signIn ?? "").trim().toLowerCase();
  const password = fields.password ?? "";
  const weak = firstPasswordProblem(name, password) ?? (password.length > 200 ? "At most 200 characters." : undefined);
  const wrong = {
    ...(name.length >= 2 && name.length <= 100 ? {} : { name: "Give your name: 2 to 100 characters." }),
    ...(signInName.test(chosen) ? {} : { signIn: SIGN_IN_RULE }),
    ...(weak ? { password: weak } : {}),
    ...(password === (fields.again ?? "") ? {} : { again: "The two are not the same." }),
  };
  if (Object.keys(wrong).length > 0) return problems(wrong);
  if (!(await addFirstEngineer(name, password, chosen))) return problems({ form: ADDRESS_IS_USED }, 409);
  const done = await signIn(chosen, password, context.address, context.secure, request);
  return redirect("/", done.ok ? { headers: { "Set-Cookie": done.cookie } } : {});
});

export default function First() {
  const answer = useActionData<typeof action>();
  return (
    <main className="mx-auto flex min-h-screen max-w-sm flex-col justify-center px-6 pb-24">
      <Mark large />
      <h1 className="mt-6">Make the first engineer</h1>
      <p className="mt-1 mb-5 text-ink-2">
        Nobody may sign in yet. The first engineer adds the machines and the other people.
      </p>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={answer?.problems}>
          <div className="grid gap-4">
            {answer?.problems.form ? <Notice tone="verm">{answer.problems.form}</Notice> : null}
            <TextField
              name="name"
              label="Your name"
              hint="As it stands beside readings and signatures"
              required
              autoFocus
            />
            <TextField name="signIn" label="Sign-in name" hint={SIGN_IN_RULE} autoComplete="username" required />
            <TextField
              name="password"
              label="Password"
              hint="At least 10 characters"
              type="password"
              autoComplete="new-password"
              required
            />
            <TextField name="again" label="The password again" type="password" autoComplete="new-password" required />
            <Button>Make and sign in</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </main>
  );
}
