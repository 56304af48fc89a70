import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { startApplication, stopApplication } from "../setup/application.mjs";
import { makeDataFolder } from "../setup/data-folder.mjs";
import { freePort } from "../setup/free-port.mjs";
import { Postgres } from "../setup/postgres.mjs";

/** Names the address and the process of a server that several parts share. */
const SHARED = "KEEN_PEBBLE_SPEED_SERVER";

/** The built application on a database of its own, without the demo; `stop` takes all of it away again. */
async function startServer() {
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
  });
  const stop = async () => {
    await stopApplication(child);
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
  };
  return { address, pid: child.pid, stop };
}

/** Starts one for all parts that are run behind it, where nobody reads their figures. Gives back what stops it. */
export async function shareServer() {
  const { address, pid, stop } = await startServer();
  process.env[SHARED] = `${address} ${pid}`;
  return stop;
}

/** The server of a part: its own, unless they share one. */
export async function ownServer() {
  const [shared, number] = process.env[SHARED]?.split(" ") ?? [];
  const { address, pid, stop } =
    shared === undefined ? await startServer() : { address: shared, pid: Number(number), stop: async () => {} };
  /**
   * @param {string} route below `/api`
   * @param {string} method
   * @param {unknown} [body]
   * @returns {Promise<any>} the answer's JSON
   */
  const ask = async (route, method = "GET", body) => {
    const answer = await fetch(`${address}/api${route}`, {
      method,
      headers: { "content-type": "application/json" },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    if (!answer.ok) throw new Error(`${route}: ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  return { address, pid, ask, stop };
}
