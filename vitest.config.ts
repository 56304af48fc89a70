import os from "node:os";
import path from "node:path";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

const CORE = path.resolve(import.meta.dirname, "core/src");
/** Where the core was built, if tests shall run what was built of it: as it runs for users, and in less time. */
const BUILT_CORE = process.env["KEEN_PEBBLE_BUILT_CORE"];
const BUILT = [/\/cli\/dist\//, ...(BUILT_CORE === undefined ? [] : [/\/core\/dist\//])];

/** Takes each source of the core, other than those of its tests, as it was built. */
function builtCore(folder: string): Plugin {
  return {
    name: "built-core",
    enforce: "pre",
    resolveId(id, importer) {
      if (importer === undefined || !id.startsWith(".")) return null;
      const source = path.relative(CORE, path.resolve(path.dirname(importer), id));
      if (/^\.\.|test-support|\.test\.ts$/.test(source) || !source.endsWith(".ts")) return null;
      return path.join(folder, source.replace(/ts$/, "js"));
    },
  };
}

// Our own packages are taken from their sources, where they are not built.
const conditions = BUILT_CORE === undefined ? ["source"] : [];

export default defineConfig({
  plugins: BUILT_CORE === undefined ? [] : [builtCore(BUILT_CORE)],
  resolve: { conditions },
  ssr: { resolve: { conditions } },
  test: {
    // What was built is loaded by Node itself.
    server: { deps: { external: BUILT } },
    // For what hangs: a test is not given up for sharing its cores.
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // By itself it leaves one core free: of two that is half the machine.
    maxWorkers: Math.max(2, os.availableParallelism() - 1),
    projects: [
      // The core has no state of its own that one file could leave to the next: it is loaded once. A thread or process is
      // only kept for a file of the same kind, so that each kind has a turn of its own.
      {
        extends: true,
        test: {
          name: "core",
          include: ["core/src/**/*.test.ts"],
          isolate: false,
          // Laws allocate a great deal that dies young: with more room for it, it is collected less often.
          execArgv: ["--max-semi-space-size=32"],
          sequence: { groupOrder: 1 },
        },
      },
      // The page, its session and its DOM are loaded once as well, and made as new before each file.
      {
        extends: true,
        test: {
          name: "web",
          pool: "threads",
          environment: "happy-dom",
          isolate: false,
          include: ["web/src/**/*.test.{ts,tsx}"],
          exclude: ["web/src/**/*.apart.test.{ts,tsx}"],
          setupFiles: ["web/src/test-support/as-new.ts", "web/src/test-support/workers-loaded.ts"],
          // A package names a TypeScript source that Node would not load.
          server: { deps: { inline: ["downshift", "compute-scroll-into-view"] } },
          sequence: { groupOrder: 2 },
        },
      },
      // Those that load modules of their own share nothing.
      {
        extends: true,
        test: {
          name: "web-apart",
          pool: "threads",
          include: ["web/src/**/*.apart.test.{ts,tsx}"],
          setupFiles: ["web/src/test-support/own-channels.ts", "web/src/test-support/workers-loaded.ts"],
          server: { deps: { inline: ["downshift", "compute-scroll-into-view"] } },
          sequence: { groupOrder: 3 },
        },
      },
      // Each file has a database of its own, and no other state.
      {
        extends: true,
        test: { name: "server", include: ["server/src/**/*.test.ts"], fileParallelism: false, isolate: false },
      },
      // The command as it was built, not its sources.
      {
        extends: true,
        test: {
          name: "cli",
          include: ["cli/src/**/*.test.ts"],
          sequence: { groupOrder: 3 },
        },
      },
      // Each condition has a limit of its own (PATIENCE). A test that Vitest gives up would go on driving the browser beside
      // the next one. Three browsers at once: each waits for a third of its time.
      {
        extends: true,
        test: {
          name: "e2e",
          include: ["e2e/**/*.test.ts"],
          globalSetup: ["e2e/shared-application.ts"],
          testTimeout: 600_000,
          maxWorkers: 3,
          isolate: false,
        },
      },
    ],
  },
});
