import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { startApplication, stopApplication } from "./application.mjs";
import { freePort } from "./free-port.mjs";
import { Postgres } from "./postgres.mjs";
import { makeTestData } from "./proven-data.mjs";

/**
 * Starts the built application on a database cluster of its own, as `npm start` runs it: for tests.
 * @param {Record<string, string>} [more] further variables for the server
 * @returns {Promise<{ address: string, postgres: Postgres, child: import("node:child_process").ChildProcess, stop: (child?: import("node:child_process").ChildProcess) => Promise<void> }>}
 *   `stop` ends the server, or the one that was started again in its place, and its database, and takes the folder away
 */
export async function ownApplication(more = {}) {
  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-own-"));
  // PostgreSQL's own user must get through to its folder.
  chmodSync(folder, 0o755);
  const data = path.join(folder, "data");
  makeTestData(data);
  const postgres = await new Postgres(data).start();
  const { address, child } = await startApplication({
    databaseUrl: postgres.url(),
    port: await freePort(),
    data,
    log: "silent",
    more,
  });
  const stop = async (now = child) => {
    await stopApplication(now);
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
  };
  return { address, postgres, child, stop };
}
