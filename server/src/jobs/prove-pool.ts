import os from "node:os";
import type { Proof } from "@keen-pebble/core";
import { Piscina } from "piscina";
import type { ProveTask } from "./prove.thread.ts";

/** Threads of one process: as many as the machine has cores. */
export const THREADS = Math.max(1, Math.min(os.availableParallelism(), 16));

/** From sources, as the tests and `npm run dev` run, threads want the same loader as their process. */
const fromSource = import.meta.url.endsWith(".ts");

/** Threads that prove logs, so that the server itself goes on answering. */
export class ProvePool {
  private readonly pool = new Piscina<ProveTask, Proof[]>({
    filename: new URL(fromSource ? "./prove.thread.ts" : "./prove.thread.js", import.meta.url).href,
    execArgv: fromSource ? ["--import", "tsx", "--conditions=source"] : [],
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
