#!/usr/bin/env node
import { existsSync } from "node:fs";

// npm links this file at install, before anything is built; so it is committed and only loads the build.
const build = new URL("../dist/main.js", import.meta.url);
if (!existsSync(build)) {
  process.stderr.write("keen-pebble is not built yet: run npm start or npm run build in the checkout first.\n");
  process.exit(2);
}
await import(build.href);
