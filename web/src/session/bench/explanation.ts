import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";

/** The shown frame's explanation, here and in what lies beside. */
export class ShownExplanation {
  explainBusy = false;
  explainWanted = false;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  /** Asks for the shown frame's explanation; while one is under way the newest question waits. */
  readonly wantExplanation = (): void => {
    this.explainWanted = true;
    if (this.explainBusy) return;
    this.explainBusy = true;
    void (async () => {
      while (this.explainWanted) {
        this.explainWanted = false;
        const { project } = this.project.store.getState();
        const { log, frame, run, walk } = this.benchStore.getState();
        const client = this.project.simulationClient();
        if (project === null || log === null || run === null || walk !== null || client === null) continue;
        const answer = await client.explain(project.logs.get(log)!, frame);
        if (
          this.benchStore.getState().walk === null &&
          this.benchStore.getState().log === log &&
          !("refused" in answer)
        )
          this.benchStore.setState({ explanation: answer });
        const { beside } = this.benchStore.getState();
        if (beside === null || beside.rows === null) continue;
        const there = await client.explain(beside.text ?? project.logs.get(log)!, frame, beside.where);
        if (this.benchStore.getState().beside?.rows === beside.rows && !("refused" in there))
          this.benchStore.setState({ beside: { ...beside, explanation: there } });
      }
    })().finally(() => {
      this.explainBusy = false;
    });
  };
}
