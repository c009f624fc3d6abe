/**
 * Every loader and action goes through here: who is it, may they, and does the database answer.
 * A test walks the routes and fails on a loader or action that does not.
 */
import { data, redirect, type ActionFunctionArgs, type AppLoadContext, type LoaderFunctionArgs } from "react-router";
import { isDatabaseDown } from "~/db/client.server";
import type { Role } from "~/db/peopleTables";
import { log } from "./log.server";
import { mayAct } from "./permissions";
import { userOf, type SignedInUser } from "./session.server";

type Args = LoaderFunctionArgs & { user: SignedInUser };

/** Marks a function as guarded, for the test that walks the routes. */
export const guarded = new WeakSet<object>();

async function admit({ request, context }: { request: Request; context: AppLoadContext }, role: Role): Promise<SignedInUser> {
  // a page has several loaders: who it is for is looked up once
  const user = await (context.user ??= userOf(request));
  if (!user) {
    const url = new URL(request.url);
    const to = request.method === "GET" && url.pathname !== "/" ? `?to=${encodeURIComponent(url.pathname + url.search)}` : "";
    throw redirect(`/sign-in${to}`);
  }
  if (!mayAct(user.role, role)) throw data({ kind: "forbidden", needs: role, has: user.role }, { status: 403 });
  return user;
}

function databaseDown(error: unknown): boolean {
  if (!isDatabaseDown(error)) return false;
  log.error({ err: (error as Error).message }, "the database does not answer");
  return true;
}

/** A loader for people of at least `role`. A database that does not answer becomes a page that says so. */
export function guard<T>(role: Role, load: (args: Args) => Promise<T>): (args: LoaderFunctionArgs) => Promise<T> {
  const loader = async (args: LoaderFunctionArgs): Promise<T> => {
    try {
      const user = await admit(args, role);
      return await load({ ...args, user });
    } catch (error) {
      if (databaseDown(error)) throw data({ kind: "database" }, { status: 503 });
      throw error;
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

/** An action for people of at least `role`. When the database is away, the form keeps what was typed. */
export function guardAction<T>(role: Role, act: (args: Args) => Promise<T>) {
  const action = async (args: ActionFunctionArgs): Promise<T | ReturnType<typeof problems>> => {
    try {
      const user = await admit(args, role);
      return await act({ ...args, user });
    } catch (error) {
      if (databaseDown(error)) return problems({ form: "The database does not answer, so nothing was saved. What you typed is still here: try again in a moment." }, 503);
      throw error;
    }
  };
  guarded.add(action);
  return action;
}

/** A loader for people who are not signed in: only the sign-in page. */
export function openLoader<T>(load: (args: LoaderFunctionArgs) => Promise<T>): (args: LoaderFunctionArgs) => Promise<T> {
  return async (args) => {
    try {
      return await load(args);
    } catch (error) {
      if (databaseDown(error)) throw data({ kind: "database" }, { status: 503 });
      throw error;
    }
  };
}

/** An action for people who are not signed in. */
export function openAction<T>(act: (args: ActionFunctionArgs) => Promise<T>) {
  return async (args: ActionFunctionArgs): Promise<T | ReturnType<typeof problems>> => {
    try {
      return await act(args);
    } catch (error) {
      if (databaseDown(error)) return problems({ form: "The database does not answer. Try again in a moment." }, 503);
      throw error;
    }
  };
}

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A record id from the address; 404 when it cannot be one. */
export function idParam(params: LoaderFunctionArgs["params"], name = "id"): string {
  const value = params[name];
  if (!value || !uuid.test(value)) throw notFound("record");
  return value;
}

export function isUuid(text: string | null | undefined): text is string {
  return typeof text === "string" && uuid.test(text);
}

export function notFound(what: string) {
  return data({ kind: "missing", what }, { status: 404 });
}
