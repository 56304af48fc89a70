import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { startApplication, stopApplication } from "../setup/application.mjs";
import { makeDataFolder } from "../setup/data-folder.mjs";
import { freePort } from "../setup/free-port.mjs";
import { Postgres } from "../setup/postgres.mjs";

/**
 * The built application on a database of its own, without the demo; `stop` takes all of it away again.
 * @param {Record<string, string>} more further variables for the server
 */
export async function ownServer(more = {}) {
  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-speed-"));
  chmodSync(folder, 0o755);
  const data = path.join(folder, "data");
  makeDataFolder(data);
  const postgres = await new Postgres(data).start();
  const { child, address } = await startApplication({
    databaseUrl: postgres.url(),
    port: await freePort(),
    data,
    demo: false,
    log: "error",
    more,
  });
  return {
    address,
    pid: child.pid,
    /**
     * @param {string} route below `/api`
     * @param {string} method
     * @param {unknown} [body]
     * @returns {Promise<any>} the answer's JSON
     */
    ask: async (route, method = "GET", body) => {
      const answer = await fetch(`${address}/api${route}`, {
        method,
        headers: { "content-type": "application/json" },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      if (!answer.ok) throw new Error(`${route}: ${answer.status} ${await answer.text()}`);
      return answer.json();
    },
    stop: async () => {
      await stopApplication(child);
      postgres.stop("immediate");
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
