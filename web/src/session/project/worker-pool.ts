import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { Remote } from "comlink";
import { wrap } from "comlink";
import { packed } from "./packed-steps.ts";

/** What every worker of a pool does: it takes a project and follows its edits. */
interface FollowsProject {
  load(project: Project): void;
  apply(steps: readonly EditStep[]): void;
}

/** Workers of one kind that follow the open project and share out work. */
export class WorkerPool<W extends FollowsProject> {
  private readonly workers: Worker[] = [];
  protected readonly remotes: Remote<W>[] = [];

  /** @param name which of the page's workers they are */
  constructor(
    private readonly name: string,
    size: number,
  ) {
    this.grow(size);
  }

  /** Starts the workers that are missing to so many; gives back those. */
  protected grow(size: number): readonly Remote<W>[] {
    const before = this.remotes.length;
    while (this.remotes.length < size) {
      const { name } = this;
      const worker = new Worker(new URL("../../workers/page.worker.ts", import.meta.url), { type: "module", name });
      this.workers.push(worker);
      this.remotes.push(wrap<W>(worker));
    }
    return this.remotes.slice(before);
  }

  load(project: Project): void {
    for (const remote of this.remotes as readonly Remote<FollowsProject>[]) void remote.load(project);
  }

  apply(steps: readonly EditStep[]): void {
    const sent = steps.map(packed);
    for (const remote of this.remotes as readonly Remote<FollowsProject>[]) void remote.apply(sent);
  }

  /** Ends the workers. */
  close(): void {
    for (const worker of this.workers) worker.terminate();
  }

  /**
   * Shares pieces of work out, in their order, to whichever worker is free.
   * @param atOnce how many a worker takes between two looks at whether the rest is still wanted
   * @param work does the pieces from one up to another; false ends it all
   */
  protected async shareOut(
    count: number,
    atOnce: number,
    work: (remote: Remote<W>, from: number, to: number) => Promise<boolean>,
  ): Promise<void> {
    let next = 0;
    let wanted = true;
    await Promise.all(
      this.remotes.map(async (remote) => {
        while (wanted && next < count) {
          const from = next;
          next = Math.min(from + atOnce, count);
          if (!(await work(remote, from, next))) wanted = false;
        }
      }),
    );
  }
}
