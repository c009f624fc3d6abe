/**
 * Nonsense at every form and address, over HTTP: hand-made values, shapes and types that no page of ours would send.
 * The answer may be anything but a fault of the server. Deterministic for a seed.
 */
import { random } from "@core";

export interface Target {
  base: string;
  cookie: string;
  /** Pages to open; every form on them is filled and sent. */
  pages: readonly string[];
  /** Addresses that take JSON, each with an entry as a tablet would send it. */
  json?: readonly { address: string; entry: Record<string, unknown> }[];
}

export interface Fault {
  method: string;
  address: string;
  what: string;
  status: number;
}

const nasty = [
  "",
  " ",
  "\0",
  "a\0b",
  "__proto__",
  "constructor",
  "-1",
  "0",
  "1e308",
  "1e400",
  "NaN",
  "-0",
  "2147483648",
  "99999999999999999999",
  "3,000",
  "1\nx",
  "2026-02-30",
  "2026-02-30T10:00",
  "0000-01-01T00:00",
  "9999-12-31T23:59",
  "0099-05-05",
  "00000000-0000-0000-0000-000000000000",
  "not-a-uuid",
  "'; drop table readings; --",
  "<script>alert(1)</script>",
  "\u202e\ufeff",
  "\ud800",
  "🛢".repeat(40),
  "x".repeat(3000),
  `1${" ".repeat(2500)}\nx`,
  "%00",
  "../../etc/passwd",
  "=1+1",
  "on",
  "null",
  "[]",
  "{}",
  "true",
  "19/17/14",
  "13/16/18",
  "iron: many",
  "1 2 3",
  "−5 °C",
  "323 K",
  "1e3 bar",
  ",",
  ".",
  "e",
  "+",
  "-",
  "١٢٣",
];

interface Form {
  address: string;
  fields: [name: string, value: string][];
}

const decode = (text: string) =>
  text
    .replace(/&quot;/g, '"')
    .replace(/&#x27;/g, "'")
    .replace(/&lt;/g, "<")
    .replace(/&gt;/g, ">")
    .replace(/&amp;/g, "&");
const attribute = (tag: string, name: string) => {
  const found = new RegExp(`\\s${name}="([^"]*)"`).exec(tag);
  return found ? decode(found[1]!) : undefined;
};

/** Forms of a page that are posted, with the values that they stand at. */
function formsOf(html: string, page: string): Form[] {
  return [...html.matchAll(/<form\b[^>]*>[\s\S]*?<\/form>/gi)].flatMap(([form]) => {
    const head = /<form\b[^>]*>/i.exec(form)![0];
    if (attribute(head, "method")?.toLowerCase() !== "post") return [];
    const fields: [string, string][] = [];
    for (const [tag] of form.matchAll(/<(input|select|textarea|button)\b[^>]*>/gi)) {
      const name = attribute(tag, "name");
      if (name) fields.push([name, attribute(tag, "value") ?? ""]);
    }
    for (const [select] of form.matchAll(/<select\b[\s\S]*?<\/select>/gi)) {
      const name = attribute(/<select\b[^>]*>/i.exec(select)![0], "name");
      const option = /<option[^>]*value="([^"]+)"/i.exec(select)?.[1];
      const field = fields.find(([n]) => n === name);
      if (field && option) field[1] = decode(option);
    }
    return [{ address: attribute(head, "action") ?? page, fields }];
  });
}

/** Sign-out would end the session, and access of the one who asks must not end either. */
const spared = (form: Form) =>
  form.address.includes("sign-out") ||
  form.fields.some(([name, value]) => name === "intent" && /^(end|give|password|change)$/.test(value));

/** Of the requests that write, so many are a tablet's. */
const JSON_SHARE = 0.2;
const strange: readonly unknown[] = [null, true, 1e300, -1, 0.5, [], {}, [[]], "", "x".repeat(5000), ...nasty];

/** A tablet's batch with something wrong in it: a field exchanged, left out or added, a shape that is none, text that is no JSON. */
function nastyJson(
  entry: Record<string, unknown>,
  rng: ReturnType<typeof random>,
  pick: <T>(list: readonly T[]) => T,
): { body: string; what: string } {
  const chance = rng.uniform();
  if (chance < 0.1) return { body: pick(nasty), what: "no JSON" };
  if (chance < 0.2) return { body: JSON.stringify(pick(strange)), what: "no batch" };
  if (chance < 0.25) return { body: "[".repeat(3000), what: "deep" };
  const made: Record<string, unknown> = { ...entry };
  const name = pick([...Object.keys(entry), "__proto__", "constructor", "kind", "fields", "values"]);
  if (rng.uniform() < 0.2) delete made[name];
  else Object.defineProperty(made, name, { value: pick(strange), enumerable: true, configurable: true });
  return { body: JSON.stringify(rng.uniform() < 0.1 ? made : [made, pick(strange)]), what: `entry: ${name}` };
}

