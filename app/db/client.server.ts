import { AsyncLocalStorage } from "node:async_hooks";
import { createHash } from "node:crypto";
import type { SQL } from "drizzle-orm";
import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { PgDialect } from "drizzle-orm/pg-core";
import { resolve } from "node:path";
import pg from "pg";
import { config } from "~/runtime/config.server";
import { log } from "~/runtime/log.server";
import * as schema from "./schema";
import { errorText } from "~/runtime/errors";

export type Database = NodePgDatabase<typeof schema>;
/** A transaction, or the database itself: what a query runs on. */
export type Queryable = Database | Parameters<Parameters<Database["transaction"]>[0]>[0];

let pool: pg.Pool | undefined;
let database: Database | undefined;

/**
 * The transaction that a command runs in. One command has one connection: whatever it asks through `db()` goes through its own
 * transaction, else signers who each hold one and wait for a second stop each other, and what was judged is not what is written.
 */
const running = new AsyncLocalStorage<Queryable>();

/** The connection pool, made at first use. It reconnects by itself when the server comes back. */
export function connections(): pg.Pool {
  if (!pool) {
    pool = new pg.Pool({
      connectionString: config.databaseUrl,
      max: config.poolSize,
      connectionTimeoutMillis: config.poolWait,
      statement_timeout: 60_000,
    });
    pool.on("error", (error) => log.warn({ err: errorText(error) }, "an idle database connection was lost"));
    // one that is lent out between two queries has nobody else to hear that it broke
    pool.on("connect", (client) =>
      client.on("error", (error) => log.warn({ err: errorText(error) }, "a database connection was lost")),
    );
  }
  return pool;
}

/** The database; within a transaction that transaction, so that nothing in it waits for a second connection. */
export function db(): Database {
  const own = running.getStore();
  // a transaction answers to all that commands ask of the database
  return own ? (own as Database) : wholeDatabase();
}

function wholeDatabase(): Database {
  if (!database) {
    database = drizzle(connections(), { schema });
    const once = database.transaction.bind(database);
    database.transaction = ((work: Parameters<typeof once>[0], options?: Parameters<typeof once>[1]) =>
      repeated(() => once((tx) => running.run(tx, () => work(tx)), options))) as typeof once;
  }
  return database;
}

const dialect = new PgDialect();
const nameOf = (text: string) => createHash("sha1").update(text).digest("base64url");

/**
 * The rows of a query that every page asks again and again, prepared once a connection: of Today's slowest query more
 * than half the time went into planning its joins. JUNCTERAL_PREPARE=off where a pooler between cannot keep them.
 */
export async function ask<T extends object>(query: SQL): Promise<T[]> {
  const { sql: text, params } = dialect.sqlToQuery(query);
  const named = config.prepare && { name: nameOf(text) };
  const own = running.getStore();
  if (own) return (await own.execute(query)).rows as unknown as T[];
  return (await connections().query({ ...named, text, values: params as unknown[] })).rows as T[];
}

/** What is filled into a statement by the names of its placeholders. */
type Values = Record<string, string | number>;

/**
 * The same for a query of the builder, which is built once too: of the data of a Point page a sixth of the time went into building
 * the same dozen queries at every visit. What changes stands as `sql.placeholder`.
 * @param build the query, on the database or in a transaction
 * @returns runs it with what is filled in; in a transaction, where one is given
 */
export function statement<T>(
  build: (tx: Queryable) => {
    toSQL(): { sql: string };
    prepare(name: string): { execute(values: Values): Promise<T> };
  },
): (values: Values, tx?: Queryable) => Promise<T> {
  const made = new WeakMap<Queryable, { execute(values: Values): Promise<T> }>();
  return (values, tx = db()) => {
    let query = made.get(tx);
    if (!query) {
      const built = build(tx);
      query = built.prepare(config.prepare ? nameOf(built.toSQL().sql) : "");
      made.set(tx, query);
    }
    return query.execute(values);
  };
}

/** A transaction that lost against another one is done again from its beginning, so often. */
const TRIES = 4;
/** Deadlock, and a serialisation failure. */
const lostAgainstAnother = new Set(["40P01", "40001"]);

async function repeated<T>(run: () => Promise<T>): Promise<T> {
  for (let tried = 1; ; tried++) {
    try {
      return await run();
    } catch (error) {
      if (tried >= TRIES || !lostAgainstAnother.has(codeOf(error) ?? "")) throw error;
      await new Promise((next) => setTimeout(next, 10 * tried * (1 + Math.random())));
    }
  }
}

/** The code that PostgreSQL gave for an error, however deep it is wrapped. */
export function codeOf(error: unknown): string | undefined {
  for (let e = error, depth = 0; e && depth < 6; depth++) {
    const { code, cause } = e as { code?: string; cause?: unknown };
    if (code && /^[0-9A-Z]{5}$/.test(code)) return code;
    e = cause;
  }
  return undefined;
}

export async function closeConnections(): Promise<void> {
  await pool?.end();
  pool = undefined;
  database = undefined;
}

/** Bring the schema up to date. Safe to run from several servers at once: a lock lets one through. */
export async function migrateDatabase(): Promise<void> {
  const client = await connections().connect();
  try {
    await client.query("select pg_advisory_lock(727274)");
    await migrate(drizzle(client), { migrationsFolder: resolve("app/db/migrations") });
  } finally {
    await client.query("select pg_advisory_unlock(727274)").catch(() => undefined);
    client.release();
  }
}

const connectionCodes = new Set([
  "ECONNREFUSED",
  "ENOTFOUND",
  "57P01",
  "57P02",
  "57P03",
  "08000",
  "08001",
  "08003",
  "08006",
  "53300",
]);

/** Did it wait too long for one of the server's own connections, while the database is well? That passes by itself. */
export function isDatabaseBusy(error: unknown): boolean {
  if (!pool || pool.totalCount < config.poolSize) return false;
  for (let e = error, depth = 0; e && depth < 6; depth++) {
    if (/timeout exceeded when trying to connect/i.test((e as Error).message ?? "")) return true;
    e = (e as Error).cause;
  }
  return false;
}

const networkCodes = new Set(["ECONNRESET", "EPIPE", "ETIMEDOUT"]);

/** Does the error say that the database cannot be reached (rather than that the query was wrong)? */
export function isDatabaseDown(error: unknown): boolean {
  for (let e = error, depth = 0; e && depth < 6; depth++) {
    const { code, message, cause, errors } = e as {
      code?: string;
      message?: string;
      cause?: unknown;
      errors?: unknown[];
    };
    // a person who goes away resets a connection too: only the driver's own say that the database is meant
    if (
      code &&
      (connectionCodes.has(code) ||
        (networkCodes.has(code) && /[\\/]pg(-pool)?[\\/]/.test((e as { stack?: string }).stack ?? "")))
    )
      return true;
    if (
      message &&
      /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/i.test(
        message,
      )
    )
      return true;
    e = cause ?? errors?.[0];
  }
  return false;
}

/** The constraint that an insert or update broke, if that is what the error says. */
export function brokenConstraint(error: unknown): string | undefined {
  for (let e = error, depth = 0; e && depth < 4; depth++) {
    const { code, constraint, cause } = e as { code?: string; constraint?: string; cause?: unknown };
    if (code?.startsWith("23")) return constraint ?? code;
    e = cause;
  }
  return undefined;
}
