import { spawn } from "node:child_process";
import path from "node:path";
import { ROOT, SetupError } from "./run.mjs";

/**
 * Starts the built server and resolves once it listens.
 * @param {{ databaseUrl: string, port: number, demo?: boolean, log?: string }} options
 * @returns {Promise<{ child: import("node:child_process").ChildProcess, address: string, lines: string[] }>}
 */
export function startApplication({ databaseUrl, port, demo = true, log = process.env.KEEN_PEBBLE_LOG ?? "warn" }) {
  const env = {
    ...process.env,
    NODE_ENV: "production",
    DATABASE_URL: databaseUrl,
    KEEN_PEBBLE_PORT: String(port),
    KEEN_PEBBLE_WEB: path.join(ROOT, "web/dist"),
    KEEN_PEBBLE_DEMO: demo ? path.join(ROOT, "demo") : "",
    KEEN_PEBBLE_LOG: log,
  };
  const child = spawn(process.execPath, ["server/dist/main.js"], { cwd: ROOT, env, stdio: ["ignore", "pipe", "pipe"] });
  const lines = [];
  let errors = "";
  return new Promise((resolve, reject) => {
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
    child.on("exit", (code) => reject(new SetupError(`the server stopped at once (exit ${code}): ${errors.trim().split("\n").pop() ?? ""}`)));
  });
}

/** Asks the server to stop and waits until it has. */
export function stopApplication(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    child.on("exit", () => resolve());
    child.kill("SIGTERM");
  });
}
