import os from "node:os";
import { Piscina } from "piscina";

/** Threads that one command takes at the most. */
export const THREADS = Math.min(os.availableParallelism(), 16);

/**
 * A thread that is ended while it loads its file by `require` takes the whole process with it ("IsGraphAsync must be used
 * on an instantiated module"); loading by `import` may be ended at any moment.
 */
const execArgv = ["--no-experimental-require-module"].filter((flag) => process.allowedNodeEnvironmentFlags.has(flag));

/**
 * Works tasks off in threads side by side, in any order.
 * @param script of the threads, beside this file, as `prove.thread.js`
 * @param shared what every thread needs: it is handed over once
 * @param done told of each answer with the place of its task; false gives up what is not begun yet
 */
export async function mapInThreads<Task, Answer>(
  script: string,
  shared: unknown,
  tasks: readonly Task[],
  done: (answer: Answer, at: number) => boolean,
): Promise<void> {
  const pool = new Piscina<Task, Answer>({
    filename: new URL(script, import.meta.url).href,
    execArgv,
    minThreads: 1,
    maxThreads: THREADS,
    workerData: shared,
  });
  try {
    let next = 0;
    let wanted = true;
    await Promise.all(
      Array.from({ length: THREADS }, async () => {
        while (wanted && next < tasks.length) {
          const at = next++;
          if (!done(await pool.run(tasks[at]!), at)) wanted = false;
        }
      }),
    );
  } finally {
    await pool.destroy();
  }
}
