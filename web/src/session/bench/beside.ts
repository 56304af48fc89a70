import type { BenchStore, Beside } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { Proofs } from "../proofs/proofs.ts";
import type { ShownExplanation } from "./explanation.ts";
import { firstDifference } from "./first-difference.ts";
import type { Elsewhere } from "../../workers/simulation.ts";
import { rulesById } from "@keen-pebble/core/world";

/** The shown log's run under another rule set, or at an earlier revision. */
export class BesideRun {
  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly proofs: Proofs,
    private readonly explanation: ShownExplanation,
  ) {}

  /** Another rule set stays beside when another log is chosen; a revision was laid beside one log. */
  readonly keptBeside = (): Beside | null => {
    const { beside } = this.benchStore.getState();
    return beside?.where.kind === "rules" ? { ...beside, rows: null, differs: null, explanation: null } : null;
  };

  /** Lays the shown log's run under another rule set beside it; null takes away what lies there. */
  readonly layBeside = (rules: string | null): void => {
    const { project } = this.project.store.getState();
    if (rules === null || project === null) this.benchStore.setState({ beside: null });
    else this.lay({ kind: "rules", rules }, rulesById(project.world, rules)?.name ?? rules, null);
  };

  /** Lays the shown log's run at an earlier revision beside it, with the log as it was then. */
  readonly layRevisionBeside = async (revision: number, name = `Revision ${revision}`): Promise<void> => {
    const { log } = this.benchStore.getState();
    const older = await this.proofs.projectAt(revision);
    if (older === null || log === null) return;
    this.project.simulationClient()?.hold(revision, older);
    this.lay({ kind: "revision", revision }, name, older.logs.get(log) ?? null);
  };

  readonly lay = (where: Elsewhere, name: string, text: string | null): void => {
    this.benchStore.setState({ beside: { where, name, text, rows: null, differs: null, explanation: null } });
    void this.runBeside();
  };

  readonly runBeside = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const { log, run, beside } = this.benchStore.getState();
    const client = this.project.simulationClient();
    if (beside === null || project === null || log === null || run === null || client === null) return;
    if (beside.where.kind === "rules" && rulesById(project.world, beside.where.rules) === undefined) {
      this.benchStore.setState({ beside: null });
      return;
    }
    const answer = await client.run(beside.text ?? project.logs.get(log)!, beside.where);
    // Only for the run that it was asked for.
    if (
      this.benchStore.getState().run !== run ||
      this.benchStore.getState().beside?.where !== beside.where ||
      "refused" in answer
    )
      return;
    this.benchStore.setState({
      beside: { ...beside, rows: answer.rows, differs: firstDifference(run.rows, answer.rows), explanation: null },
    });
    this.explanation.wantExplanation();
  };
}
