/** People against a real database: who is added, what ends a session, and that an engineer always remains. */
import { actorNamed } from "~/domain/access/testActor";
import { desc, eq } from "drizzle-orm";
import { addPerson, changeOwnPassword, changePerson, people, setAccess, setPassword } from "./people.server";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { sessions, users } from "~/db/peopleTables";
import { changes } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { addFirstEngineer, sessionHash, signIn, userOf } from "~/platform/session.server";

if (!process.env.DATABASE_URL) throw new Error("These tests need a database: run them with npm test -- jest.");

const FIRST = "first-password";
let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("people");
  await migrateDatabase();
  expect(await addFirstEngineer("Oduya", FIRST)).toBe(true);
});

afterAll(async () => {
  await closeConnections();
  await dropDatabase();
});

const person = async (name: string) => (await people()).find((p) => p.signIn === name)!;
const add = (change: Record<string, string> = {}) =>
  addPerson(
    { name: "T. Wren", signIn: "wren", role: "technician", password: "long-enough", ...change },
    actorNamed("Oduya"),
  );

async function requestAs(name: string, password: string): Promise<Request> {
  const result = await signIn(name, password, "test", false);
  if (!result.ok) throw new Error(result.message);
  return new Request("http://here/", { headers: { Cookie: result.cookie.split(";")[0]! } });
}

test("a second first engineer is not made", async () => {
  expect(await addFirstEngineer("Mallory", "another-password")).toBe(false);
  await expect(addFirstEngineer("Mallory", "short")).rejects.toThrow(RangeError);
  expect((await people()).map((p) => p.signIn)).toEqual(["oduya"]);
});

test("each field is told what is wrong with it, and nothing is added", async () => {
  expect(await add({ name: "", signIn: "has space", role: "owner", password: "short" })).toMatchObject({
    ok: false,
    problems: {
      name: expect.any(String),
      signIn: expect.stringContaining("no spaces"),
      role: expect.any(String),
      password: "At least 10 characters.",
    },
  });
  expect(await people()).toHaveLength(1);
});

test("a person who was added signs in under any case of the name, and has what the role allows", async () => {
  expect(await add({ signIn: "Wren" })).toEqual({ ok: true });
  expect(await userOf(await requestAs("WREN", "long-enough"))).toMatchObject({ name: "T. Wren", role: "technician" });
  expect(await add({ name: "T. Wren the second" })).toEqual({
    ok: false,
    problems: { signIn: "This sign-in name is taken." },
  });
  expect(await add({ signIn: "wren2", name: "t. wren" })).toMatchObject({
    ok: false,
    problems: { name: expect.stringContaining("This name is taken") },
  });
  expect(await add({ signIn: "weak", name: "Weak", password: "aaaaaaaaaa" })).toMatchObject({
    ok: false,
    problems: { password: expect.any(String) },
  });
  expect(await add({ signIn: "weak", name: "Weak", password: "1234567890" })).toMatchObject({
    ok: false,
    problems: { password: expect.any(String) },
  });
  const [row] = await db().select().from(users).where(eq(users.signIn, "wren"));
  expect(row!.passwordHash).toMatch(/^\$argon2id\$/);
});

test("what is kept of it holds no password", async () => {
  const kept = await db().select().from(changes).orderBy(desc(changes.id));
  expect(kept[0]!.what).toBe("added T. Wren as technician");
  expect(JSON.stringify(kept)).not.toMatch(/long-enough|argon2|passwordHash/);
});

test("the record knows the person who changed something, under whatever name later", async () => {
  const oduya = await person("oduya");
  const actor = { id: oduya.id, name: "R. Oduya", role: "engineer" as const };
  expect(await setAccess((await person("wren")).id, true, actor)).toEqual({ ok: true });
  const [last] = await db().select().from(changes).orderBy(desc(changes.id)).limit(1);
  expect(last).toMatchObject({ by: "R. Oduya", byId: oduya.id, what: "gave back the access of T. Wren" });
});

test("two who change one person: the second is told", async () => {
  const wren = await person("wren");
  const fields = { name: "Tom Wren", role: "technician", version: String(wren.version) };
  expect(await changePerson(wren.id, fields, actorNamed("Oduya"))).toEqual({ ok: true });
  expect(await changePerson(wren.id, { ...fields, name: "T. W." }, actorNamed("Aske"))).toMatchObject({
    ok: false,
    because: "conflict",
  });
  expect((await person("wren")).name).toBe("Tom Wren");
  expect(await changePerson(crypto.randomUUID(), fields, actorNamed("Oduya"))).toMatchObject({
    ok: false,
    because: "gone",
  });
});

