import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import type { SeedTally } from "@keen-pebble/core/check";
import type { Project } from "@keen-pebble/core/edit";
import type { ProofWorker, ProvedLog } from "../../workers/proofs.ts";
import { WorkerPool } from "../project/worker-pool.ts";

/** So many logs are run between two looks at whether the answer is still wanted. */
const AT_ONCE = 12;
/** So many seeds are run between two looks: some tenths of a second. */
const SEEDS_AT_ONCE = 100;

/** Workers that run all logs of the open project, apart from the one that re-runs the shown log under the person's hands. */
export class ProofPool extends WorkerPool<ProofWorker> {
  constructor(size = Math.max(1, Math.min(3, navigator.hardwareConcurrency - 1))) {
    super("proofs", size);
  }

  compareWith(project: Project | null): void {
    for (const remote of this.remotes) void remote.compareWith(project);
  }

  /** Runs logs side by side. @param each told of each answer; false ends it */
  async prove(logs: readonly string[], each: (proved: readonly ProvedLog[]) => boolean): Promise<void> {
    await this.shareOut(logs.length, AT_ONCE, async (remote, from, to) =>
      each(await remote.prove(logs.slice(from, to))),
    );
  }

  /** Runs a log over so many seeds, from 0 on. @param each told of each answer and of how many seeds it is; false ends it */
  async overSeeds(
    log: string,
    seeds: number,
    each: (tally: SeedTally | { readonly refused: string }, seeds: number) => boolean,
  ): Promise<void> {
    await this.shareOut(seeds, SEEDS_AT_ONCE, async (remote, from, to) =>
      each(await remote.overSeeds(log, from, to - from), to - from),
    );
  }

  /** Walks at random side by side. @param each told of each answer and how many walks that were; false ends it */
  async randomWalks(
    rules: string,
    tasks: readonly RandomWalkTask[],
    known: () => readonly string[],
    each: (found: readonly RandomWalkFinding[] | { readonly refused: string }, walks: number) => boolean,
  ): Promise<void> {
    await this.shareOut(tasks.length, 1, async (remote, at) =>
      each(await remote.randomWalks(rules, tasks[at]!, known()), tasks[at]!.runs),
    );
  }
}
