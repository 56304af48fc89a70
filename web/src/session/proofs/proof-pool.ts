import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { Remote } from "comlink";
import { wrap } from "comlink";
import { packed } from "../project/packed-steps.ts";
import type { ProofWorker, ProvedLog } from "../../workers/proofs.ts";

/** So many logs are run between two looks at whether the answer is still wanted. */
const AT_ONCE = 12;

/** Workers that run all logs of the open project, apart from the one that re-runs the shown log under the person's hands. */
export class ProofPool {
  private readonly workers: Worker[] = [];
  private readonly remotes: Remote<ProofWorker>[] = [];

  constructor(size = Math.max(1, Math.min(3, navigator.hardwareConcurrency - 1))) {
    for (let i = 0; i < size; i++) {
      const worker = new Worker(new URL("../../workers/page.worker.ts", import.meta.url), {
        type: "module",
        name: "proofs",
      });
      this.workers.push(worker);
      this.remotes.push(wrap<ProofWorker>(worker));
    }
  }

  load(project: Project): void {
    for (const remote of this.remotes) void remote.load(project);
  }

  apply(steps: readonly EditStep[]): void {
    const sent = steps.map(packed);
    for (const remote of this.remotes) void remote.apply(sent);
  }

  compareWith(project: Project | null): void {
    for (const remote of this.remotes) void remote.compareWith(project);
  }

  /** Runs logs side by side. @param each told of each answer; false ends it */
  async prove(logs: readonly string[], each: (proved: readonly ProvedLog[]) => boolean): Promise<void> {
    await this.mapInThreads(logs.length, AT_ONCE, async (remote, from, to) =>
      each(await remote.prove(logs.slice(from, to))),
    );
  }

  /** Walks at random side by side. @param each told of each answer and how many walks that were; false ends it */
  async randomWalks(
    rules: string,
    tasks: readonly RandomWalkTask[],
    known: () => readonly string[],
    each: (found: readonly RandomWalkFinding[] | { readonly refused: string }, walks: number) => boolean,
  ): Promise<void> {
    await this.mapInThreads(tasks.length, 1, async (remote, at) =>
      each(await remote.randomWalks(rules, tasks[at]!, known()), tasks[at]!.runs),
    );
  }

  /** Ends the workers. */
  close(): void {
    for (const worker of this.workers) worker.terminate();
  }

  private async mapInThreads(
    count: number,
    atOnce: number,
    work: (remote: Remote<ProofWorker>, from: number, to: number) => Promise<boolean>,
  ): Promise<void> {
    let next = 0;
    let wanted = true;
    await Promise.all(
      this.remotes.map(async (remote) => {
        while (wanted && next < count) {
          const from = next;
          next += atOnce;
          if (!(await work(remote, from, Math.min(next, count)))) wanted = false;
        }
      }),
    );
  }
}
