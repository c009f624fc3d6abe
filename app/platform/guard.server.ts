/**
 * Every loader and action goes through here: who is it, may they, and does the database answer.
 * A test walks the routes and fails on a loader or action that does not.
 */
import { data, redirect, type ActionFunctionArgs, type AppLoadContext, type LoaderFunctionArgs } from "react-router";
import { codeOf, isDatabaseBusy, isDatabaseDown } from "~/db/client.server";
import type { Role } from "~/db/peopleTables";
import { errorText, stackOf } from "~/runtime/errors";
import { log } from "~/runtime/log.server";
import { mayAct } from "./permissions";
import { userOf, type SignedInUser } from "./session.server";
import { Missing, notFound } from "./missing";
import { isUuid } from "./validate";

export { notFound };

type Args = LoaderFunctionArgs & { user: SignedInUser };

/** Marks a function as guarded, for the test that walks the routes. */
export const guarded = new WeakSet<object>();

async function admit(
  { request, context }: { request: Request; context: AppLoadContext },
  role: Role,
): Promise<SignedInUser> {
  // a page has several loaders: who it is for is looked up once
  const user = await (context.user ??= userOf(request));
  if (!user) {
    const url = new URL(request.url);
    const to =
      request.method === "GET" && url.pathname !== "/" ? `?to=${encodeURIComponent(url.pathname + url.search)}` : "";
    throw redirect(`/sign-in${to}`);
  }
  if (!mayAct(user.role, role)) throw data({ kind: "forbidden", needs: role, has: user.role }, { status: 403 });
  return user;
}

const answers = new WeakMap<AppLoadContext, Map<() => Promise<unknown>, Promise<unknown>>>();

/** What several loaders of one page ask for is looked up once. */
export function oncePerRequest<T>(context: AppLoadContext, look: () => Promise<T>): Promise<T> {
  const known = answers.get(context) ?? new Map<() => Promise<unknown>, Promise<unknown>>();
  answers.set(context, known);
  const answer = known.get(look) ?? look();
  known.set(look, answer);
  return answer as Promise<T>;
}

/** Why the database gave no answer: it is away, or all its connections are taken; undefined: it is something else. */
function withoutAnswer(error: unknown): "database" | "busy" | undefined {
  const kind = isDatabaseBusy(error) ? "busy" : isDatabaseDown(error) ? "database" : undefined;
  if (kind)
    log.error(
      { err: errorText(error) },
      kind === "busy" ? "all connections to the database are taken" : "the database does not answer",
    );
  return kind;
}

/** A page that cannot be made says why. */
function pageWithout(error: unknown): never {
  if (error instanceof Missing) throw missing(error);
  const kind = withoutAnswer(error);
  if (kind) throw data({ kind }, { status: 503 });
  throw error;
}

const missing = ({ what }: Missing) => data({ kind: "missing", what }, { status: 404 });

const TOO_BUSY =
  "Too many people ask at this moment, so nothing was saved. What you typed is still here: try again in a moment.";

/** Answers that loaders and actions throw on purpose pass through. */
function isAnswer(error: unknown): boolean {
  return error instanceof Response || !(error instanceof Error);
}

/** Full, over its limits, or too slow just now: it may go in a moment. */
const busyCodes = /^(53|54|57014|40P01|40001)/;
/** Something that was sent cannot be stored, or points to what is not there. */
const dataCodes = /^(22|23)/;

