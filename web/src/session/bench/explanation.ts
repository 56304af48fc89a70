import { simulationClient, projectStore } from "../project/project.ts";
import { benchStore } from "./bench-store.ts";
export let explainBusy = false;

export let explainWanted = false;

/** Asks for the shown frame's explanation; while one is under way the newest question waits. */
export function wantExplanation(): void {
  explainWanted = true;
  if (explainBusy) return;
  explainBusy = true;
  void (async () => {
    while (explainWanted) {
      explainWanted = false;
      const { project } = projectStore.getState();
      const { log, frame, run, walk } = benchStore.getState();
      const client = simulationClient();
      if (project === null || log === null || run === null || walk !== null || client === null) continue;
      const answer = await client.explain(project.logs.get(log)!, frame);
      if (benchStore.getState().walk === null && benchStore.getState().log === log && !("refused" in answer)) benchStore.setState({ explanation: answer });
      const { beside } = benchStore.getState();
      if (beside === null || beside.rows === null) continue;
      const there = await client.explain(beside.text ?? project.logs.get(log)!, frame, beside.where);
      if (benchStore.getState().beside?.rows === beside.rows && !("refused" in there)) benchStore.setState({ beside: { ...beside, explanation: there } });
    }
  })().finally(() => {
    explainBusy = false;
  });
}
