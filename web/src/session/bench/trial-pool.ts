import type { SingleChange, Trial } from "@keen-pebble/core/analyse";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Remote } from "comlink";
import { wrap } from "comlink";
import { packed } from "../project/packed-steps.ts";
import type { Trials } from "../../workers/trials.ts";

/** So many changes are tried between two looks at whether the search is still wanted. */
const AT_ONCE = 6;

/** Workers that try changes of the rules on a log, apart from the one that re-runs it under the person's hands. */
export class TrialPool {
  private readonly workers: Worker[] = [];
  private readonly remotes: Remote<Trials>[] = [];

  constructor(size = Math.max(1, Math.min(4, navigator.hardwareConcurrency))) {
    for (let i = 0; i < size; i++) {
      const worker = new Worker(new URL("../../workers/page.worker.ts", import.meta.url), {
        type: "module",
        name: "trials",
      });
      this.workers.push(worker);
      this.remotes.push(wrap<Trials>(worker));
    }
  }

  load(project: Project): void {
    for (const remote of this.remotes) void remote.load(project);
  }

  apply(steps: readonly EditStep[]): void {
    const sent = steps.map(packed);
    for (const remote of this.remotes) void remote.apply(sent);
  }

  /** Gets every worker ready for changes of the project on a log; gives back the log's findings and what stopped it, or null where it cannot be run. */
  async begin(log: string): Promise<ReturnType<Trials["begin"]>> {
    const [first = null] = await Promise.all(this.remotes.map((remote) => remote.begin(log)));
    return first;
  }

  /**
   * Tries changes side by side, in the order in which they are given.
   * @param each told of each answer with how many there are by then; false ends the search
   */
  async tryAll(
    changes: readonly SingleChange[],
    each: (trials: readonly Trial[], done: number) => boolean,
  ): Promise<void> {
    let next = 0;
    let done = 0;
    let wanted = true;
    await Promise.all(
      this.remotes.map(async (remote) => {
        while (wanted && next < changes.length) {
          const some = changes.slice(next, next + AT_ONCE);
          next += AT_ONCE;
          const trials = await remote.trial(some);
          done += some.length;
          if (!each(trials, done)) wanted = false;
        }
      }),
    );
  }

  rows(change: SingleChange): Promise<TraceRows | null> {
    return this.remotes[0]!.rows(change);
  }

  /** Ends the workers. */
  close(): void {
    for (const worker of this.workers) worker.terminate();
  }
}
