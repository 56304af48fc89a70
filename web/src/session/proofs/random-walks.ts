import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import { shortestFindings, randomWalkTasks } from "@keen-pebble/core/analyse";
import { writeLog } from "@keen-pebble/core/check";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
import { selectLog } from "../bench/shown-log.ts";
import { boardStore } from "./board.ts";
import { edit, projectStore } from "../project/project.ts";
import { ProofPool } from "./proof-pool.ts";

/** Random walks of the open world: what was asked for, how far it is, and what was found. */
export interface RandomWalksState {
  readonly asked: RandomWalkTask;
  readonly rules: string | null;
  readonly phase: "none" | "walking" | "done";
  readonly walked: number;
  readonly took: number;
  readonly findings: readonly RandomWalkFinding[];
  /** Why nobody can walk. */
  readonly refused: string | null;
}

export const randomWalksStore = createStore<RandomWalksState>(() => ({ asked: { runs: 2000, frames: 1200, seed: 1 }, rules: null, phase: "none", walked: 0, took: 0, findings: [], refused: null }));

let asked = 0;
let pool: ProofPool | null = null;

/** Changes what is asked for. */
export function askRandomWalks(task: Partial<RandomWalkTask>): void {
  randomWalksStore.setState((state) => ({ asked: { ...state.asked, ...task } }));
}

export function chooseRandomWalkRules(rules: string): void {
  randomWalksStore.setState({ rules });
}

/** Walks at random in workers until all walks are done or it is called off; each broken law is shrunk to a short log. */
export async function randomWalks(): Promise<void> {
  const { project } = projectStore.getState();
  if (project === null) return;
  stopRandomWalks();
  const mine = ++asked;
  // Workers of its own: the logs go on being run after each change, and a search that is called off ends at once.
  pool = new ProofPool();
  pool.load(project);
  const { asked: task, rules } = randomWalksStore.getState();
  const began = performance.now();
  randomWalksStore.setState({ phase: "walking", walked: 0, took: 0, findings: [], refused: null });
  await pool.randomWalks(rules ?? project.world.activeRules, randomWalkTasks(task), () => randomWalksStore.getState().findings.map(({ law }) => law), (found, walks) => {
    if (mine !== asked) return false;
    if ("refused" in found) {
      randomWalksStore.setState({ refused: found.refused });
      return false;
    }
    randomWalksStore.setState((state) => ({ walked: state.walked + walks, took: performance.now() - began, findings: shortestFindings([...state.findings, ...found]) }));
    return true;
  });
  if (mine !== asked) return;
  stopRandomWalks();
  randomWalksStore.setState({ took: performance.now() - began });
}

/** Calls the walks off; what was found stays. */
export function stopRandomWalks(): void {
  asked++;
  pool?.close();
  pool = null;
  if (randomWalksStore.getState().phase === "walking") randomWalksStore.setState({ phase: "done" });
}

/** What was found is of the world that is left. */
export function forgetRandomWalks(): void {
  stopRandomWalks();
  randomWalksStore.setState({ phase: "none", walked: 0, took: 0, findings: [], refused: null, rules: null });
}

/** Keeps a found walk as a log of the world, and shows it. */
export function keepFinding(finding: RandomWalkFinding): void {
  const logs = projectStore.getState().project?.logs;
  if (logs === undefined) return;
  const id = freeSlug(finding.log.title ?? "wander", logs.keys());
  if (!edit({ kind: "add-log", log: id, text: writeLog(finding.log) })) return;
  boardStore.setState({ check: null, beside: "log" });
  selectLog(id, finding.frame);
}