/** What a form answers when its action failed: nothing was saved, and what was typed stays. */
function failed(error: unknown) {
  const without = withoutAnswer(error);
  if (without === "busy") return problems({ form: TOO_BUSY }, 503);
  if (without)
    return problems(
      {
        form: "The database does not answer, so nothing was saved. What you typed is still here: try again in a moment.",
      },
      503,
    );
  const code = codeOf(error) ?? "";
  log.error(
    {
      err: errorText(error),
      code,
      stack: stackOf(error),
    },
    "an action failed",
  );
  if (busyCodes.test(code))
    return problems(
      {
        form: "The database is too busy or full, so nothing was saved. What you typed is still here: try again in a moment.",
      },
      503,
    );
  if (dataCodes.test(code))
    return problems(
      {
        form:
          "Something that this form names is gone or cannot be stored, so nothing was saved. Load the page in " +
          "another tab and choose again; what you typed stays here.",
      },
      422,
    );
  return problems(
    {
      form:
        "The server could not do this; the fault is ours, and nothing was saved. What you typed is still " +
        "here: try again, and tell an engineer if it stays so.",
    },
    500,
  );
}

/** A loader for people of at least `role`. A database that does not answer becomes a page that says so. */
export function guard<T>(role: Role, load: (args: Args) => Promise<T>): (args: LoaderFunctionArgs) => Promise<T> {
  const loader = async (args: LoaderFunctionArgs): Promise<T> => {
    try {
      const user = await admit(args, role);
      return await load({ ...args, user });
    } catch (error) {
      return pageWithout(error);
    }
  };
  guarded.add(loader);
  return loader;
}

/** What an action answers when nothing was saved: messages by field, and what was typed stays in the form. */
export interface FormProblems {
  problems: Record<string, string>;
}

/** An answer with messages beside the fields; "form" is for the whole form. */
export function problems(fields: Record<string, string>, status = 422) {
  return data<FormProblems>({ problems: fields }, { status });
}

/** What the domain calls it when a command refused, as HTTP says it. */
const statuses = { gone: 404, conflict: 409, tooOften: 429, busy: 503, forbidden: 403 } as const;

/** A command that refused, as the form shows it; `more` for what else the page must know. */
export function refused<E extends object = object>(
  { problems: fields, because }: { problems: Record<string, string>; because?: keyof typeof statuses },
  more?: E,
) {
  return data({ problems: fields, ...(more as E) }, { status: because ? statuses[because] : 422 });
}

/** An action for people of at least `role`. When the database is away, the form keeps what was typed. */
export function guardAction<T>(role: Role, act: (args: Args) => Promise<T>) {
  const action = async (args: ActionFunctionArgs): Promise<T | ReturnType<typeof problems>> => {
    try {
      const user = await admit(args, role);
      return await act({ ...args, user });
    } catch (error) {
      if (error instanceof Missing) throw missing(error);
      if (isAnswer(error)) throw error;
      return failed(error);
    }
  };
  guarded.add(action);
  return action;
}

/** A loader for people who are not signed in: only the sign-in page. */
export function openLoader<T>(
  load: (args: LoaderFunctionArgs) => Promise<T>,
): (args: LoaderFunctionArgs) => Promise<T> {
  return async (args) => {
    try {
      return await load(args);
    } catch (error) {
      return pageWithout(error);
    }
  };
}

/** An action for people who are not signed in. */
export function openAction<T>(act: (args: ActionFunctionArgs) => Promise<T>) {
  return async (args: ActionFunctionArgs): Promise<T | ReturnType<typeof problems>> => {
    try {
      return await act(args);
    } catch (error) {
      if (error instanceof Missing) throw missing(error);
      if (isAnswer(error)) throw error;
      return failed(error);
    }
  };
}

/** A record id from the address; 404 when it cannot be one. */
export function idParam(params: LoaderFunctionArgs["params"], name = "id"): string {
  const value = params[name];
  if (!isUuid(value)) throw notFound("record");
  return value;
}

/** A loader whose address is its key: nobody signs in, and `load` itself tests the key before it says anything. */
export function guardToken<T>(
  load: (args: LoaderFunctionArgs) => Promise<T>,
): (args: LoaderFunctionArgs) => Promise<T> {
  const loader = async (args: LoaderFunctionArgs): Promise<T> => {
    try {
      return await load(args);
    } catch (error) {
      return pageWithout(error);
    }
  };
  guarded.add(loader);
  return loader;
}
