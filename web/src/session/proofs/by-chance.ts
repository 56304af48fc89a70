import { readLog, writeLog } from "@keen-pebble/core/check";
import type { SeedTally } from "@keen-pebble/core/check";
import { createStore } from "zustand/vanilla";
import type { ShownLog } from "../bench/shown-log.ts";
import { freeSlug } from "../log/log-title.ts";
import type { ProjectSession } from "../project/project.ts";
import type { ProofBoard } from "./board.ts";
import { ProofPool } from "./proof-pool.ts";

/** A log over many seeds: how many were asked for, how far it is, and what it came to. */
export interface ByChanceState {
  readonly seeds: number;
  readonly log: string | null;
  readonly phase: "none" | "running" | "done";
  readonly tried: number;
  readonly held: number;
  /** The smallest seed so far with which it does not hold. */
  readonly broken: SeedTally["broken"];
  readonly took: number;
  /** Why it cannot be run. */
  readonly refused: string | null;
}

const NOTHING = { log: null, phase: "none", tried: 0, held: 0, broken: null, took: 0, refused: null } as const;

/** Runs the shown log over many seeds: how often it holds, where something wanders. */
export class ByChance {
  readonly store = createStore<ByChanceState>(() => ({ seeds: 10_000, ...NOTHING }));
  private asked = 0;
  private pool: ProofPool | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly board: ProofBoard,
    private readonly shownLog: ShownLog,
  ) {}

  /** What was found is of the world as it was. Gives back what stops that. */
  readonly followProject = (): (() => void) => this.project.onProject(() => this.forget());

  readonly chooseSeeds = (seeds: number): void => {
    this.store.setState({ seeds });
  };

  /** Runs a log over the seeds from 0 on, in workers of its own, until all are done or it is cancelled. */
  readonly start = async (log: string): Promise<void> => {
    const { project } = this.project.store.getState();
    if (project === null) return;
    this.forget();
    const mine = this.asked;
    // One asked for it and waits: every core.
    this.pool = new ProofPool(Math.max(1, Math.min(8, navigator.hardwareConcurrency)));
    this.pool.load(project);
    const began = performance.now();
    this.store.setState({ ...NOTHING, log, phase: "running" });
    await this.pool.overSeeds(log, this.store.getState().seeds, (tally, seeds) => {
      if (mine !== this.asked) return false;
      if ("refused" in tally) {
        this.store.setState({ refused: tally.refused });
        return false;
      }
      this.store.setState((state) => ({
        tried: state.tried + seeds,
        held: state.held + tally.held,
        broken: firstOf(state.broken, tally.broken),
        took: performance.now() - began,
      }));
      return true;
    });
    if (mine === this.asked) this.cancel();
  };

  /** Calls the runs off; what was found stays. */
  readonly cancel = (): void => {
    this.asked++;
    this.pool?.close();
    this.pool = null;
    if (this.store.getState().phase === "running") this.store.setState({ phase: "done" });
  };

  private readonly forget = (): void => {
    this.cancel();
    this.store.setState(NOTHING);
  };

  /** Keeps the log with the seed that breaks it as a log of the world, and shows it. */
  readonly keepBroken = (): void => {
    const { broken, log } = this.store.getState();
    const { project } = this.project.store.getState();
    const text = log === null ? undefined : project?.logs.get(log);
    if (broken === null || project === null || text === undefined) return;
    const read = readLog(text);
    const title = `${read.title ?? log!}, seed ${broken.seed}`;
    const id = freeSlug(title, project.logs.keys());
    const kept = writeLog({ ...read, title, seed: broken.seed, accept: null });
    if (!this.project.edit({ kind: "add-log", log: id, text: kept })) return;
    this.board.store.setState({ check: null, beside: "log" });
    this.shownLog.selectLog(id, broken.frame);
  };
}

/** Of two seeds that break it the smaller. */
function firstOf(one: SeedTally["broken"], other: SeedTally["broken"]): SeedTally["broken"] {
  if (one === null || other === null) return one ?? other;
  return other.seed < one.seed ? other : one;
}
