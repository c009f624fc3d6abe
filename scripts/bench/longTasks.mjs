/**
 * Tasks of the page's own thread while a plan is solved and wished about: the longest, with the processor slowed down.
 *
 *   node scripts/bench/longTasks.mjs <address> <sign-in name> <password> [times slower]
 *
 * The address is of a running application, as npm run demo prints it.
 */
import { chromium } from "playwright";

const [address, name, password, slower = "1"] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: process.env.E2E_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript(() => {
  globalThis.long = [];
  new PerformanceObserver((list) => globalThis.long.push(...list.getEntries().map((e) => e.duration))).observe({
    type: "longtask",
    buffered: true,
  });
});
await page.goto(`${address}/sign-in`);
await page.getByLabel("Sign-in name").fill(name);
await page.getByLabel("Password").fill(password);
await page.getByRole("button", { name: "Sign in" }).click();
await page.waitForURL((url) => !url.pathname.includes("sign-in"));
const cdp = await page.context().newCDPSession(page);
await cdp.send("Emulation.setCPUThrottlingRate", { rate: Number(slower) });
await page.goto(`${address}/plan`);
const solved = () => page.getByText(/Proven: no plan|within .* of the best/).waitFor({ timeout: 120_000 });
await solved();
const loading = await page.evaluate(() => globalThis.long.splice(0));
await page.getByLabel("plan without it").first().check();
await page.waitForTimeout(500);
await solved();
await page.getByLabel("Show").selectOption("36");
await page.waitForTimeout(500);
const wishing = await page.evaluate(() => globalThis.long.splice(0));
const told = (tasks) =>
  tasks.length === 0 ? "none over 50 ms" : `longest ${Math.max(...tasks).toFixed(0)} ms of ${tasks.length}`;
process.stdout.write(
  `${slower} times slower: loading and first plan ${told(loading)}; a wish and a longer view ${told(wishing)}\n`,
);
await browser.close();
