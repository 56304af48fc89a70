import { spawn } from "node:child_process";
import path from "node:path";
import { servingAccount } from "./account.mjs";
import { programFor } from "./program.mjs";
import { SetupError } from "./run.mjs";

/** Environment of a program of the server that runs as the serving account. */
export function serverEnvironment(root, databaseUrl) {
  const account = servingAccount();
  return {
    ...process.env,
    NODE_ENV: "production",
    DATABASE_URL: databaseUrl,
    ...(account === null ? {} : { HOME: root, USER: account.name, LOGNAME: account.name }),
  };
}

/** How a program of the server is started: as the serving account, never as root, and ended when this process ends. */
export function asServer(root, env) {
  const account = servingAccount();
  return {
    cwd: root,
    env: { ...env, KEEN_PEBBLE_ENDS_WITH_STDIN: "true" },
    ...(account === null ? {} : { uid: account.uid, gid: account.gid }),
  };
}

/**
 * Starts the built server and resolves once it listens.
 * @param {{ databaseUrl: string, port: number, data: string, demo?: boolean, log?: string, more?: Record<string, string> }} options
 *   `data`: the data folder; `more`: further variables
 * @returns {Promise<{ child: import("node:child_process").ChildProcess, address: string, lines: string[] }>}
 */
export function startApplication({
  databaseUrl,
  port,
  data,
  demo = true,
  log = process.env.KEEN_PEBBLE_LOG ?? "warn",
  more = {},
}) {
  const { root, node } = programFor(data);
  const env = {
    ...serverEnvironment(root, databaseUrl),
    KEEN_PEBBLE_PORT: String(port),
    KEEN_PEBBLE_WEB: path.join(root, "web/dist"),
    KEEN_PEBBLE_PLAY: path.join(root, "web/dist-play"),
    KEEN_PEBBLE_DEMO: demo ? path.join(root, "demo") : "",
    KEEN_PEBBLE_LOG: log,
    ...more,
  };
  const child = spawn(node, ["server/dist/main.js"], { ...asServer(root, env), stdio: ["pipe", "pipe", "pipe"] });
  const lines = [];
  let errors = "";
  return new Promise((resolve, reject) => {
    child.on("error", (error) => reject(new SetupError(`the server could not be started: ${error.message}`)));
    child.stderr.on("data", (data) => {
      errors = `${errors}${data}`.slice(-4000);
      if (log !== "silent") process.stderr.write(data);
    });
    let text = "";
    child.stdout.on("data", (data) => {
      text += data;
      for (let end = text.indexOf("\n"); end >= 0; end = text.indexOf("\n")) {
        const line = text.slice(0, end);
        text = text.slice(end + 1);
        lines.push(line);
        const found = /^listening on (\S+)$/.exec(line);
        if (found) resolve({ child, address: found[1], lines });
      }
    });
    child.on("exit", (code) => reject(new SetupError(`the server stopped at once (exit ${code}): ${whyOf(errors)}`)));
  });
}

/** The line that says why, of what a program that ends by an error writes. */
function whyOf(errors) {
  const lines = errors.trim().split("\n");
  return lines.find((line) => /^\w*Error\b|^error:/.test(line.trim())) ?? lines.pop() ?? "";
}

/** Asks the server to stop and waits until it has. */
export function stopApplication(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve(undefined);
    child.on("exit", () => resolve(undefined));
    child.kill("SIGTERM");
  });
}
