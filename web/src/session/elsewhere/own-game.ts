import { conform, divergenceText, ghostRows, spotBefore } from "@keen-pebble/core/analyse";
import type { Conformance } from "@keen-pebble/core/analyse";
import type { GameTrace } from "@keen-pebble/core/formats";
import type { CsvTable, gameTrace } from "@keen-pebble/core/reading";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Game } from "@keen-pebble/core/world";
import { RefusedError, rulesById } from "@keen-pebble/core/world";
import type { BenchStore, ShownRun } from "../bench/bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { TakenFile } from "./taken-file.ts";

/** A trace of a game that was taken in, and how it is read. */
export interface TakenTrace {
  readonly file: TakenFile;
  readonly table: CsvTable;
  readonly game: Game;
}

/** A game's walk beside the run of a log. */
export interface GameGhost extends TakenTrace {
  readonly log: string;
  readonly trace: GameTrace;
  /** As rows of ours, to be drawn. */
  readonly rows: TraceRows;
  /** The run that it was compared with, and what came of it. */
  readonly run: ShownRun;
  readonly conformance: Conformance;
  /** By frame how far apart the two are on the axis on which they are further apart, in px; over as many as both have. */
  readonly apart: Float32Array;
  /** What both do in the first frame that differs; null where none does, and until it is known. */
  readonly text: string | null;
}

/** Reads a table as a trace: it comes with the first one. */
type ReadTrace = typeof gameTrace;

/** The walk of a game of one's own beside the shown log's run: read again whenever that changes. */
export class OwnGame {
  /** By log. */
  private readonly taken = new Map<string, TakenTrace>();
  private read: ReadTrace | null = null;

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
  ) {}

  /** Follows the shown run. Gives back what stops it. */
  readonly startGhost = (): (() => void) => {
    const stopProject = this.project.onProject((_project, steps) => {
      // What is shown of them goes with the run that it lies beside.
      if (steps === null) this.taken.clear();
    });
    const stopRun = this.benchStore.subscribe(({ run, gameGhost }) => {
      if (gameGhost !== null && (run === null || gameGhost.log !== run.log))
        this.benchStore.setState({ gameGhost: null });
      if (run !== null && run !== this.benchStore.getState().gameGhost?.run) this.compare(run);
    });
    return () => {
      stopProject();
      stopRun();
    };
  };

  /** Lays a trace beside a log of the world. */
  readonly take = async (log: string, trace: TakenTrace): Promise<void> => {
    this.read ??= (await import("@keen-pebble/core/reading")).gameTrace;
    this.taken.set(log, trace);
    const { run } = this.benchStore.getState();
    if (run?.log === log) this.compare(run);
  };

  /** Reads the file again: one compiles, runs and looks again. */
  readonly readAgain = async (): Promise<void> => {
    const { gameGhost: ghost } = this.benchStore.getState();
    if (ghost === null) return;
    const { readGameTable } = await import("@keen-pebble/core/reading");
    try {
      const table = readGameTable(await ghost.file.again(), ghost.file.name);
      await this.take(ghost.log, { file: ghost.file, table, game: ghost.game });
    } catch (error) {
      const why = error instanceof RefusedError ? error.message : `${ghost.file.name} cannot be read again here`;
      this.project.notice(`${why}. What was read before stays; drop the file once more.`);
    }
  };

  /** Reads the walk otherwise, from now on. */
  readonly readAs = async (game: Game): Promise<void> => {
    const { gameGhost: ghost } = this.benchStore.getState();
    if (ghost === null) return;
    const made = this.project.changeWorld((world) => ({
      ...world,
      games: world.games.map((each) => (each.id === game.id ? game : each)),
    }));
    if (made) await this.take(ghost.log, { file: ghost.file, table: ghost.table, game });
  };

  /** The traces of the shown game that were taken in for other logs: all of them say by which rules it goes. */
  readonly others = (): readonly { readonly log: string; readonly trace: GameTrace }[] => {
    const { gameGhost: ghost } = this.benchStore.getState();
    const { project } = this.project.store.getState();
    const { read } = this;
    if (ghost === null || project === null || read === null) return [];
    const { world, logs } = project;
    const rules = rulesById(world, world.activeRules)!;
    return [...this.taken].flatMap(([log, { game, table, file }]) => {
      if (log === ghost.log || game.id !== ghost.game.id || !logs.has(log)) return [];
      try {
        return [{ log, trace: read(table, game, world, rules, file.name) }];
      } catch (error) {
        if (error instanceof RefusedError) return [];
        throw error;
      }
    });
  };

  /** Takes the ghost away. */
  readonly remove = (): void => {
    const { gameGhost } = this.benchStore.getState();
    if (gameGhost === null) return;
    this.taken.delete(gameGhost.log);
    this.benchStore.setState({ gameGhost: null });
  };

  private readonly compare = (run: ShownRun): void => {
    const taken = this.taken.get(run.log);
    const { project } = this.project.store.getState();
    const { parsed } = this.benchStore.getState();
    const rules = project === null ? undefined : rulesById(project.world, parsed?.rules ?? project.world.activeRules);
    if (taken === undefined || project === null || rules === undefined || this.read === null) return;
    let trace: GameTrace;
    try {
      trace = this.read(taken.table, taken.game, project.world, rules, taken.file.name);
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.taken.delete(run.log);
      this.benchStore.setState({ gameGhost: null });
      this.project.notice(`${error.message}. It is not shown any more.`);
      return;
    }
    const rows = ghostRows(trace);
    const conformance = conform(run.rows, trace, taken.game.tolerance);
    const ghost = { ...taken, log: run.log, trace, rows, run, conformance, apart: apartOf(run.rows, rows), text: null };
    this.benchStore.setState({ gameGhost: ghost });
    void this.explain(ghost);
  };

  /** Says in words what both do in the first frame that differs. */
  private readonly explain = async (ghost: GameGhost): Promise<void> => {
    const { first } = ghost.conformance;
    const { project } = this.project.store.getState();
    const client = this.project.simulationClient();
    if (first === null || project === null || client === null) return;
    const explanation = await client.explain(project.logs.get(ghost.log)!, first.frame);
    if (this.benchStore.getState().gameGhost !== ghost || "refused" in explanation) return;
    const text = divergenceText(project.world, first, spotBefore(ghost.trace, first.frame), explanation);
    this.benchStore.setState({ gameGhost: { ...ghost, text } });
  };
}

/** How far apart two walks are in each frame that both have, in px; NaN where they are in different rooms. */
function apartOf(ours: TraceRows, theirs: TraceRows): Float32Array {
  const count = Math.min(ours.count, theirs.count);
  const apart = new Float32Array(count);
  for (let frame = 0; frame < count; frame++)
    apart[frame] =
      ours.room[frame] !== theirs.room[frame]
        ? NaN
        : Math.max(Math.abs(ours.x[frame]! - theirs.x[frame]!), Math.abs(ours.y[frame]! - theirs.y[frame]!)) / 256;
  return apart;
}
