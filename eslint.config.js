import { readFileSync } from "node:fs";
import js from "@eslint/js";
import globals from "globals";
import hooks from "eslint-plugin-react-hooks";
import jsdoc from "eslint-plugin-jsdoc";
import ts from "typescript-eslint";

/** What the faces of core export by name, "as" left out: its public functions are among them. */
const exported = ["core/index.ts", "core/work/index.ts"].flatMap((face) =>
  [...readFileSync(new URL(face, import.meta.url), "utf8").matchAll(/^export \{([^}]*)\}/gm)].flatMap(([, names]) =>
    names
      .split(",")
      .map((name) => name.trim())
      .filter((name) => name && !name.startsWith("type "))
      .map((name) => name.split(" as ")[0]),
  ),
);
const named = `id.name=/^(${[...new Set(exported)].join("|")})$/`;
const publicFunctions = [
  `ExportNamedDeclaration > FunctionDeclaration[${named}]`,
  `ExportNamedDeclaration > VariableDeclaration > VariableDeclarator[${named}] > ArrowFunctionExpression`,
];

export default ts.config(
  { ignores: ["build", "node_modules", ".react-router", ".data", "app/db/migrations", "test-results", "coverage"] },
  js.configs.recommended,
  ...ts.configs.recommended,
  { rules: { "max-len": ["error", { code: 160, tabWidth: 2 }] } },
  {
    files: ["**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      ...hooks.configs.recommended.rules,
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      // with types: a promise that nobody waits for is an error that nobody sees
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/switch-exhaustiveness-check": ["error", { considerDefaultExhaustiveForUnions: true }],
      "no-duplicate-imports": ["error", { allowSeparateTypeImports: true }],
      eqeqeq: "error",
      "no-console": "error",
    },
  },
  {
    files: ["app/**/*.ts"],
    ignores: ["app/domain/access/audit.server.ts", "**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "CallExpression[callee.property.name='insert'][arguments.0.name='changes']",
          message: "audit() is the one writer of the record of changes.",
        },
        {
          selector:
            "CallExpression[callee.property.name='transaction'] > :function CallExpression[callee.type='Identifier'][callee.name='db']",
          message: "Inside a transaction use its own connection: two that wait for each other's would wait for ever.",
        },
      ],
    },
  },
  {
    // a function of core says what it is for and what it throws; a public one also what goes in, what comes out, and an example,
    // which core/examples.test.ts runs
    files: ["core/**/*.ts"],
    ignores: ["**/*.test.ts", "core/calculators/testing.ts"],
    plugins: { jsdoc },
    settings: { jsdoc: { mode: "typescript" } },
    rules: {
      "jsdoc/require-jsdoc": [
        "error",
        { publicOnly: true, require: { FunctionDeclaration: true, ArrowFunctionExpression: true } },
      ],
      "jsdoc/require-description": ["error", { descriptionStyle: "any" }],
      "jsdoc/require-throws": "error",
      "jsdoc/require-throws-type": "error",
      "jsdoc/check-param-names": ["error", { disableMissingParamChecks: true, checkDestructured: false }],
      "jsdoc/check-tag-names": "error",
      "jsdoc/require-param-description": "error",
      "jsdoc/require-returns-description": "error",
      "jsdoc/require-param": ["error", { contexts: publicFunctions, checkDestructured: false }],
      "jsdoc/require-returns": ["error", { contexts: publicFunctions }],
      "jsdoc/require-example": ["error", { contexts: publicFunctions, exemptedBy: [] }],
    },
  },
  { files: ["**/*.{js,mjs,cjs}"], languageOptions: { globals: globals.node } },
);
