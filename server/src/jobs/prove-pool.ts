import os from "node:os";
import type { Proof, ReachRuling } from "@keen-pebble/core/check";
import { Piscina } from "piscina";
import type { JudgeTask, ProveTask } from "./prove.thread.ts";
import { threadFile, threadOptions } from "./thread-options.ts";

/** Threads of one process: as many as the machine has cores. */
export const THREADS = Math.max(1, Math.min(os.availableParallelism(), 16));

/** Of the JavaScript heap of one thread: the largest log with the largest world. */
const MEMORY_MB = 1024;

/** States of all play that are looked at: in a thread's memory, and where even that was too much. */
const MOST_STATES = 1_000_000;
const FEW_STATES = 50_000;

/** Threads that prove logs, so that the server itself goes on answering. */
export class ProvePool {
  private readonly pool = new Piscina<ProveTask | JudgeTask, Proof[] | ReachRuling[]>({
    filename: threadFile("prove"),
    ...threadOptions,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: 60_000,
  });

  /**
   * Proves logs in a thread.
   * @param signal ends the thread and with it the task
   */
  prove(task: ProveTask, signal: AbortSignal): Promise<Proof[]> {
    return this.pool.run(task, { signal }) as Promise<Proof[]>;
  }

  /**
   * Judges the reach checks of a world in a thread.
   * @param world its text
   */
  async judge(world: string, signal: AbortSignal): Promise<ReachRuling[]> {
    const judged = (states: number) => this.pool.run({ judge: world, states }, { signal }) as Promise<ReachRuling[]>;
    try {
      return await judged(MOST_STATES);
    } catch (error) {
      // More than a thread may have: then with fewer states, which leaves open what they do not decide.
      if ((error as NodeJS.ErrnoException).code !== "ERR_WORKER_OUT_OF_MEMORY") throw error;
      return await judged(FEW_STATES);
    }
  }

  async stop(): Promise<void> {
    await this.pool.destroy();
  }
}
