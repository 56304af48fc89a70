import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vite";

const api = process.env["KEEN_PEBBLE_API"] ?? "http://127.0.0.1:4870";

/** Writes every text of the build a second and third time, packed as well as can be: nobody packs while somebody waits. */
function packed(): Plugin {
  let folder = "";
  return {
    name: "packed",
    apply: "build",
    configResolved: (config) => {
      folder = path.resolve(config.root, config.build.outDir);
    },
    closeBundle: () => {
      for (const name of readdirSync(folder, { recursive: true }) as string[]) {
        if (!/\.(js|css|html|svg)$/.test(name)) continue;
        const file = path.join(folder, name);
        const bytes = readFileSync(file);
        writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
        writeFileSync(`${file}.br`, brotliCompressSync(bytes));
      }
    },
  };
}

/** `--mode play`: the page of playtests, by itself in a folder of its own, as it is served by itself. */
export default defineConfig(({ mode }) => ({
  plugins: [react(), packed()],
  // Our own packages are taken from their sources, so that the page never shows an old build of the core.
  resolve: { conditions: ["source", "browser", "module", "import", "default"] },
  worker: { format: "es" },
  // Another place than beside the packages, for an account that may not write there.
  ...(process.env["KEEN_PEBBLE_VITE_CACHE"] === undefined ? {} : { cacheDir: process.env["KEEN_PEBBLE_VITE_CACHE"] }),
  build: {
    target: "es2022",
    sourcemap: true,
    chunkSizeWarningLimit: 900,
    ...(mode === "play" ? { outDir: "dist-play", copyPublicDir: false, rolldownOptions: { input: "play.html" } } : {}),
  },
  server: { host: "127.0.0.1", proxy: { "/api": { target: api } } },
}));
