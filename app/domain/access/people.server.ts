/** People who may sign in. Nobody is deleted: records carry names. Passwords are set, never shown. */
import { changedMeanwhile, type Answer } from "~/domain/answer";
import type { Actor } from "./actor";
import { audit } from "./audit.server";
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { number, object, string } from "yup";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { roles, sessions, users, type Role } from "~/db/peopleTables";
import { hashPassword, ownPassword, weakPassword } from "~/platform/session.server";
import { check } from "~/platform/validate";
import { now } from "~/runtime/clock.server";

export type Done = Answer<object>;

const name = string()
  .trim()
  .required("Give the person’s name.")
  .min(2, "At least 2 characters.")
  .max(100, "At most 100 characters.");
const role = string<Role>()
  .oneOf([...roles], "Choose what the person may do.")
  .required("Choose what the person may do.");
const password = string()
  .required("Give a password.")
  .min(10, "At least 10 characters.")
  .max(200, "At most 200 characters.");
const signIn = string()
  .trim()
  .lowercase()
  .required("Give a sign-in name.")
  .matches(/^[a-z0-9][a-z0-9._-]{1,39}$/, "2 to 40 letters, digits, dots, dashes; no spaces.");

const newSchema = object({ name, role, signIn, password });
const changeSchema = object({ name, role, version: number().required() });

export interface Person {
  id: string;
  name: string;
  signIn: string;
  role: Role;
  since: number;
  /** Since when the person may no longer sign in. */
  endedAt: number | null;
  version: number;
}

export async function people(): Promise<Person[]> {
  const rows = await db()
    .select()
    .from(users)
    .orderBy(sql`${users.retiredAt} is not null`, users.name);
  return rows.map((u) => ({
    id: u.id,
    name: u.name,
    signIn: u.signIn,
    role: u.role,
    since: u.createdAt.getTime(),
    endedAt: u.retiredAt?.getTime() ?? null,
    version: u.version,
  }));
}

export async function addPerson(fields: Record<string, string>, actor: Actor): Promise<Done> {
  const checked = await check(newSchema, fields);
  if (!checked.ok) return checked;
  const { password: typed, ...values } = checked.values;
  const weak = weakPassword(typed, values.signIn, values.name);
  if (weak) return { ok: false, problems: { password: weak } };
  const passwordHash = await hashPassword(typed);
  try {
    await db().transaction(async (tx) => {
      if (await nameTaken(tx, values.name, null)) throw new NameTaken();
      const [added] = await tx
        .insert(users)
        .values({ ...values, passwordHash })
        .returning({ id: users.id });
      await audit(tx, actor, { what: `added ${values.name} as ${values.role}`, recordId: added!.id, after: values });
    });
  } catch (error) {
    if (error instanceof NameTaken) return { ok: false, problems: { name: NAME_TAKEN } };
    if (brokenConstraint(error)?.includes("sign_in"))
      return { ok: false, problems: { signIn: "This sign-in name is taken." } };
    throw error;
  }
  return { ok: true };
}

class NameTaken extends Error {}
const NAME_TAKEN = "This name is taken. Records carry names: add an initial to tell the two apart.";

/** Records carry names, so two people never share one. */
async function nameTaken(tx: Queryable, name: string, except: string | null): Promise<boolean> {
  await tx.execute(sql`select pg_advisory_xact_lock(727278)`);
  const rows = await tx
    .select({ id: users.id })
    .from(users)
    .where(sql`lower(${users.name}) = ${name.toLowerCase()}`);
  return rows.some((r) => r.id !== except);
}

const LAST = "This is the last engineer: add another one first, or nobody can change anything.";

/** Rows of engineers are locked, so that two who demote one another cannot both succeed. */
async function lastEngineer(tx: Queryable, id: string): Promise<boolean> {
  const rows = await tx
    .select({ id: users.id })
    .from(users)
    .where(and(eq(users.role, "engineer"), isNull(users.retiredAt)))
    .orderBy(users.id)
    .for("update");
  return rows.length === 1 && rows[0]!.id === id;
}

