/** The HTTP face in front of the application: what it refuses before a page is asked for. */
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { config } from "~/runtime/config.server";
import { makeApp } from "./http.server";

let server: Server;
let base = "";

beforeAll(async () => {
  const app = makeApp(() => Promise.reject(new Error("no page is asked for in this test")));
  server = await new Promise((done) => {
    const listening = app.listen(0, "127.0.0.1", () => done(listening));
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});

afterAll(
  () =>
    new Promise((done) => {
      server.closeAllConnections();
      server.close(done);
    }),
);

const post = (headers: Record<string, string>, body = "a=1") =>
  fetch(`${base}/points/x`, {
    method: "POST",
    body,
    headers: { "Content-Type": "application/x-www-form-urlencoded", ...headers },
  });

test.each([
  ["no origin", {}],
  ["another site", { Origin: "https://elsewhere.example" }],
  ["another port", { Origin: "http://127.0.0.1:1" }],
  ["an origin that is none", { Origin: "null" }],
  ["a browser that says it crosses sites", { Origin: "SELF", "Sec-Fetch-Site": "cross-site" }],
] as const)("a write with %s is refused", async (_name, headers) => {
  const answer = await post(Object.fromEntries(Object.entries(headers).map(([k, v]) => [k, v === "SELF" ? base : v])));
  expect(answer.status).toBe(403);
  expect(await answer.text()).toContain("did not come from a page of this application");
});

test("an address that cannot be decoded is answered, and writes no fault to the log", async () => {
  const log = jest.spyOn(console, "error").mockImplementation(() => undefined);
  const answer = await fetch(`${base}/points/%E0%A4%A`);
  expect(answer.status).toBe(400);
  expect(await answer.text()).toBe("This request cannot be read.");
  expect(log).not.toHaveBeenCalled();
  log.mockRestore();
});

test("what is larger than the limit is refused without being kept, and the sender is told", async () => {
  const answer = await fetch(`${base}/records/import`, {
    method: "POST",
    headers: { Origin: base, "Content-Type": "multipart/form-data; boundary=x" },
    body: "a".repeat(config.uploadLimit + 1),
  });
  expect(answer.status).toBe(413);
  expect(await answer.text()).toContain("at most 32 MB");
});

test("nobody sends much before signing in, and no form without a file is large", async () => {
  const large = async (type: string, length: number) => {
    const answer = await fetch(`${base}/sign-in`, {
      method: "POST",
      headers: { Origin: base, "Content-Type": type },
      body: "a".repeat(length),
    });
    return [answer.status, await answer.text()];
  };
  expect(await large("application/x-www-form-urlencoded", 600_000)).toEqual([
    413,
    expect.stringContaining("at most 512 kB"),
  ]);
  expect([413, 503]).toContain((await large("multipart/form-data; boundary=x", 20_000))[0]);
});

test.each(["/a%00b", "/find?q=%00"])("%s cannot be read", async (path) =>
  expect((await fetch(base + path)).status).toBe(400),
);

test("a body of unknown length is refused", async () => {
  const body = new ReadableStream({
    start(c) {
      c.enqueue(new TextEncoder().encode("a=1"));
      c.close();
    },
  });
  const answer = await fetch(`${base}/points/x`, {
    method: "POST",
    body,
    headers: { Origin: base },
    duplex: "half",
  } as RequestInit);
  expect(answer.status).toBe(411);
});

test("every answer carries the security headers, with a new nonce each time", async () => {
  const nonces = new Set<string>();
  for (let i = 0; i < 3; i++) {
    const { headers } = await post({});
    const policy = headers.get("content-security-policy")!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(headers.get("x-content-type-options")).toBe("nosniff");
    expect(headers.get("x-powered-by")).toBeNull();
    nonces.add(/'nonce-([^']+)'/.exec(policy)![1]!);
  }
  expect(nonces.size).toBe(3);
});

test.each(["/points/%2/x", "/points/1%20%2", "/points/%E0%A4%A"])(
  "%s is answered as one that cannot be read",
  async (path) => {
    const answer = await fetch(base + path);
    expect([answer.status, await answer.text()]).toEqual([400, "This request cannot be read."]);
  },
);

test("an asset that is not there is no page", async () => {
  expect((await fetch(`${base}/assets/none.js`)).status).toBe(404);
});
