import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import type { UntilChoice } from "@keen-pebble/core/check";

/** What a line of the shown log may be held until. */
export class UntilLines {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  /** What a line of the shown log may be held until, instead of for its frames. */
  readonly untilChoicesOf = async (line: number): Promise<readonly UntilChoice[]> => {
    const { project } = this.project.store.getState();
    const { log } = this.benchStore.getState();
    const answer =
      project === null || log === null
        ? undefined
        : await this.project.simulationClient()?.untilChoices(project.logs.get(log)!, line);
    return answer === undefined || "refused" in answer ? [] : answer;
  };
}
