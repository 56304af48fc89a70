import { readFileSync } from "node:fs";
import { defineConfig } from "vite";

const conditions = ["source", "node", "module", "import", "default"];
const { dependencies } = JSON.parse(readFileSync("package.json", "utf8")) as { dependencies: Record<string, string> };

/** What threads load too, in many small files each: it is put in. */
const PUT_IN = ["@keen-pebble/core", "joi", "fflate", "objection"];

// A few files instead of some 600: a thread that proves starts in a third of the time.
export default defineConfig({
  resolve: { conditions },
  ssr: {
    noExternal: true,
    external: Object.keys(dependencies).filter((name) => !PUT_IN.includes(name)),
    resolve: { conditions },
  },
  build: {
    ssr: true,
    target: "node20",
    outDir: "dist",
    emptyOutDir: true,
    minify: false,
    rollupOptions: {
      // Threads are files of their own, started by their names (thread-options.ts).
      input: {
        main: "src/main.ts",
        worker: "src/worker.ts",
        "desk.thread": "src/desk/desk.thread.ts",
        "prove.thread": "src/jobs/prove.thread.ts",
      },
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
