import type { Knex } from "knex";
import type { Logger } from "pino";
import { PendingProofRow } from "../models/pending-proof-row.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { SearchRow } from "../models/search-row.ts";
import { TakenJobRow } from "../models/taken-job-row.ts";
import type { Queue, QueueName, Queues } from "./queue.ts";
import { finish } from "../services/proofs.ts";
import type { Signals } from "./signals.ts";
import { THREADS } from "./prove-pool.ts";

/** Does one job; `signal` says that nobody wants it any more. Throws where it could not be done. */
export type JobHandler<K extends QueueName> = (
  job: { readonly id: string; readonly data: Queues[K] },
  signal: AbortSignal,
) => Promise<void>;

/** Even without a signal it is looked so often whether there is something to do, or somebody has died. */
const LOOK_MS = 1000;
/** A job that was taken so long ago, and that nobody holds, is a dead worker's. */
const UNCLAIMED_SECONDS = 5;
/** Number of the lock that whoever looks for dead workers holds. */
const BURYING = 7_105_331;

/** What looking for dead workers has changed, for whoever follows it. */
interface News {
  readonly jobs: boolean;
  /** The worlds whose proofs ended. */
  readonly proofs: ReadonlySet<number>;
  readonly searches: readonly Pick<SearchRow, "id" | "worldId">[];
}

/**
 * Takes jobs from the queue and does as many side by side as there are threads. Any number of processes may do so on
 * one database; the jobs of one that died are given back to the queue by the others.
 */
