/** Nonsense at every form and address: never a fault of the server. The bench sends many more. */
import { expect, test } from "@playwright/test";
import { fuzz } from "./fuzz";
import { fuzzJson, fuzzPages, query, signIn } from "./support";

const REQUESTS = Number(process.env.FUZZ_REQUESTS ?? 500);
const SEED = Number(process.env.FUZZ_SEED ?? 20261126);

test("nonsense at every form and address is answered, never with a fault of the server", async ({ page, baseURL }) => {
  await signIn(page);
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join("; ");
  const { sent, forms, faults, statuses } = await fuzz(
    { base: baseURL!, cookie, pages: await fuzzPages(query), json: await fuzzJson(query) },
    { requests: REQUESTS, seed: SEED },
  );
  test
    .info()
    .annotations.push({ type: "fuzz", description: `${sent} requests at ${forms} forms: ${JSON.stringify(statuses)}` });
  expect(faults).toEqual([]);
  expect(forms).toBeGreaterThan(40);
  // what was stored of it hurts no page
  for (const address of await fuzzPages(query)) {
    const answer = await page.request.get(address, { maxRedirects: 0 });
    expect([address, answer.status() < 500]).toEqual([address, true]);
  }
});
