import { startApplication } from "../scripts/setup/application.mjs";
import { ownApplication } from "../scripts/setup/own-application.mjs";
import type { Postgres } from "../scripts/setup/postgres.mjs";
import { Application } from "./application.ts";

type Own = Awaited<ReturnType<typeof ownApplication>>;

/** The built application on a database of its own, as `npm start` runs it. */
export class Started extends Application {
  readonly postgres: Postgres;
  private child: Own["child"];

  private constructor(
    private readonly own: Own,
    private readonly more: Readonly<Record<string, string>>,
  ) {
    super(own.address);
    ({ postgres: this.postgres, child: this.child } = own);
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
