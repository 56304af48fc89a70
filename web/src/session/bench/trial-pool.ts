import type { SingleChange, Trial } from "@keen-pebble/core/analyse";
import type { Project } from "@keen-pebble/core/edit";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Trials } from "../../workers/trials.ts";
import { WorkerPool } from "../project/worker-pool.ts";

/** So many changes are tried between two looks at whether the search is still wanted. */
const AT_ONCE = 6;

/**
 * Workers that try changes of the rules on a log, apart from the one that re-runs it under the person's hands. There is
 * one, until there is enough to try for more.
 */
export class TrialPool extends WorkerPool<Trials> {
  private log = "";

  /** @param project what is open now, all edits made */
  constructor(
    private readonly project: () => Project | null,
    private readonly most = Math.max(1, Math.min(4, navigator.hardwareConcurrency)),
  ) {
    super("trials", 1);
  }

  /** Gets every worker ready for changes of the project on a log; gives back the log's findings and what stopped it, or null where it cannot be run. */
  async begin(log: string): Promise<ReturnType<Trials["begin"]>> {
    this.log = log;
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
    const project = this.project();
    if (changes.length > AT_ONCE && project !== null)
      for (const remote of this.grow(this.most)) {
        void remote.load(project);
        void remote.begin(this.log);
      }
    let done = 0;
    await this.shareOut(changes.length, AT_ONCE, async (remote, from, to) => {
      const trials = await remote.trial(changes.slice(from, to));
      done += to - from;
      return each(trials, done);
    });
  }

  rows(change: SingleChange): Promise<TraceRows | null> {
    return this.remotes[0]!.rows(change);
  }
}
