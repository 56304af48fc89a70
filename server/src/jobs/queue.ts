import PgBoss from "pg-boss";
import type { Knex } from "knex";
import type { Logger } from "pino";

/** Logs of one revision of a world, by the hashes of their texts. */
export interface ProveJob {
  readonly worldId: number;
  readonly revision: number;
  readonly worldHash: string;
  readonly logs: readonly string[];
}

/** A search for the revision that broke a check. */
export interface SearchJob {
  readonly search: string;
}

/** The queues by name, and what their jobs carry. */
export interface Queues {
  readonly prove: ProveJob;
  readonly search: SearchJob;
}
export type QueueName = keyof Queues;

/** After so many processes that ended with a job it is given up. */
const RETRIES = 12;
const EXPIRE_MINUTES = 30;
const KEPT_SECONDS = 60;

/** The queue of jobs: PostgreSQL's own, so that it goes with the data in one transaction (architecture.md, flow 5). */
export class Queue {
  private readonly boss: PgBoss;

  constructor(databaseUrl: string, logger: Logger) {
    this.boss = new PgBoss({
      connectionString: databaseUrl,
      max: 3,
      schedule: false,
      archiveCompletedAfterSeconds: KEPT_SECONDS,
      archiveFailedAfterSeconds: 3600,
      deleteAfterMinutes: 60,
    });
    this.boss.on("error", (error) => logger.warn({ err: error }, "the queue has a fault"));
  }

  async start(): Promise<void> {
    await this.boss.start();
    for (const name of ["prove", "search"] satisfies QueueName[])
      await this.boss.createQueue(name, {
        name,
        policy: "standard",
        retryLimit: RETRIES,
        retryDelay: 0,
        expireInMinutes: EXPIRE_MINUTES,
      });
  }

  async stop(): Promise<void> {
    await this.boss.stop({ graceful: false, wait: true });
  }

  /** Puts jobs in, together with whatever else the transaction does. */
  async put<K extends QueueName>(
    trx: Knex,
    name: K,
    jobs: readonly { readonly id: string; readonly data: Queues[K]; readonly priority: number }[],
  ): Promise<void> {
    await this.boss.insert(
      jobs.map((job) => ({ ...job, name })),
      { db: inside(trx) },
    );
  }

  /** Takes up to so many jobs out, the most urgent ones; they are this process' until it completes or fails them, or ends. */
  async take<K extends QueueName>(name: K, max: number): Promise<readonly PgBoss.Job<Queues[K]>[]> {
    return (await this.boss.fetch<Queues[K]>(name, { batchSize: max })) ?? [];
  }

  /** A job is done, together with whatever else the transaction does. */
  async complete(trx: Knex, name: QueueName, id: string): Promise<void> {
    // The types leave out that data may be null with options behind it.
    await this.boss.complete(name, id, null as never, { db: inside(trx) });
  }

  /** A job could not be done: it is tried again, a limited number of times. */
  async fail(name: QueueName, id: string, why: string): Promise<void> {
    await this.boss.fail(name, id, { message: why });
  }

  async cancel(trx: Knex, name: QueueName, ids: readonly string[]): Promise<void> {
    if (ids.length > 0) await this.boss.cancel(name, [...ids], { db: inside(trx) });
  }
}

/** Lets the queue's statements run inside a transaction of ours. */
function inside(trx: Knex): PgBoss.Db {
  return {
    executeSql: async (text: string, values: unknown[] = []) => {
      const named = Object.fromEntries(values.map((value, i) => [`v${i + 1}`, value ?? null]));
      return trx.raw<{ rows: never[] }>(text.replace(/\$(\d+)/g, ":v$1"), named as Record<string, string>);
    },
  };
}
