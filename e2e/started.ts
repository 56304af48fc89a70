import { startApplication } from "../scripts/setup/application.mjs";
import { ownApplication } from "../scripts/setup/own-application.mjs";
import type { Postgres } from "../scripts/setup/postgres.mjs";

type Own = Awaited<ReturnType<typeof ownApplication>>;

/** The built application on a database of its own, as `npm start` runs it. */
export class Started {
  readonly address: string;
  readonly postgres: Postgres;
  private child: Own["child"];

  private constructor(
    private readonly own: Own,
    private readonly more: Readonly<Record<string, string>>,
  ) {
    ({ address: this.address, postgres: this.postgres, child: this.child } = own);
  }

  /** @param proves whether it runs logs by itself; else it leaves them to others (`npm run worker`), and there are none */
  static async start(proves = true): Promise<Started> {
    const more = { KEEN_PEBBLE_WORKS: String(proves) };
    return new Started(await ownApplication(more), more);
  }

  /** Number of the server's process. */
  get pid(): number {
    return this.child.pid!;
  }

  /** Asks the server's API; throws where it says no. */
  async api<T>(route: string, body?: unknown, method = "GET"): Promise<T> {
    const init =
      body === undefined
        ? { method }
        : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
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
    this.child = (
      await startApplication({
        databaseUrl: this.postgres.url(),
        port,
        data: this.postgres.data,
        log: "silent",
        more: this.more,
      })
    ).child;
  }

  async stop(): Promise<void> {
    await this.own.stop(this.child);
  }
}
