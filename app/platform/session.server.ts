/** Sign-in: argon2id passwords, sessions in the database, the token only in the person's cookie. */
import { HOUR } from "@core";
import { hash, verify } from "@node-rs/argon2";
import { and, eq, isNull, lt, sql } from "drizzle-orm";
import type { UnitPreference } from "@core";
import { createHash, randomBytes } from "node:crypto";
import { createCookie } from "react-router";
import { RateLimiterPostgres } from "rate-limiter-flexible";
import { connections, db } from "~/db/client.server";
import { firstKeys, sessions, users, type Role } from "~/db/peopleTables";
import { config } from "~/runtime/config.server";

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

/** Why a password cannot be that of the first engineer; undefined: it can. */
export function firstPasswordProblem(name: string, password: string): string | undefined {
  if (password.length < 10) return "The first password needs at least 10 characters.";
  return weakPassword(password, name);
}

/**
 * The first engineer of an empty database. Returns false, and changes nothing, where there is a user already.
 * @throws {RangeError} for a password that is too short or the first that anybody tries
 */
export async function addFirstEngineer(
  name: string,
  password: string,
  signIn = name.trim().toLowerCase(),
): Promise<boolean> {
  const problem = firstPasswordProblem(name, password);
  if (problem) throw new RangeError(problem);
  const passwordHash = await hashPassword(password);
  return db().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(727277)`);
    if (!(await nobodyYet())) return false;
    await tx.insert(users).values({ name: name.trim(), signIn, role: "engineer", passwordHash });
    await tx.delete(firstKeys);
    return true;
  });
}

/** May nobody sign in yet: a database that was just made? */
export async function nobodyYet(): Promise<boolean> {
  const [there] = await db().select({ id: users.id }).from(users).limit(1);
  return !there;
}

const FIRST_KEY_MS = 3 * 24 * HOUR;

/** A new key to make the first engineer with, where nobody may sign in yet; those before it hold no more. */
export async function newFirstKey(): Promise<string | null> {
  if (!(await nobodyYet())) return null;
  const key = randomBytes(24).toString("base64url");
  await db().delete(firstKeys);
  await db()
    .insert(firstKeys)
    .values({ keyHash: sha256(key), expiresAt: new Date(Date.now() + FIRST_KEY_MS) });
  return key;
}

/** Is it the key that was printed last, and may nobody sign in yet? */
export async function firstKeyHolds(key: string): Promise<boolean> {
  if (key.length > 100 || !(await nobodyYet())) return false;
  const [row] = await db()
    .select({ expiresAt: firstKeys.expiresAt })
    .from(firstKeys)
    .where(eq(firstKeys.keyHash, sha256(key)));
  return row !== undefined && row.expiresAt.getTime() > Date.now();
}

/** Compared when the name is unknown, so that the answer takes as long as for a known one. */
let decoy: Promise<string> | undefined;

const QUARTER = 15 * 60;
/** Tries within a quarter of an hour: one name from one address, one name from anywhere, one address whatever the name, one's own old password. */
const limits = { pair: 8, name: 40, address: 60, own: 8 } as const;
type LimitId = keyof typeof limits;
const limiters = new Map<LimitId, RateLimiterPostgres>();

function limiterOf(id: LimitId): RateLimiterPostgres {
  let limiter = limiters.get(id);
  if (!limiter) {
    limiter = new RateLimiterPostgres({
      storeClient: connections(),
      tableName: "sign_in_attempts",
      tableCreated: true,
      points: limits[id],
      duration: QUARTER,
      keyPrefix: id === "pair" ? "" : id,
    });
    limiters.set(id, limiter);
  }
  return limiter;
}

/** Count a try before it is made, so that many at once count as many. Returns how many of the limits it goes beyond. */
async function counted(tries: readonly (readonly [LimitId, string])[]): Promise<number> {
  let over = 0;
  for (const [id, key] of tries) {
    try {
      await limiterOf(id).consume(key);
    } catch (error) {
      if (error instanceof Error) throw error;
      over++;
    }
  }
  return over;
}

/** Beyond its limit a name from an address is tried one after another, so long apart, and so many may wait for their turn. */
const SLOW_MS = 4000;
const MOST_SLOW = 3;
const lanes = new Map<string, { waiting: number; last: Promise<void> }>();

/**
 * Too many tries slow down whoever goes on trying, and shut nobody out: the right password gets in, whatever others tried
 * with this name or from this address. False: too many of this name and address wait already.
 */
async function slowed(pair: string): Promise<boolean> {
  const lane = lanes.get(pair) ?? { waiting: 0, last: Promise.resolve() };
  if (lane.waiting >= MOST_SLOW) return false;
  lanes.set(pair, lane);
  lane.waiting++;
  lane.last = lane.last.then(() => new Promise((done) => setTimeout(done, SLOW_MS)));
  await lane.last;
  lane.waiting--;
  if (lane.waiting === 0) lanes.delete(pair);
  return true;
}

/** Hashes that are worked out at one time, and those that may wait: each costs a thread for a while. */
const HASHES = 2;
const WAITING = 40;
let hashing = 0;
const queue: (() => void)[] = [];

/** Undefined when too many wait already. */
async function inTurn<T>(work: () => Promise<T>): Promise<T | undefined> {
  if (hashing >= HASHES) {
    if (queue.length >= WAITING) return undefined;
    await new Promise<void>((next) => queue.push(next));
  }
  hashing++;
  try {
    return await work();
  } finally {
    hashing--;
    queue.shift()?.();
  }
}

const BUSY = {
  ok: false,
  message: "Many people are signing in just now. Wait a moment, then try again.",
  status: 503,
} as const;

export type SignInResult = { ok: true; cookie: string } | { ok: false; message: string; status: number };

/** Check name and password. Tries are slowed down for a name and address together, for a name, and for an address. */
export async function signIn(
  name: string,
  password: string,
  address: string,
  secure: boolean,
  request?: Request,
): Promise<SignInResult> {
  const known = name.toLowerCase();
  const pair = sha256(`${known}|${address}`);
  const over = await counted([
    ["pair", pair],
    ["name", sha256(known)],
    ["address", sha256(address)],
  ]);
  if (over > 0 && !(await slowed(pair))) return TOO_MANY;
  const [user] = await db()
    .select()
    .from(users)
    .where(and(eq(users.signIn, known), isNull(users.retiredAt)));
  decoy ??= hash(randomBytes(12).toString("hex"));
  const against = user?.passwordHash ?? (await decoy);
  const matches = await inTurn(() => verify(against, password));
  if (matches === undefined) return BUSY;
  if (!user || !matches) return { ok: false, message: "Name and password do not match.", status: 401 };
  // what was counted for a sign-in that succeeded is given back
  await limiterOf("pair").delete(pair);
  await Promise.all([limiterOf("name").reward(sha256(known), 1), limiterOf("address").reward(sha256(address), 1)]);
  if (request) await endSession(request);
  const token = randomBytes(32).toString("base64url");
  const expiresAt = new Date(Date.now() + config.sessionHours * HOUR);
  await db().delete(sessions).where(lt(sessions.expiresAt, new Date()));
  await db()
    .insert(sessions)
    .values({ tokenHash: sha256(token), userId: user.id, expiresAt });
  return { ok: true, cookie: await cookie.serialize(token, { expires: expiresAt, secure }) };
}

/** Is this the person's own password? "later": tried too often, or too many wait. */
export async function ownPassword(userId: string, passwordHash: string, typed: string): Promise<boolean | "later"> {
  if ((await counted([["own", userId]])) > 0) return "later";
  const matches = await inTurn(() => verify(passwordHash, typed));
  if (matches) await limiterOf("own").delete(userId);
  return matches ?? "later";
}

const TOO_MANY = {
  ok: false,
  message: "Too many tries at once. Wait a minute, then try once more.",
  status: 429,
} as const;

/** Passwords that anybody tries first, or that are hardly any: what is wrong with it, or undefined. */
export function weakPassword(password: string, ...own: string[]): string | undefined {
  const bare = password.trim().toLowerCase();
  if (new Set(bare).size < 5) return "Too few different characters: it is guessed at once.";
  if (/^(0123456789|1234567890|abcdefghij|qwertyuiop|password|passwort)/.test(bare))
    return "Everybody tries this one first. Take another.";
  if (own.some((o) => o.length >= 3 && bare.replace(o.toLowerCase(), "").length < 6))
    return "It must not be the name with a little added.";
  return undefined;
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
  await endSession(request);
  return cookie.serialize("", { maxAge: 0 });
}

async function endSession(request: Request): Promise<void> {
  const token: unknown = await cookie.parse(request.headers.get("Cookie"));
  if (typeof token === "string")
    await db()
      .delete(sessions)
      .where(eq(sessions.tokenHash, sha256(token)));
}

/** Does a cookie header belong to somebody who is signed in? For what must be known before a body is read. */
export async function isSignedIn(cookieHeader: string | undefined): Promise<boolean> {
  return (
    cookieHeader !== undefined &&
    (await userOf(new Request("http://here/", { headers: { Cookie: cookieHeader } }))) !== undefined
  );
}
