import { mkdtempSync, chmodSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { startApplication, stopApplication } from "../scripts/setup/application.mjs";
import { makeDataFolder } from "../scripts/setup/data-folder.mjs";
import { freePort } from "../scripts/setup/free-port.mjs";
import { Postgres } from "../scripts/setup/postgres.mjs";

type Child = Awaited<ReturnType<typeof startApplication>>["child"];

/** The built application on a database of its own, as `npm start` runs it. */
export class Started {
  private constructor(
    private readonly folder: string,
    readonly postgres: Postgres,
    readonly address: string,
    private child: Child,
  ) {}

  static async start(): Promise<Started> {
    const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-e2e-"));
    chmodSync(folder, 0o755);
    const data = path.join(folder, "data");
    makeDataFolder(data);
    const postgres = await new Postgres(data).start();
    const port = (await freePort()) as number;
    const { address, child } = await startApplication({ databaseUrl: postgres.url(), port, data, log: "silent" });
    return new Started(folder, postgres, address, child);
  }

  /** Number of the server's process. */
  get pid(): number {
    return this.child.pid!;
  }

  /** Asks the server's API; throws where it says no. */
  async api<T>(route: string, body?: unknown, method = "GET"): Promise<T> {
    const init = body === undefined ? { method } : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
    const response = await fetch(`${this.address}/api${route}`, init);
    if (!response.ok) throw new Error(`${route}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }

  /** Kills the server as a power cut would, and waits until it is gone. */
  async kill(): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return;
    const gone = new Promise((resolve) => this.child.once("exit", resolve));
    this.child.kill("SIGKILL");
    await gone;
  }

  /** Starts the server again at the address that it had. */
  async startAgain(): Promise<void> {
    const port = Number(new URL(this.address).port);
    this.child = (await startApplication({ databaseUrl: this.postgres.url(), port, data: this.postgres.data, log: "silent" })).child;
  }

  async stop(): Promise<void> {
    await stopApplication(this.child);
    this.postgres.stop("immediate");
    rmSync(this.folder, { recursive: true, force: true });
  }
}
