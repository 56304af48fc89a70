import type { ProjectSession } from "../project/project.ts";
import type { ProofBoard } from "./board.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import { shortestFindings, randomWalkTasks } from "@keen-pebble/core/analyse";
import { writeLog } from "@keen-pebble/core/check";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
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

/** Random walks that look for broken invariants. */
export class RandomWalkSearch {
  readonly store = createStore<RandomWalksState>(() => ({
    asked: { runs: 2000, frames: 1200, seed: 1 },
    rules: null,
    phase: "none",
    walked: 0,
    took: 0,
    findings: [],
    refused: null,
  }));
  private asked = 0;
  private pool: ProofPool | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly board: ProofBoard,
    private readonly shownLog: ShownLog,
  ) {}

  /** Changes what is asked for. */
  readonly askRandomWalks = (task: Partial<RandomWalkTask>): void => {
    this.store.setState((state) => ({ asked: { ...state.asked, ...task } }));
  };

  readonly chooseRandomWalkRules = (rules: string): void => {
    this.store.setState({ rules });
  };

  /** Walks at random in workers until all walks are done or it is called off; each broken law is shrunk to a short log. */
  readonly randomWalks = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    if (project === null) return;
    this.stopRandomWalks();
    const mine = ++this.asked;
    // Workers of its own: the logs go on being run after each change, and a search that is called off ends at once.
    this.pool = new ProofPool();
    this.pool.load(project);
    const { asked: task, rules } = this.store.getState();
    const began = performance.now();
    this.store.setState({ phase: "walking", walked: 0, took: 0, findings: [], refused: null });
    await this.pool.randomWalks(
      rules ?? project.world.activeRules,
      randomWalkTasks(task),
      () => this.store.getState().findings.map(({ law }) => law),
      (found, walks) => {
        if (mine !== this.asked) return false;
        if ("refused" in found) {
          this.store.setState({ refused: found.refused });
          return false;
        }
        this.store.setState((state) => ({
          walked: state.walked + walks,
          took: performance.now() - began,
          findings: shortestFindings([...state.findings, ...found]),
        }));
        return true;
      },
    );
    if (mine !== this.asked) return;
    this.stopRandomWalks();
    this.store.setState({ took: performance.now() - began });
  };

  /** Calls the walks off; what was found stays. */
  readonly stopRandomWalks = (): void => {
    this.asked++;
    this.pool?.close();
    this.pool = null;
    if (this.store.getState().phase === "walking") this.store.setState({ phase: "done" });
  };

  /** What was found is of the world that is left. */
  readonly forgetRandomWalks = (): void => {
    this.stopRandomWalks();
    this.store.setState({ phase: "none", walked: 0, took: 0, findings: [], refused: null, rules: null });
  };

  /** Keeps a found walk as a log of the world, and shows it. */
  readonly keepFinding = (finding: RandomWalkFinding): void => {
    const logs = this.project.store.getState().project?.logs;
    if (logs === undefined) return;
    const id = freeSlug(finding.log.title ?? "wander", logs.keys());
    if (!this.project.edit({ kind: "add-log", log: id, text: writeLog(finding.log) })) return;
    this.board.store.setState({ check: null, beside: "log" });
    this.shownLog.selectLog(id, finding.frame);
  };
}