test("a new role counts in a session that is open", async () => {
  const request = await requestAs("wren", "long-enough");
  const wren = await person("wren");
  await changePerson(wren.id, { name: wren.name, role: "viewer", version: String(wren.version) }, actorNamed("Oduya"));
  expect(await userOf(request)).toMatchObject({ role: "viewer" });
});

test("a new password from an engineer ends every session; the old one no longer holds", async () => {
  const request = await requestAs("wren", "long-enough");
  const { id } = await person("wren");
  expect(await setPassword(id, { password: "short" }, actorNamed("Oduya"))).toMatchObject({ ok: false });
  expect(await userOf(request)).toBeDefined();
  expect(await setPassword(id, { password: "quite-another" }, actorNamed("Oduya"))).toEqual({ ok: true });
  expect(await userOf(request)).toBeUndefined();
  expect(await signIn("wren", "long-enough", "test", false)).toMatchObject({ ok: false, status: 401 });
  expect(await userOf(await requestAs("wren", "quite-another"))).toBeDefined();
});

test("one's own password: the old one is asked for, other sessions end and this one goes on", async () => {
  const [here, elsewhere] = [await requestAs("wren", "quite-another"), await requestAs("wren", "quite-another")];
  const { id } = await person("wren");
  const change = async (fields: Record<string, string>) =>
    changeOwnPassword(id, fields, actorNamed("T. Wren"), await sessionHash(here));
  expect(await change({ old: "wrong-password", password: "third-password" })).toEqual({
    ok: false,
    problems: { old: "That is not your password." },
  });
  expect(await change({ old: "quite-another", password: "" })).toMatchObject({
    ok: false,
    problems: { password: expect.any(String) },
  });
  expect(await change({ old: "quite-another", password: "third-password" })).toEqual({ ok: true });
  expect(await userOf(here)).toBeDefined();
  expect(await userOf(elsewhere)).toBeUndefined();
  expect(await sessionHash(new Request("http://here/"))).toBe("");
});

test("access that ended ends at once, stays on record, and can be given back", async () => {
  const request = await requestAs("wren", "third-password");
  const { id } = await person("wren");
  expect(await setAccess(id, false, actorNamed("Oduya"))).toEqual({ ok: true });
  expect(await userOf(request)).toBeUndefined();
  expect(await signIn("wren", "third-password", "test", false)).toMatchObject({
    ok: false,
    message: "Name and password do not match.",
  });
  expect((await people()).at(-1)).toMatchObject({ signIn: "wren", endedAt: expect.any(Number) });
  expect(await add()).toMatchObject({ ok: false, problems: { signIn: expect.any(String) } });
  expect(await setAccess(id, true, actorNamed("Oduya"))).toEqual({ ok: true });
  expect(await userOf(await requestAs("wren", "third-password"))).toBeDefined();
  expect(await userOf(request)).toBeUndefined(); // a session that ended does not come back
});

test("the last engineer can neither go nor become less; of two who go at once one stays", async () => {
  const oduya = await person("oduya");
  const less = { name: oduya.name, role: "viewer", version: String(oduya.version) };
  expect(await setAccess(oduya.id, false, actorNamed("Oduya"))).toMatchObject({
    ok: false,
    problems: { form: expect.stringContaining("last engineer") },
  });
  expect(await changePerson(oduya.id, less, actorNamed("Oduya"))).toMatchObject({
    ok: false,
    problems: { role: expect.stringContaining("last engineer") },
  });
  await add({ name: "L. Aske", signIn: "aske", role: "engineer" });
  const aske = await person("aske");
  const ended = await Promise.all([
    setAccess(oduya.id, false, actorNamed("L. Aske")),
    setAccess(aske.id, false, actorNamed("Oduya")),
  ]);
  expect(ended.filter((e) => e.ok)).toHaveLength(1);
  expect((await people()).filter((p) => p.role === "engineer" && !p.endedAt)).toHaveLength(1);
});

test("no session outlives its person", async () => {
  const left = await db().select({ user: sessions.userId }).from(sessions);
  const active = new Set((await people()).filter((p) => !p.endedAt).map((p) => p.id));
  for (const { user } of left) expect(active).toContain(user);
});
