import { mkdtempSync, chmodSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { startApplication, stopApplication } from "../scripts/setup/application.mjs";
import { Postgres, freePort } from "../scripts/setup/postgres.mjs";

/** The built application on a database of its own, as `npm start` runs it. */
export class Started {
  private constructor(
    private readonly folder: string,
    readonly postgres: Postgres,
    readonly address: string,
    private readonly child: Awaited<ReturnType<typeof startApplication>>["child"],
  ) {}

  static async start(): Promise<Started> {
    const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-e2e-"));
    chmodSync(folder, 0o755);
    const postgres = await new Postgres(path.join(folder, "postgres")).start();
    const port = (await freePort()) as number;
    const { address, child } = await startApplication({ databaseUrl: postgres.url(), port, log: "silent" });
    return new Started(folder, postgres, address, child);
  }

  /** Asks the server's API; throws where it says no. */
  async api<T>(route: string, body?: unknown, method = "GET"): Promise<T> {
    const init = body === undefined ? { method } : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
    const response = await fetch(`${this.address}/api${route}`, init);
    if (!response.ok) throw new Error(`${route}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }

  async stop(): Promise<void> {
    await stopApplication(this.child);
    this.postgres.stop("immediate");
    rmSync(this.folder, { recursive: true, force: true });
  }
}
