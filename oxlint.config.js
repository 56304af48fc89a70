import { defineConfig } from "oxlint";

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

/** Imports of other workspaces, by their names or by the ways to their folders. */
const importsOf = (workspaces, message) => ({
  regex: `^(@keen-pebble/(${workspaces.join("|")})(/|$)|(\\.\\./)+(${workspaces.join("|")})/)`,
  message,
});

const restricted = (...patterns) => ({ "no-restricted-imports": ["error", { patterns }] });

const CORE_ALONE = importsOf(["server", "web", "cli", "e2e"], "the core imports nothing of ours");
const PAGE = [
  importsOf(["cli", "e2e"], "the page imports the core and the server's request and response types only"),
  {
    group: ["@keen-pebble/server", "@keen-pebble/server/*", "!@keen-pebble/server/api", "**/../server/**"],
    message: "the page imports the server's request and response types only",
  },
];
const NO_EXPORT_ALL = { selector: "ExportAllDeclaration", message: "Export by name." };

/** What is wrong wherever it stands. */
const RECOMMENDED = [
  "no-var",
  "prefer-const",
  "prefer-rest-params",
  "prefer-spread",
  "no-array-constructor",
  "no-unused-expressions",
  "typescript/await-thenable",
  "typescript/ban-ts-comment",
  "typescript/no-array-delete",
  "typescript/no-base-to-string",
  "typescript/no-duplicate-enum-values",
  "typescript/no-duplicate-type-constituents",
  "typescript/no-empty-object-type",
  "typescript/no-explicit-any",
  "typescript/no-extra-non-null-assertion",
  "typescript/no-floating-promises",
  "typescript/no-for-in-array",
  "typescript/no-implied-eval",
  "typescript/no-misused-new",
  "typescript/no-misused-promises",
  "typescript/no-namespace",
  "typescript/no-non-null-asserted-optional-chain",
  "typescript/no-redundant-type-constituents",
  "typescript/no-require-imports",
  "typescript/no-this-alias",
  "typescript/no-unnecessary-type-assertion",
  "typescript/no-unnecessary-type-constraint",
  "typescript/no-unsafe-argument",
  "typescript/no-unsafe-assignment",
  "typescript/no-unsafe-call",
  "typescript/no-unsafe-declaration-merging",
  "typescript/no-unsafe-enum-comparison",
  "typescript/no-unsafe-function-type",
  "typescript/no-unsafe-member-access",
  "typescript/no-unsafe-return",
  "typescript/no-unsafe-unary-minus",
  "typescript/no-wrapper-object-types",
  "typescript/only-throw-error",
  "typescript/prefer-as-const",
  "typescript/prefer-namespace-keyword",
  "typescript/prefer-promise-reject-errors",
  "typescript/restrict-plus-operands",
  "typescript/triple-slash-reference",
  "typescript/unbound-method",
  "typescript/consistent-type-imports",
  "react/rules-of-hooks",
  "import/export",
];

export default defineConfig({
  plugins: ["typescript", "import", "react"],
  jsPlugins: [{ name: "eslint-js", specifier: "oxlint-plugin-eslint" }],
  categories: { correctness: "off" },
  options: { typeAware: true, denyWarnings: true, reportUnusedDisableDirectives: "error" },
  // What Git ignores is left alone by itself.
  ignorePatterns: [".*", "cases", "demo", "docs"],
  overrides: [
    {
      files: ["**/*.{ts,tsx}"],
      rules: {
        ...Object.fromEntries(RECOMMENDED.map((rule) => [rule, "error"])),
        "import/no-cycle": "error",
        "eslint-js/no-restricted-syntax": ["error", NO_EXPORT_ALL],
        "no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_", ignoreRestSiblings: true }],
        "typescript/switch-exhaustiveness-check": ["error", { considerDefaultExhaustiveForUnions: true }],
        "typescript/restrict-template-expressions": ["error", { allowNumber: true, allowBoolean: true }],
        eqeqeq: ["error", "always", { null: "ignore" }],
      },
    },
    { files: ["core/src/**"], rules: restricted(CORE_ALONE) },
    {
      files: ["server/src/**"],
      rules: restricted(importsOf(["web", "cli", "e2e"], "the server imports the core only")),
    },
    {
      files: ["cli/src/**"],
      rules: restricted(importsOf(["server", "web", "e2e"], "the command line imports the core only")),
    },
    { files: ["web/src/**"], rules: restricted(...PAGE) },
    {
      files: ["e2e/**"],
      rules: restricted(importsOf(["core", "server", "web", "cli"], "browser tests use the application from outside")),
    },
    {
      files: ["web/src/session/**/*.ts"],
      excludeFiles: ["**/*.test.ts"],
      rules: {
        ...restricted(...PAGE, {
          regex: "^(\\.\\./)+(anatomy|areas|field|kit|logs|look|pebble-line|page-|use-)",
          message: "The session knows nothing of what shows it.",
        }),
        "eslint-js/no-restricted-syntax": [
          "error",
          NO_EXPORT_ALL,
          {
            selector: ":matches(Program, Program > ExportNamedDeclaration) > VariableDeclaration[kind='let']",
            message: "What changes belongs to an object that session.ts makes.",
          },
        ],
      },
    },
    {
      files: ["*/src/**/*.{ts,tsx}", "scripts/**/*.mjs"],
      // Tests, and what is a table: the operations of the API, the commands of an area, the parts of the session.
      excludeFiles: [
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
      excludeFiles: ["**/*.test.ts", "core/src/test-support/**"],
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
      excludeFiles: ["**/*.test.ts"],
      rules: restricted(CORE_ALONE, {
        regex: `^(\\.\\./)+(${higherThan(floor)})/`,
        message: `${floor} is a lower floor of the core (FLOORS in oxlint.config.js).`,
      }),
    })),
  ],
});
