import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { ROOT, SetupError, runQuietly, say } from "./run.mjs";

/** Remembers what was installed and built last, so that doing it again is quick. */
const STAMPS = path.join(ROOT, "node_modules", ".keen-pebble");

function isFresh(name, hash) {
  const file = path.join(STAMPS, name);
  return existsSync(file) && readFileSync(file, "utf8") === hash;
}

function stamp(name, hash) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(path.join(STAMPS, name), hash);
}

/** Refuses a Node that is too old, in one line. */
export function ensureNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new SetupError(`Node 20.19 or newer is needed, this is ${process.versions.node}`);
}

/** Installs the npm packages of the lock file where they are not the ones installed last. */
export function ensurePackages() {
  const hash = createHash("sha256")
    .update(readFileSync(path.join(ROOT, "package-lock.json")))
    .digest("hex");
  if (isFresh("packages", hash)) return;
  say("installing npm packages");
  runQuietly("npm", ["ci", "--loglevel=error"], { what: "npm ci" });
  stamp("packages", hash);
}

/** Builds core, server, command line and page where a source changed since the last build. */
export function ensureBuild() {
  const hash = createHash("sha256");
  for (const folder of ["core", "server", "cli", "web"]) addFolder(hash, path.join(ROOT, folder));
  hash
    .update(readFileSync(path.join(ROOT, "tsconfig.base.json")))
    .update(readFileSync(path.join(ROOT, "package-lock.json")));
  const digest = hash.digest("hex");
  const whole = ["server/dist/main.js", "cli/dist/main.js", "web/dist/index.html", "web/dist-play/play.html"].every(
    (file) => existsSync(path.join(ROOT, file)),
  );
  if (whole && isFresh("build", digest)) return;
  say("building");
  runQuietly("npx", ["--no-install", "tsc", "-b", "core", "server", "cli"], { what: "tsc" });
  runQuietly("npm", ["run", "build", "-w", "server"], { what: "vite build of the server" });
  runQuietly("npm", ["run", "build", "-w", "cli"], { what: "vite build of the command line" });
  runQuietly("npm", ["run", "build", "-w", "web"], { what: "vite build" });
  stamp("build", digest);
}

/** What tells one build from another. */
export function buildStamp() {
  return readFileSync(path.join(STAMPS, "build"), "utf8");
}

function addFolder(hash, folder) {
  for (const name of readdirSync(folder).sort()) {
    if (
      name === "dist" ||
      name === "dist-play" ||
      name === "build" ||
      name === "node_modules" ||
      name.endsWith(".tsbuildinfo")
    )
      continue;
    const file = path.join(folder, name);
    if (statSync(file).isDirectory()) addFolder(hash, file);
    else hash.update(path.relative(ROOT, file)).update("\0").update(readFileSync(file));
  }
}
