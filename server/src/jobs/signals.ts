import { EventEmitter } from "node:events";
import type { Knex } from "knex";
import type { Logger } from "pino";
import pg from "pg";

/** What the processes tell each other. */
interface SignalMap {
  /** There is something to do. */
  jobs: [];
  /** The proofs of a world have got on. */
  proofs: [world: number];
  /** A search of a world has got on. */
  search: [world: number, id: string];
  /** Jobs that nobody wants any more. */
  cancelled: [jobs: readonly string[]];
  /** A world has a new revision. */
  saved: [world: number, revision: number];
  /** The shelf has other worlds than before. */
  shelf: [];
}

const CHANNEL = "keen_pebble";
const RETRY_MS = 1000;
const JOBS_OF_SIGNAL = 150;

/** The number under which a process holds its lock. Below 2^53, so that it goes through JSON and JavaScript whole. */
export const newWorkerNumber = (): number => Math.floor(Math.random() * Number.MAX_SAFE_INTEGER);

/**
 * Signals between all processes on one database, by its LISTEN and NOTIFY. The same connection holds the lock that says
 * that this process lives: the database lets it go when the process ends, however it does.
 */
export class Signals {
  private readonly emitter = new EventEmitter<SignalMap>();
  private readonly losses = new Set<() => void>();
  private client: pg.Client | null = null;
  private stopped = false;
  readonly worker = newWorkerNumber();

  constructor(
    private readonly databaseUrl: string,
    private readonly db: Knex,
    private readonly logger: Logger,
  ) {
    this.emitter.setMaxListeners(0);
  }

  async start(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.databaseUrl,
      connectionTimeoutMillis: 2500,
      keepAlive: true,
    });
    client.on("error", (error) => this.lost(client, error));
    client.on("end", () => this.lost(client, null));
    client.on("notification", ({ payload }) => this.heard(payload ?? ""));
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
    await client.query("select pg_advisory_lock($1)", [this.worker]);
    this.client = client;
    // What was said while nobody listened is not said again.
    this.emitter.emit("jobs");
  }

  /** Whether what is told comes through. */
  get isConnected(): boolean {
    return this.client !== null;
  }

  /** Calls the listener when nothing comes through any more. */
  onLost(listener: () => void): void {
    this.losses.add(listener);
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.client?.end().catch(() => undefined);
  }

  /** Calls the listener whenever a signal comes, from this process or another; gives back what stops that. */
  on<K extends keyof SignalMap>(signal: K, listener: (...about: SignalMap[K]) => void): () => void {
    this.emitter.on(signal, listener as never);
    return () => this.emitter.off(signal, listener as never);
  }

  /** Tells every process of jobs that nobody wants any more: a notification holds 8,000 bytes. */
  async tellCancelled(jobs: readonly string[]): Promise<void> {
    for (let at = 0; at < jobs.length; at += JOBS_OF_SIGNAL)
      await this.tell("cancelled", jobs.slice(at, at + JOBS_OF_SIGNAL));
  }

  /** Tells every process, this one too. A signal that gets lost delays something, and loses nothing. */
  async tell<K extends keyof SignalMap>(signal: K, ...about: SignalMap[K]): Promise<void> {
    try {
      const said = [CHANNEL, JSON.stringify([signal, ...about])];
      // Over its own connection: many transactions that each wait for another one of the pool would wait for each other.
      if (this.client !== null) await this.client.query("select pg_notify($1, $2)", said);
      else await this.db.raw("select pg_notify(?, ?)", said);
    } catch (error) {
      this.logger.warn({ err: error }, "a signal could not be sent");
    }
  }

  /** Whether the process with that number is gone: its lock is free. */
  async isGone(worker: number): Promise<boolean> {
    if (worker === this.worker || this.client === null) return false;
    const { rows } = await this.client.query<{ free: boolean }>("select pg_try_advisory_lock($1) as free", [worker]);
    if (!rows[0]!.free) return false;
    await this.client.query("select pg_advisory_unlock($1)", [worker]);
    return true;
  }

  private heard(payload: string): void {
    const [signal, ...about] = JSON.parse(payload) as [keyof SignalMap, ...unknown[]];
    this.emitter.emit(signal, ...(about as never));
  }

  private lost(client: pg.Client, error: Error | null): void {
    if (this.client !== client) return;
    this.client = null;
    for (const listener of this.losses) listener();
    if (this.stopped) return;
    this.logger.warn({ err: error }, "the connection for signals is gone; it is made again");
    const again = (): void => {
      if (this.stopped) return;
      this.start().catch(() => setTimeout(again, RETRY_MS).unref());
    };
    setTimeout(again, RETRY_MS).unref();
  }
}