/** Send so many requests; returns what the server answered with a fault of its own. */
export async function fuzz(
  { base, cookie, pages, json = [] }: Target,
  { requests, seed }: { requests: number; seed: number },
): Promise<{ sent: number; forms: number; faults: Fault[]; statuses: Record<number, number> }> {
  const rng = random(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(rng.uniform() * list.length)]!;
  const faults: Fault[] = [];
  const statuses: Record<number, number> = {};
  let sent = 0;
  const ask = async (method: string, address: string, what: string, init: RequestInit = {}) => {
    sent++;
    const answer = await fetch(base + address, {
      method,
      redirect: "manual",
      ...init,
      headers: { Cookie: cookie, ...(method === "GET" ? {} : { Origin: base }), ...init.headers },
    }).catch((error: Error) => ({ status: 599, text: async () => error.message }));
    statuses[answer.status] = (statuses[answer.status] ?? 0) + 1;
    const body = await answer.text();
    if (answer.status >= 500 && answer.status !== 503) faults.push({ method, address, what, status: answer.status });
    return { status: answer.status, body };
  };
  const forms: Form[] = [];
  for (const page of pages) {
    const { body } = await ask("GET", page, "as it is");
    forms.push(...formsOf(body, page).filter((f) => !spared(f)));
  }
  const types = [
    "application/x-www-form-urlencoded",
    "application/x-www-form-urlencoded",
    "application/x-www-form-urlencoded",
    "multipart/form-data; boundary=b",
    "text/plain",
    "application/json",
    "multipart/form-data",
  ];
  while (sent < requests) {
    if (rng.uniform() < 0.25 || forms.length === 0) {
      const page = pick(pages);
      const value = encodeURIComponent(pick(nasty).replace(/[\ud800-\udfff]/g, ""));
      const name = pick([
        "q",
        "page",
        "view",
        "saved",
        "said",
        "at",
        "kind",
        "point",
        "component",
        "to",
        "from",
        "open",
        "machine",
        "retired",
        "__proto__",
      ]);
      const address =
        rng.uniform() < 0.5
          ? `${page}${page.includes("?") ? "&" : "?"}${name}=${value}`
          : rng.uniform() < 0.5
            ? `${page.split("?")[0]}.data?${name}=${value}`
            : page.replace(
                /[0-9a-f]{8}-[0-9a-f-]{27}/,
                pick(["x", "00000000-0000-0000-0000-000000000000", value.slice(0, 200) || "0"]),
              );
      await ask("GET", address, name);
      continue;
    }
    if (json.length > 0 && rng.uniform() < JSON_SHARE) {
      const { address, entry } = pick(json);
      const { body, what } = nastyJson(entry, rng, pick);
      await ask("POST", address, what, { headers: { "Content-Type": "application/json" }, body });
      continue;
    }
    const form = pick(forms);
    const fields = form.fields.map(([name, value]): [string, string] => [name, value]);
    const changes = 1 + Math.floor(rng.uniform() * 3);
    const changed: string[] = [];
    for (let i = 0; i < changes; i++) {
      const at = Math.floor(rng.uniform() * (fields.length + 1));
      if (at === fields.length)
        fields.push([pick(["__proto__", "constructor", "hasOwnProperty", "intent", "x"]), pick(nasty)]);
      else if (rng.uniform() < 0.15) fields.splice(at, 1);
      else fields[at] = [fields[at]![0], pick(nasty)];
      changed.push(fields[at]?.[0] ?? "left out");
    }
    if (fields.some(([name, value]) => name === "intent" && /^(end|give|password)$/.test(value))) continue;
    const type = pick(types);
    const well = fields.map(([n, v]): [string, string] => [n, v.replace(/[\ud800-\udfff]/g, "")]);
    const body = type.startsWith("multipart/form-data; ")
      ? `${well.map(([n, v]) => `--b\r\nContent-Disposition: form-data; name="${n}"\r\n\r\n${v}\r\n`).join("")}${rng.uniform() < 0.2 ? "" : "--b--\r\n"}`
      : type === "application/json"
        ? JSON.stringify(
            rng.uniform() < 0.5
              ? Object.fromEntries(well)
              : [pick(nasty), null, { kind: "reading", at: pick([1e300, -1, Number.MAX_SAFE_INTEGER]) }],
          )
        : new URLSearchParams(well).toString();
    await ask("POST", form.address, `${type}: ${changed.join(", ")}`, { headers: { "Content-Type": type }, body });
  }
  return { sent, forms: forms.length, faults, statuses };
}
