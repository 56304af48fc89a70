import type { UntilChoice } from "@keen-pebble/core/check";
import { benchStore } from "../bench/bench-store.ts";
import { projectStore, simulationClient } from "../project/project.ts";

/** What a line of the shown log may be held until, instead of for its frames. */
export async function untilChoicesOf(line: number): Promise<readonly UntilChoice[]> {
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  const answer = project === null || log === null ? undefined : await simulationClient()?.untilChoices(project.logs.get(log)!, line);
  return answer === undefined || "refused" in answer ? [] : answer;
}