export class JobWorker {
  private readonly active = new Map<string, AbortController>();
  private readonly stops: (() => void)[] = [];
  private looking = false;
  private again = false;
  private stopped = false;
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly db: Knex,
    private readonly queue: Queue,
    private readonly signals: Signals,
    private readonly handlers: { readonly [K in QueueName]: JobHandler<K> },
    private readonly logger: Logger,
  ) {}

  start(): void {
    this.stops.push(
      this.signals.on("jobs", () => this.look()),
      this.signals.on("cancelled", (jobs) => jobs.forEach((job) => this.active.get(job)?.abort())),
    );
    this.timer = setInterval(() => {
      void this.reclaimDeadJobs();
      this.look();
    }, LOOK_MS);
    this.look();
  }

  /** Takes no more jobs, and gives up those under way: they go back to the queue. */
  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer !== null) clearInterval(this.timer);
    for (const stop of this.stops) stop();
    for (const controller of this.active.values()) controller.abort();
    while (this.active.size > 0 || this.looking) await new Promise((resolve) => setTimeout(resolve, 5));
  }

  private look(): void {
    this.again = true;
    if (this.looking) return;
    this.looking = true;
    void (async () => {
      while (this.again && !this.stopped) {
        this.again = false;
        for (const name of ["search", "prove"] satisfies QueueName[]) await this.take(name);
      }
    })()
      // A database that is away is asked again by the clock.
      .catch((error: unknown) => this.logger.debug({ err: error }, "no jobs can be taken"))
      .finally(() => {
        this.looking = false;
      });
  }

  private async take<K extends QueueName>(name: K): Promise<void> {
    // One is stored while another runs.
    const free = 2 * THREADS - this.active.size;
    if (free <= 0) return;
    const jobs = await this.queue.take(name, free);
    if (jobs.length === 0) return;
    const controllers = jobs.map(() => new AbortController());
    jobs.forEach(({ id }, i) => this.active.set(id, controllers[i]!));
    try {
      await TakenJobRow.query(this.db)
        .insert(jobs.map(({ id }) => ({ jobId: id, worker: String(this.signals.worker) })))
        .onConflict("jobId")
        .merge();
    } catch (error) {
      // Nobody has said that he has them: they are given back after a while.
      for (const { id } of jobs) this.active.delete(id);
      throw error;
    }
    jobs.forEach((job, i) => void this.run(name, job, controllers[i]!));
  }

  private async run<K extends QueueName>(
    name: K,
    job: { readonly id: string; readonly data: Queues[K] },
    controller: AbortController,
  ): Promise<void> {
    try {
      if (this.stopped) throw new Error("the process stops");
      await this.handlers[name](job, controller.signal);
    } catch (error) {
      if (!controller.signal.aborted && !this.stopped) this.logger.warn({ err: error, job: job.id }, "a job failed");
      // Where not even that can be said, whoever looks for the dead finds it.
      await this.giveBack(name, job.id, error instanceof Error ? error.message : String(error)).catch(() => undefined);
    } finally {
      this.active.delete(job.id);
      this.look();
    }
  }

  private async giveBack(name: QueueName, job: string, why: string): Promise<void> {
    await this.queue.fail(name, job, why);
    await TakenJobRow.query(this.db).deleteById(job);
  }

  /** Gives the jobs of processes that have died back to the queue; one process at a time, or a job might be given back twice. */
  private async reclaimDeadJobs(): Promise<void> {
    try {
      const news = await this.db.transaction(async (trx): Promise<News | null> => {
        const { rows } = await trx.raw<{ rows: { mine: boolean }[] }>("select pg_try_advisory_xact_lock(?) as mine", [
          BURYING,
        ]);
        if (!rows[0]!.mine) return null;
        const lost = await this.lostJobs(trx);
        for (const id of lost) {
          for (const name of ["prove", "search"] satisfies QueueName[])
            await this.queue.fail(name, id, "the process that had it ended");
          await TakenJobRow.query(trx).deleteById(id);
        }
        return { jobs: lost.length > 0, ...(await this.giveUp(trx)) };
      });
      if (news === null) return;
      // Told once it stands: who looks sooner sees what was, and nobody tells it again.
      if (news.jobs) await this.signals.tell("jobs");
      for (const world of news.proofs) await this.signals.tell("proofs", world);
      for (const { id, worldId } of news.searches) await this.signals.tell("search", worldId, id);
    } catch (error) {
      this.logger.debug({ err: error }, "could not look for dead workers");
    }
  }

  /** Says of what no job is left for, because it was tried too often, that it failed: it can then be asked for again. */
  private async giveUp(trx: Knex.Transaction): Promise<Omit<News, "jobs">> {
    const alive = `select id from pgboss.job where state in ('created', 'retry', 'active')`;
    const proofs = await PendingProofRow.query(trx).delete().whereRaw(`"jobId" not in (${alive})`).returning("worldId");
    const worlds = [...new Set((proofs as unknown as { worldId: number }[]).map(({ worldId }) => worldId))];
    await ProofRunRow.query(trx)
      .patch({ state: "failed", finishedAt: new Date() })
      .whereIn("worldId", worlds)
      .where("state", "running");
    // A run that waits for nothing is over, or was left by a process that ended.
    const idle = await ProofRunRow.query(trx)
      .select("worldId", "worldHash")
      .where("state", "running")
      .whereNotExists(PendingProofRow.query().whereColumn("pending_proofs.worldHash", "proof_runs.worldHash"));
    for (const worldHash of new Set(idle.map((run) => run.worldHash))) await finish(trx, worldHash);
    for (const { worldId, worldHash } of idle)
      await ProofRunRow.query(trx)
        .patch({ state: "failed", finishedAt: new Date() })
        .where({ worldId, worldHash, state: "running" });
    const searches = await SearchRow.query(trx)
      .patch({ state: "failed" })
      .where("state", "running")
      .whereRaw(`id not in (${alive})`)
      .returning(["id", "worldId"]);
    return {
      proofs: new Set([...worlds, ...idle.map(({ worldId }) => worldId)]),
      searches: searches as unknown as Pick<SearchRow, "id" | "worldId">[],
    };
  }

  /**
   * Jobs that nobody works on any more: their process let its lock go, or ended before it said that it has them, or is
   * this one and could not say that it has given them up.
   */
  private async lostJobs(trx: Knex.Transaction): Promise<string[]> {
    const taken = await TakenJobRow.query(trx);
    const gone = new Set<string>();
    for (const worker of new Set(taken.map((each) => each.worker)))
      if (await this.signals.isGone(Number(worker))) gone.add(worker);
    const isLost = ({ jobId, worker }: TakenJobRow): boolean =>
      gone.has(worker) || (worker === String(this.signals.worker) && !this.active.has(jobId));
    const unclaimed = await trx.raw<{ rows: { id: string }[] }>(
      `select id from pgboss.job where state = 'active' and started_on < now() - interval '${UNCLAIMED_SECONDS} seconds' and not exists (select 1 from taken_jobs where "jobId" = job.id)`,
    );
    return [...taken.filter(isLost).map(({ jobId }) => jobId), ...unclaimed.rows.map(({ id }) => id)];
  }
}
