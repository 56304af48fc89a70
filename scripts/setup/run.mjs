import { spawn, spawnSync } from "node:child_process";
import path from "node:path";
import { fileURLToPath } from "node:url";

/** The checkout. */
export const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "../..");

/** A set-up step that cannot go on: its message is one clear line for the person at the terminal. */
export class SetupError extends Error {}

/** Says one line of what is going on. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/**
 * @typedef {{ readonly what?: string, readonly env?: NodeJS.ProcessEnv, readonly cwd?: string, readonly input?: string }} Options
 * `what`: what is going on, for the message
 */

/**
 * Runs a program to its end, quietly; throws a `SetupError` with its last lines where it fails.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {Options} options
 */
export function runQuietly(command, args, { what, env = process.env, cwd = ROOT, input } = {}) {
  const done = spawnSync(command, args, { cwd, env, input, encoding: "utf8", maxBuffer: 64 * 1024 * 1024 });
  if (done.status === 0) return done.stdout;
  const output = `${done.stdout ?? ""}${done.stderr ?? ""}${done.error ? done.error.message : ""}`
    .trim()
    .split("\n")
    .slice(-15)
    .join("\n");
  throw new SetupError(`${what ?? command} failed:\n${output}`);
}

/** Runs a program with its output shown; resolves to its exit code. */
export function runShown(command, args, { env = process.env, cwd = ROOT } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd, env, stdio: "inherit" });
    child.on("error", () => resolve(127));
    child.on("exit", (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

/** As `runShown`, with its output handed over piece by piece besides; what is shown is left to `take`. */
export function runKept(command, args, { env = process.env, cwd = ROOT } = {}, take) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd, env, stdio: ["ignore", "pipe", "pipe"] });
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding("utf8").on("data", take);
    child.on("error", () => resolve(127));
    child.on("close", (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}
