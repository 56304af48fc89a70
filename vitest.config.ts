import os from "node:os";
import { defineConfig } from "vitest/config";

export default defineConfig({
  // Our own packages are taken from their sources.
  resolve: { conditions: ["source"] },
  ssr: { resolve: { conditions: ["source"] } },
  test: {
    // For what hangs: a test is not given up for sharing its cores.
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // By itself it leaves one core free: of two that is half the machine.
    maxWorkers: Math.max(2, os.availableParallelism() - 1),
    projects: [
      // The core has no state of its own that one file could leave to the next: it is loaded once.
      { extends: true, test: { name: "core", include: ["core/src/**/*.test.ts"], isolate: false } },
      // A thread for each file begins in less than a process does. A package names a TypeScript source that Node would not
      // load.
      {
        extends: true,
        test: {
          name: "web",
          pool: "threads",
          include: ["web/src/**/*.test.{ts,tsx}"],
          setupFiles: ["web/src/test-support/own-channels.ts"],
          server: { deps: { inline: ["downshift", "compute-scroll-into-view"] } },
        },
      },
      // Each file has a database of its own, and no other state.
      {
        extends: true,
        test: { name: "server", include: ["server/src/**/*.test.ts"], fileParallelism: false, isolate: false },
      },
      { extends: true, test: { name: "cli", include: ["cli/src/**/*.test.ts"] } },
      // Each condition has a limit of its own (PATIENCE). A test that Vitest gives up would go on driving the browser beside
      // the next one. Two browsers at once: one waits while the other draws.
      {
        extends: true,
        test: { name: "e2e", include: ["e2e/**/*.test.ts"], testTimeout: 600_000, maxWorkers: 2, isolate: false },
      },
    ],
  },
});
