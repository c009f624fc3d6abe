/** People, their sessions and their tries at signing in. */
import { sql } from "drizzle-orm";
import { bigint, check, index, integer, jsonb, pgTable, text, uuid } from "drizzle-orm/pg-core";
import type { UnitPreference } from "@core";
import { created, id, moment, retired, version } from "./columns";

export const roles = ["viewer", "technician", "engineer"] as const;
export type Role = (typeof roles)[number];

export const users = pgTable(
  "users",
  {
    id: id(),
    name: text("name").notNull(),
    signIn: text("sign_in").notNull().unique(),
    passwordHash: text("password_hash").notNull(),
    role: text("role").$type<Role>().notNull(),
    /** Preferred units by dimension. */
    units: jsonb("units").$type<UnitPreference>().notNull().default({}),
    createdAt: created(),
    /** When Today was last looked at, and before the visit that goes on. */
    lookedAt: moment("looked_at"),
    lookedBefore: moment("looked_before"),
    /** Since when the person may no longer sign in. */
    retiredAt: retired(),
    version: version(),
  },
  (t) => [check("users_role", sql`${t.role} in ('viewer', 'technician', 'engineer')`)],
);

export const sessions = pgTable(
  "sessions",
  {
    /** SHA-256 of the token in the cookie: a copy of the table signs nobody in. */
    tokenHash: text("token_hash").primaryKey(),
    userId: uuid("user_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    expiresAt: moment("expires_at").notNull(),
    createdAt: created(),
  },
  (t) => [index("sessions_expires").on(t.expiresAt), index("sessions_user").on(t.userId)],
);

/** Who sent an entry: the person who was signed in, whomever it names. Null: in rows of before this was kept. */
export const sender = () => ({
  sentBy: text("sent_by"),
  sentById: uuid("sent_by_id").references(() => users.id),
});

/** The key to make the first engineer of a database where nobody may sign in yet, as a hash: `npm start` prints it. */
export const firstKeys = pgTable("first_keys", {
  keyHash: text("key_hash").primaryKey(),
  expiresAt: moment("expires_at").notNull(),
});

/** Failed sign-ins by name and address, in the shape that the limiter library reads. */
export const signInAttempts = pgTable("sign_in_attempts", {
  key: text("key").primaryKey(),
  points: integer("points").notNull().default(0),
  expire: bigint("expire", { mode: "number" }),
});
