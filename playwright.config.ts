import { defineConfig } from "@playwright/test";

const flags = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** Run by scripts/test.mjs, which starts the application and its database. */
export default defineConfig({
  testDir: "e2e",
  outputDir: "test-results/playwright",
  workers: 1,
  retries: 0,
  // patient: a busy machine has been seen to take ten times as long, and a page that never comes fails all the same
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: [["list"], ["json"]],
  // nonsense last: what it stores and takes out of use is told of by no other test
  projects: [
    { name: "stories", testIgnore: "fuzz.spec.ts" },
    { name: "nonsense", testMatch: "fuzz.spec.ts", dependencies: ["stories"] },
  ],
  use: {
    ...(process.env.E2E_URL !== undefined && { baseURL: process.env.E2E_URL }),
    viewport: { width: 1280, height: 800 },
    reducedMotion: "reduce",
    launchOptions: { executablePath: process.env.E2E_CHROMIUM ?? "/usr/bin/chromium", args: flags },
    screenshot: "only-on-failure",
  },
});
