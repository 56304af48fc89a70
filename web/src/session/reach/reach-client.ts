import type { Loss, ReachQuestion, Target } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import type { Remote } from "comlink";
import { proxy, wrap } from "comlink";
import type { ReachFix, ReachShown, ReachWorker, WayAnswer, WayTo } from "../../workers/reach.ts";
import type { Refused } from "../../workers/simulation.ts";

/** The page's end of the worker that searches. */
export class ReachClient {
  private readonly worker = new Worker(new URL("../../workers/page.worker.ts", import.meta.url), {
    type: "module",
    name: "reach",
  });
  private readonly remote: Remote<ReachWorker> = wrap<ReachWorker>(this.worker);

  ask(
    world: World,
    logs: readonly string[],
    question: ReachQuestion,
    tell: (states: number) => void,
  ): Promise<ReachShown | Refused | null> {
    return this.remote.ask(world, logs, question, proxy(tell));
  }

  cancel(): void {
    void this.remote.cancel();
  }

  way(to: WayTo): Promise<WayAnswer> {
    return this.remote.way(to);
  }

  fixes(target: Target | Loss, tell: (fix: ReachFix) => void): Promise<void> {
    return this.remote.fixes(target, proxy(tell));
  }

  close(): void {
    this.worker.terminate();
  }
}
