import type { FoundRules, SearchState } from "@keen-pebble/core/analyse";
import { FAMILY_SHARES, byAgreement, observed } from "@keen-pebble/core/analyse";
import type { InputLog } from "@keen-pebble/core/check";
import { flatLog } from "@keen-pebble/core/check";
import { freeId, withRules } from "@keen-pebble/core/edit";
import { UNITS_PER_PX, rulesById } from "@keen-pebble/core/world";
import { proxy, wrap } from "comlink";
import { createStore } from "zustand/vanilla";
import type { Refused } from "../../workers/simulation.ts";
import type { WhichRules } from "../../workers/which-rules.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import { readOrNull } from "../log/read-or-null.ts";
import type { ProjectSession } from "../project/project.ts";
import type { OwnGame } from "./own-game.ts";

/** Which rules a game goes by: how far the search is, and what it found. */
export interface WhichRulesState {
  readonly phase: "none" | "searching" | "done";
  /** The game's file, and how many of its traces are looked at together. */
  readonly file: string;
  readonly traces: number;
  readonly tried: number;
  readonly took: number;
  /** The best of each kind of movement, the best of all first. */
  readonly found: readonly FoundRules[];
  readonly refused: string | null;
}

const NOTHING: WhichRulesState = { phase: "none", file: "", traces: 0, tried: 0, took: 0, found: [], refused: null };

/** Looks for the rule set under which our walker walks as the shown game's does. */
export class WhichRulesSearch {
  readonly store = createStore<WhichRulesState>(() => NOTHING);
  private workers: readonly Worker[] = [];
  private asked = 0;

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly ownGame: OwnGame,
  ) {}

  /** Searches in workers until all was tried or it is called off. */
  readonly search = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const { gameGhost: ghost, run, parsed } = this.benchStore.getState();
    if (project === null || ghost === null || run === null || parsed === null) return;
    this.cancel();
    const mine = ++this.asked;
    const { world } = project;
    const base = rulesById(world, parsed.rules ?? world.activeRules)!;
    const seen = [
      observed(flatLog(parsed, run.lineEnds), ghost.trace),
      ...this.ownGame.others().flatMap(({ log, trace }) => {
        const other = readOrNull(project.logs.get(log)!);
        return other === null || hasUntil(other) ? [] : [observed(other, trace)];
      }),
    ];
    const tolerance = ghost.game.tolerance * UNITS_PER_PX;
    const began = performance.now();
    this.store.setState({ ...NOTHING, phase: "searching", file: ghost.file.name, traces: seen.length });
    this.workers = FAMILY_SHARES.map(
      () =>
        new Worker(new URL("../../workers/page.worker.ts", import.meta.url), { type: "module", name: "which-rules" }),
    );
    const states: SearchState[] = FAMILY_SHARES.map(() => ({ tried: 0, found: [] }));
    const show = (i: number, state: SearchState): boolean => {
      if (mine !== this.asked) return true;
      states[i] = state;
      this.store.setState({
        tried: states.reduce((sum, { tried }) => sum + tried, 0),
        took: performance.now() - began,
        found: states.flatMap(({ found }) => found).sort(byAgreement),
      });
      return this.store.getState().found[0]?.first === null;
    };
    await Promise.all(
      this.workers.map(async (worker, i) => {
        const answer: SearchState | Refused = await wrap<WhichRules>(worker).search(
          world,
          base,
          seen,
          tolerance,
          FAMILY_SHARES[i]!,
          proxy((state: SearchState) => show(i, state)),
        );
        if ("refused" in answer) this.store.setState({ refused: answer.refused });
        else show(i, answer);
      }),
    );
    if (mine === this.asked) this.cancel();
  };

  /** Calls the search off; what was found stays. */
  readonly cancel = (): void => {
    this.asked++;
    for (const worker of this.workers) worker.terminate();
    this.workers = [];
    if (this.store.getState().phase === "searching") this.store.setState({ phase: "done" });
  };

  /** What was found is of another trace, or of a world that is left. */
  readonly forget = (): void => {
    this.cancel();
    this.store.setState(NOTHING);
  };

  /** Makes a rule set of what was found, and lets the shown log go by it. */
  readonly keep = ({ rules }: FoundRules): void => {
    const { project } = this.project.store.getState();
    const { log, gameGhost } = this.benchStore.getState();
    if (project === null || log === null) return;
    const id = freeId(
      "my-game",
      project.world.rules.map((each) => each.id),
    );
    const name = `As ${gameGhost?.game.name ?? "my game"}`.slice(0, 80);
    this.project.change(({ world, logs }) => ({
      world: { ...world, rules: [...world.rules, { ...rules, id, name }] },
      logs: new Map(logs).set(log, withRules(logs.get(log)!, id)),
    }));
  };
}

/** Whether a log says how long its keys are held only by what comes of it: another game's rules would end it elsewhere. */
function hasUntil({ lines }: InputLog): boolean {
  return lines.some((line) => line.kind === "keys" && line.until !== null);
}
