import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import importX from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Who may import whom (architecture.md, layout). A workspace may always import itself. */
const zones = [
  { target: "./core/src", from: ["./server", "./web", "./cli", "./e2e"], message: "the core imports nothing of ours" },
  { target: "./server/src", from: ["./web", "./cli", "./e2e"], message: "the server imports the core only" },
  {
    target: "./web/src",
    from: ["./cli", "./e2e"],
    message: "the page imports the core and the server's request and response types only",
  },
  {
    target: "./web/src",
    from: "./server/src",
    except: ["./api.ts"],
    message: "the page imports the server's request and response types only",
  },
  { target: "./cli/src", from: ["./server", "./web", "./e2e"], message: "the command line imports the core only" },
  {
    target: "./e2e",
    from: ["./core/src", "./server/src", "./web/src", "./cli/src"],
    message: "browser tests use the application from outside",
  },
];

/**
 * The floors of the core, the lowest first (architecture.md, layout): a folder imports only what stands before it here,
 * types included. Tests look at whatever they need.
 */
const FLOORS = [
  "base",
  "world",
  "ground",
  "compiled",
  "movement",
  "rooms",
  "actors",
  "simulation",
  "checks",
  "logs",
  "replay",
  "formats",
  "edits",
  "analysis",
  "take-home",
];

const higherThan = (floor) => FLOORS.slice(FLOORS.indexOf(floor) + 1).join("|");

export default tseslint.config(
  { ignores: ["**/dist/**", "web/dist-play/**", "cli/build/**", "web/build/**", "**/node_modules/**", "**/.*"] },
  {
    files: ["**/*.ts", "**/*.tsx"],
    extends: [tseslint.configs.recommendedTypeChecked],
    plugins: { "import-x": importX, "react-hooks": reactHooks },
    languageOptions: {
      parserOptions: {
        // One program for all workspaces: with one for each, most of the time goes into what the core's types are, again.
        project: "./tsconfig.lint.json",
        tsconfigRootDir: import.meta.dirname,
      },
    },
    settings: {
      "import-x/parsers": { "@typescript-eslint/parser": [".ts", ".tsx"] },
      "import-x/extensions": [".ts", ".tsx"],
      "import-x/resolver-next": [
        createTypeScriptImportResolver({
          project: ["core", "server", "web", "cli", "e2e"].map((w) => `${w}/tsconfig.json`),
          conditionNames: ["source", "types", "import", "default"],
          noWarnOnMultipleProjects: true,
        }),
      ],
    },
    rules: {
      "import-x/no-cycle": ["error", { ignoreExternal: true }],
      "import-x/no-restricted-paths": ["error", { basePath: import.meta.dirname, zones }],
      "import-x/export": "error",
      "no-restricted-syntax": ["error", { selector: "ExportAllDeclaration", message: "Export by name." }],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { argsIgnorePattern: "^_", varsIgnorePattern: "^_", ignoreRestSiblings: true },
      ],
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/switch-exhaustiveness-check": ["error", { considerDefaultExhaustiveForUnions: true }],
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true, allowBoolean: true }],
      "@typescript-eslint/require-await": "off",
      "react-hooks/rules-of-hooks": "error",
      eqeqeq: ["error", "always", { null: "ignore" }],
    },
  },
  {
    files: ["web/src/session/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex: "^(\.\./)+(anatomy|areas|field|kit|logs|look|pebble-line|page-|use-)",
              message: "The session knows nothing of what shows it.",
            },
          ],
        },
      ],
      "no-restricted-syntax": [
        "error",
        { selector: "ExportAllDeclaration", message: "Export by name." },
        {
          selector: ":matches(Program, Program > ExportNamedDeclaration) > VariableDeclaration[kind='let']",
          message: "What changes belongs to an object that session.ts makes.",
        },
      ],
    },
  },
  {
    // Nothing imports a test: it can be in no cycle.
    files: ["**/*.test.{ts,tsx}"],
    rules: { "import-x/no-cycle": "off" },
  },
  {
    files: ["*/src/**/*.{ts,tsx}", "scripts/**/*.mjs"],
    // Tests, and what is a table: the operations of the API, the commands of an area, the parts of the session.
    ignores: [
      "**/*.test.{ts,tsx}",
      "**/test-support/**",
      "server/src/http/{worlds,revisions,proofs}.ts",
      "web/src/session/commands/{bench,proofs}.ts",
      "web/src/session/session.ts",
    ],
    rules: { "max-lines-per-function": ["error", { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ["core/src/**/*.ts"],
    ignores: ["**/*.test.ts", "core/src/test-support/**"],
    rules: {
      "no-restricted-properties": [
        "error",
        ...[
          "random",
          "sin",
          "cos",
          "tan",
          "asin",
          "acos",
          "atan",
          "atan2",
          "exp",
          "log",
          "pow",
          "sqrt",
          "cbrt",
          "hypot",
        ].map((property) => ({
          object: "Math",
          property,
          message: "the core is the same on every machine and every time",
        })),
      ],
      "no-restricted-globals": ["error", { name: "Date", message: "the core knows no clock" }],
    },
  },
  ...FLOORS.slice(0, -1).map((floor) => ({
    files: [`core/src/${floor}/**/*.ts`],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex: `^(\\.\\./)+(${higherThan(floor)})/`,
              message: `${floor} is a lower floor of the core (FLOORS in eslint.config.js).`,
            },
          ],
        },
      ],
    },
  })),
);
