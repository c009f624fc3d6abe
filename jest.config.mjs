/** Unit, property and reference tests. Browser tests are Playwright's, in e2e/. */
export default {
  testEnvironment: "node",
  // Jest keeps one core for its own screen: of two that is half of the time, 16 minutes
  maxWorkers: "100%",
  // patient, for a busy machine
  testTimeout: 120_000,
  // a global is looked up anew at every use in the sandbox of a test: forecasts took nine times as long
  sandboxInjectedGlobals: ["Math", "Float64Array", "Number", "Array", "Object", "Map", "Set"],
  roots: ["<rootDir>/core", "<rootDir>/app", "<rootDir>/demo", "<rootDir>/reference", "<rootDir>/scripts"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx", "**/*.test.mjs"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
  moduleNameMapper: {
    "^@core$": "<rootDir>/core/index.ts",
    "^~/(.*)$": "<rootDir>/app/$1",
    "^@demo/(.*)$": "<rootDir>/demo/$1",
  },
  collectCoverageFrom: ["core/**/*.ts", "!**/*.test.ts", "!**/*.d.ts"],
};
