import os from "node:os";
import type { Proof } from "@keen-pebble/core/check";
import { Piscina } from "piscina";
import type { ProveTask } from "./prove.thread.ts";
import { fromSource, threadOptions } from "./thread-options.ts";

/** Threads of one process: as many as the machine has cores. */
export const THREADS = Math.max(1, Math.min(os.availableParallelism(), 16));

/** Of the JavaScript heap of one thread: the largest log with the largest world. */
const MEMORY_MB = 1024;

/** Threads that prove logs, so that the server itself goes on answering. */
export class ProvePool {
  private readonly pool = new Piscina<ProveTask, Proof[]>({
    filename: new URL(fromSource ? "./prove.thread.ts" : "./prove.thread.js", import.meta.url).href,
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
    return this.pool.run(task, { signal });
  }

  async stop(): Promise<void> {
    await this.pool.destroy();
  }
}
