import { wantExplanation } from "./explanation.ts";
import { firstDifference } from "./first-difference.ts";
import type { Elsewhere } from "../../workers/simulation.ts";
import { simulationClient, projectStore } from "../project/project.ts";
import { projectAt } from "../proofs/proofs.ts";
import { rulesById } from "@keen-pebble/core/world";
import { benchStore } from "./bench-store.ts";
import type { Beside } from "./bench-store.ts";
/** Another rule set stays beside when another log is chosen; a revision was laid beside one log. */
export function keptBeside(): Beside | null {
  const { beside } = benchStore.getState();
  return beside?.where.kind === "rules" ? { ...beside, rows: null, differs: null, explanation: null } : null;
}

/** Lays the shown log's run under another rule set beside it; null takes away what lies there. */
export function layBeside(rules: string | null): void {
  const { project } = projectStore.getState();
  if (rules === null || project === null) benchStore.setState({ beside: null });
  else lay({ kind: "rules", rules }, rulesById(project.world, rules)?.name ?? rules, null);
}

/** Lays the shown log's run at an earlier revision beside it, with the log as it was then. */
export async function layRevisionBeside(revision: number, name = `Revision ${revision}`): Promise<void> {
  const { log } = benchStore.getState();
  const older = await projectAt(revision);
  if (older === null || log === null) return;
  simulationClient()?.hold(revision, older);
  lay({ kind: "revision", revision }, name, older.logs.get(log) ?? null);
}

export function lay(where: Elsewhere, name: string, text: string | null): void {
  benchStore.setState({ beside: { where, name, text, rows: null, differs: null, explanation: null } });
  void runBeside();
}

export async function runBeside(): Promise<void> {
  const { project } = projectStore.getState();
  const { log, run, beside } = benchStore.getState();
  const client = simulationClient();
  if (beside === null || project === null || log === null || run === null || client === null) return;
  if (beside.where.kind === "rules" && rulesById(project.world, beside.where.rules) === undefined) {
    benchStore.setState({ beside: null });
    return;
  }
  const answer = await client.run(beside.text ?? project.logs.get(log)!, beside.where);
  // Only for the run that it was asked for.
  if (benchStore.getState().run !== run || benchStore.getState().beside?.where !== beside.where || "refused" in answer) return;
  benchStore.setState({ beside: { ...beside, rows: answer.rows, differs: firstDifference(run.rows, answer.rows), explanation: null } });
  wantExplanation();
}
