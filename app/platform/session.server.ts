/** Sign-in: argon2id passwords, sessions in the database, the token only in the person's cookie. */
import { hash, verify } from "@node-rs/argon2";
import { and, eq, isNull, lt, sql } from "drizzle-orm";
import type { UnitPreference } from "@core";
import { createHash, randomBytes } from "node:crypto";
import { createCookie } from "react-router";
import { RateLimiterPostgres, type RateLimiterRes } from "rate-limiter-flexible";
import { connections, db } from "~/db/client.server";
import { sessions, users, type Role } from "~/db/peopleTables";
import { config } from "./config.server";

export interface SignedInUser {
  id: string;
  name: string;
  role: Role;
  units: UnitPreference;
}

const cookie = createCookie("juncteral", { httpOnly: true, sameSite: "lax", path: "/" });
const sha256 = (token: string) => createHash("sha256").update(token).digest("hex");

export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** The first engineer of an empty database. Returns false, and changes nothing, where there is a user already. */
export async function addFirstEngineer(name: string, password: string): Promise<boolean> {
  if (password.length < 10) throw new RangeError("The first password needs at least 10 characters.");
  const passwordHash = await hashPassword(password);
  return db().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(727277)`);
    const [there] = await tx.select({ id: users.id }).from(users).limit(1);
    if (there) return false;
    await tx.insert(users).values({ name, signIn: name.toLowerCase(), role: "engineer", passwordHash });
    return true;
  });
}

/** Compared when the name is unknown, so that the answer takes as long as for a known one. */
let decoy: Promise<string> | undefined;

let limiter: RateLimiterPostgres | undefined;

function attempts(): RateLimiterPostgres {
  limiter ??= new RateLimiterPostgres({ storeClient: connections(), tableName: "sign_in_attempts", tableCreated: true, points: 8, duration: 15 * 60, keyPrefix: "" });
  return limiter;
}

export type SignInResult = { ok: true; cookie: string } | { ok: false; message: string; status: number };

/** Check name and password; limited to 8 failures a quarter of an hour for a name and address together. */
export async function signIn(name: string, password: string, address: string, secure: boolean): Promise<SignInResult> {
  const key = sha256(`${name.toLowerCase()}|${address}`);
  const before = await attempts().get(key);
  if (before && before.consumedPoints >= 8) return tooMany(before);
  const [user] = await db().select().from(users).where(and(eq(users.signIn, name.toLowerCase()), isNull(users.retiredAt)));
  decoy ??= hash(randomBytes(12).toString("hex"));
  const matches = await verify(user?.passwordHash ?? (await decoy), password);
  if (!user || !matches) {
    const after = await attempts().consume(key).catch((error: unknown) => error as RateLimiterRes);
    if (after.remainingPoints <= 0) return tooMany(after);
    return { ok: false, message: "Name and password do not match.", status: 401 };
  }
  await attempts().delete(key);
  const token = randomBytes(32).toString("base64url");
  const expiresAt = new Date(Date.now() + config.sessionHours * 3_600_000);
  await db().delete(sessions).where(lt(sessions.expiresAt, new Date()));
  await db().insert(sessions).values({ tokenHash: sha256(token), userId: user.id, expiresAt });
  return { ok: true, cookie: await cookie.serialize(token, { expires: expiresAt, secure }) };
}

function tooMany(state: RateLimiterRes): SignInResult {
  const minutes = Math.max(1, Math.ceil(state.msBeforeNext / 60_000));
  return { ok: false, message: `Too many tries. Wait ${minutes} minute${minutes === 1 ? "" : "s"}, then try again.`, status: 429 };
}

/** Who sent the request; undefined when nobody is signed in or the session has expired. */
export async function userOf(request: Request): Promise<SignedInUser | undefined> {
  const token: unknown = await cookie.parse(request.headers.get("Cookie"));
  if (typeof token !== "string" || token.length > 100) return undefined;
  const [row] = await db()
    .select({ id: users.id, name: users.name, role: users.role, units: users.units, expiresAt: sessions.expiresAt })
    .from(sessions)
    .innerJoin(users, eq(users.id, sessions.userId))
    .where(and(eq(sessions.tokenHash, sha256(token)), isNull(users.retiredAt)));
  if (!row || row.expiresAt.getTime() <= Date.now()) return undefined;
  return { id: row.id, name: row.name, role: row.role, units: row.units };
}

/** What the session of the request is stored under; an empty text where there is none. */
export async function sessionHash(request: Request): Promise<string> {
  const token: unknown = await cookie.parse(request.headers.get("Cookie"));
  return typeof token === "string" ? sha256(token) : "";
}

/** End the session of the request. Returns the cookie that clears it. */
export async function signOut(request: Request): Promise<string> {
  const token: unknown = await cookie.parse(request.headers.get("Cookie"));
  if (typeof token === "string") await db().delete(sessions).where(eq(sessions.tokenHash, sha256(token)));
  return cookie.serialize("", { maxAge: 0 });
}
