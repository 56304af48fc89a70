import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const api = process.env["KEEN_PEBBLE_API"] ?? "http://127.0.0.1:4870";

export default defineConfig({
  plugins: [react()],
  // Our own packages are taken from their sources, so that the page never shows an old build of the core.
  resolve: { conditions: ["source", "browser", "module", "import", "default"] },
  worker: { format: "es" },
  // Another place than beside the packages, for an account that may not write there.
  ...(process.env["KEEN_PEBBLE_VITE_CACHE"] === undefined ? {} : { cacheDir: process.env["KEEN_PEBBLE_VITE_CACHE"] }),
  build: { target: "es2022", sourcemap: true, chunkSizeWarningLimit: 900 },
  server: { host: "127.0.0.1", proxy: { "/api": { target: api } } },
});
