import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Desk } from "../desk/desk.ts";
import { JobWorker } from "./job-worker.ts";
import { proveJob } from "./prove-job.ts";
import { ProvePool } from "./prove-pool.ts";
import { Queue } from "./queue.ts";
import { searchJob } from "./search-job.ts";
import { Signals } from "./signals.ts";

/** What a process needs for its part in the jobs: the queue, the signals, and the worker that takes jobs, where it does. */
export class Jobs {
  readonly queue: Queue;
  readonly signals: Signals;
  private readonly pool: ProvePool | null;
  private readonly worker: JobWorker | null;

  /** @param works whether this process takes jobs */
  constructor({
    databaseUrl,
    db,
    desk,
    logger,
    works,
  }: {
    readonly databaseUrl: string;
    readonly db: Knex;
    readonly desk: Desk;
    readonly logger: Logger;
    readonly works: boolean;
  }) {
    this.queue = new Queue(databaseUrl, logger);
    this.signals = new Signals(databaseUrl, db, logger);
    this.pool = works ? new ProvePool() : null;
    const tools = this.pool && { db, queue: this.queue, signals: this.signals, pool: this.pool, desk };
    this.worker =
      tools &&
      new JobWorker(db, this.queue, this.signals, { prove: proveJob(tools), search: searchJob(tools) }, logger);
  }

  async start(): Promise<void> {
    await this.queue.start();
    await this.signals.start();
    this.worker?.start();
  }

  /** Gives back what is under way, and ends. */
  async stop(): Promise<void> {
    await this.worker?.stop();
    await this.pool?.stop();
    await this.signals.stop();
    await this.queue.stop();
  }
}
