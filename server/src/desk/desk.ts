import { Piscina } from "piscina";
import type { Logger } from "pino";
import { BusyError, ToldError, TooCostlyError } from "../problems/told-error.ts";
import { threadFile, threadOptions } from "../jobs/thread-options.ts";
import type { DeskAnswer, DeskAnswers, DeskTask, DeskTaskName, DeskTasks } from "./desk-task.ts";

/** What asks for more is given up: the largest file that is in order takes a second or two of a thread. */
const TIME_MS = 30_000;
/** Of the JavaScript heap of one thread; the largest files that are in order need half of it. */
const MEMORY_MB = 400;
/** What is at most so large is read in a few ms, and does not wait behind what is not. */
const LIGHT_BYTES = 64 * 1024;
/** More than so many tasks do not wait: whoever asks then is told to ask again. */
const MOST_WAITING = 500;

/**
 * Threads that read what came from outside and write out whole worlds, with limits of time and memory, so that the server
 * itself goes on answering (architecture.md, Safety). Small edits have a thread of their own.
 */
export class Desk {
  private readonly light: Piscina<DeskTask, DeskAnswer>;
  private readonly heavy: Piscina<DeskTask, DeskAnswer>;

  constructor(
    databaseUrl: string,
    private readonly logger: Logger,
  ) {
    // An idle thread must go on hearing what becomes of its connections: it may not sleep in an atomic wait.
    const options = {
      ...threadOptions,
      atomics: "disabled" as const,
      filename: threadFile("desk"),
      workerData: { databaseUrl },
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
      maxQueue: MOST_WAITING,
    };
    // Many small edits of different worlds may wait for the database side by side.
    this.light = new Piscina({ ...options, minThreads: 1, maxThreads: 1, concurrentTasksPerWorker: 16 });
    this.heavy = new Piscina({ ...options, minThreads: 0, maxThreads: 2, idleTimeout: 60_000 });
    for (const pool of [this.light, this.heavy])
      pool.on("error", (error) => this.logger.debug({ err: error }, "a thread of the desk ended"));
  }

  /**
   * Lets a thread do a task.
   * @throws {ToldError} what the thread told; {TooCostlyError}, {BusyError}
   */
  async ask<K extends DeskTaskName>(name: K, of: DeskTasks[K]): Promise<DeskAnswers[K]> {
    const { body } = of as { readonly body?: Uint8Array };
    const isLight = name === "store" && body!.byteLength <= LIGHT_BYTES;
    const answer = await this.run(isLight ? this.light : this.heavy, { name, of } as DeskTask);
    if ("value" in answer) return answer.value as DeskAnswers[K];
    if (answer.stack !== null) this.logger.error({ thread: answer.stack }, answer.problem.detail);
    throw new ToldError(answer.problem);
  }

  private async run(pool: Piscina<DeskTask, DeskAnswer>, task: DeskTask): Promise<DeskAnswer> {
    // What waited for others may not have cost much itself.
    const waits = pool === this.light || pool.queueSize > 0;
    const timeout = new AbortController();
    const timer = setTimeout(() => timeout.abort(), TIME_MS);
    try {
      return await pool.run(task, { signal: timeout.signal });
    } catch (error) {
      if (timeout.signal.aborted)
        throw waits ? new BusyError("others were served first for too long") : new TooCostlyError("time");
      const { code, message } = error as { code?: string; message?: string };
      if (code === "ERR_WORKER_OUT_OF_MEMORY")
        throw pool === this.light ? new BusyError("the thread that did this ended") : new TooCostlyError("memory");
      if (/Task queue is at limit/.test(message ?? "")) throw new BusyError("too much waits to be read");
      // It was ended with another task's.
      if (/Terminating worker thread|worker thread exited/i.test(message ?? ""))
        throw new BusyError("the thread that did this ended");
      throw error;
    } finally {
      clearTimeout(timer);
    }
  }

  async stop(): Promise<void> {
    await Promise.all([this.light.destroy(), this.heavy.destroy()]);
  }
}