export async function changePerson(id: string, fields: Record<string, string>, actor: Actor): Promise<Done> {
  const checked = await check(changeSchema, fields);
  if (!checked.ok) return checked;
  const { version, ...values } = checked.values;
  return db().transaction(async (tx): Promise<Done> => {
    if (values.role !== "engineer" && (await lastEngineer(tx, id))) return { ok: false, problems: { role: LAST } };
    const [before] = await tx
      .select({ name: users.name, role: users.role, version: users.version })
      .from(users)
      .where(eq(users.id, id))
      .for("update");
    if (!before) return { ok: false, because: "gone", problems: { form: "There is no such person." } };
    if (before.version !== version) return changedMeanwhile("this person");
    if (await nameTaken(tx, values.name, id)) return { ok: false, problems: { name: NAME_TAKEN } };
    await tx
      .update(users)
      .set({ ...values, version: version + 1 })
      .where(eq(users.id, id));
    await audit(tx, actor, {
      what: `changed what ${values.name} may do`,
      recordId: id,
      before: { name: before.name, role: before.role },
      after: values,
    });
    return { ok: true };
  });
}

/** A new password ends every session of the person but `except` (a token's hash). */
async function store(id: string, typed: string, what: string, actor: Actor, except: string | null): Promise<void> {
  const passwordHash = await hashPassword(typed);
  await db().transaction(async (tx) => {
    await tx.update(users).set({ passwordHash }).where(eq(users.id, id));
    await tx.delete(sessions).where(and(eq(sessions.userId, id), ...(except ? [ne(sessions.tokenHash, except)] : [])));
    await audit(tx, actor, { what, recordId: id });
  });
}

export async function setPassword(id: string, fields: Record<string, string>, actor: Actor): Promise<Done> {
  const checked = await check(object({ password }), fields);
  if (!checked.ok) return checked;
  const weak = weakPassword(checked.values.password);
  if (weak) return { ok: false, problems: { password: weak } };
  await store(id, checked.values.password, "set a new password", actor, null);
  return { ok: true };
}

/** One's own password, for which the old one is asked. Other sessions end, this one goes on. */
export async function changeOwnPassword(
  id: string,
  fields: Record<string, string>,
  actor: Actor,
  session: string,
): Promise<Done> {
  const checked = await check(
    object({
      old: string().required("Give the password that you have now.").max(200, "That is not your password."),
      password,
    }),
    fields,
  );
  if (!checked.ok) return checked;
  const [user] = await db().select({ passwordHash: users.passwordHash }).from(users).where(eq(users.id, id));
  const weak = weakPassword(checked.values.password, actor.name);
  if (weak) return { ok: false, problems: { password: weak } };
  const own = user ? await ownPassword(id, user.passwordHash, checked.values.old) : false;
  if (own === "later")
    return {
      ok: false,
      because: "tooOften",
      problems: { old: "Tried too often. Wait a quarter of an hour, then try again." },
    };
  if (!own) return { ok: false, problems: { old: "That is not your password." } };
  await store(id, checked.values.password, "changed the own password", actor, session);
  return { ok: true };
}

/** End a person's access at once, or give it back. */
export async function setAccess(id: string, on: boolean, actor: Actor): Promise<Done> {
  return db().transaction(async (tx): Promise<Done> => {
    if (!on && (await lastEngineer(tx, id))) return { ok: false, problems: { form: LAST } };
    const [person] = await tx
      .update(users)
      .set({ retiredAt: on ? null : new Date(now()), version: sql`${users.version} + 1` })
      .where(eq(users.id, id))
      .returning({ name: users.name });
    if (!person) return { ok: false, because: "gone", problems: { form: "There is no such person." } };
    if (!on) await tx.delete(sessions).where(eq(sessions.userId, id));
    await audit(tx, actor, { what: `${on ? "gave back" : "ended"} the access of ${person.name}`, recordId: id });
    return { ok: true };
  });
}
