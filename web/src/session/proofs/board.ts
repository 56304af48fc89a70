import type { Proofs, ProofsState } from "./proofs.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import type { Playing } from "../bench/playing.ts";
import type { ProjectSession } from "../project/project.ts";
import type { InputLog, Proof } from "@keen-pebble/core/check";
import type { OwnGame, TakenTrace } from "../elsewhere/own-game.ts";
import type { RecordingImport } from "../elsewhere/recording.ts";
import type { TakenFile } from "../elsewhere/taken-file.ts";
import { takenFile, textOf } from "../elsewhere/taken-file.ts";
import type { Project } from "@keen-pebble/core/edit";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { RefusedError, rulesById } from "@keen-pebble/core/world";
import type { BoardOrder, Sort } from "./board-order.ts";
import { boardItems, sortedRows } from "./board-order.ts";
import { createStore } from "zustand/vanilla";
import { freeSlug, logOrder, logTitle, rulesNamed } from "../log/log-title.ts";
import type { PathAnswer } from "../../workers/proofs.ts";

export const FILTERS = ["all", "failing", "path"] as const;

export type BoardFilter = (typeof FILTERS)[number];

/** What the board of logs shows. */
export interface BoardState extends BoardOrder {
  readonly filter: BoardFilter;
  readonly sought: string;
  /** Which check of the shown log is looked at; null looks at none. */
  readonly check: number | null;
  /** Logs that are chosen together with the shown one, to do something to all of them. */
  readonly chosen: ReadonlySet<string>;
  /** What stands beside the board. */
  readonly beside: "log" | "wander";
}

/** A log as a row of the board. */
export interface BoardRow {
  readonly log: string;
  readonly title: string;
  readonly rules: string;
  readonly tags: readonly string[];
  readonly proof: Proof | null;
  readonly path: PathAnswer | null;
}

/** The board's rows: logs that do not hold come first, so that one sees them without looking; then by title. */
export function boardRows(
  { world, logs }: Project,
  { proofs, paths }: Pick<ProofsState, "proofs" | "paths">,
): BoardRow[] {
  const names = new Map(world.rules.map(({ id, name }) => [id, name]));
  const rows = logOrder(logs).map((log): BoardRow => {
    const text = logs.get(log)!;
    const head = text.slice(0, text.indexOf("\n---"));
    const rules = rulesNamed(text) ?? world.activeRules;
    return {
      log,
      title: logTitle(text, log),
      rules: names.get(rules) ?? rules,
      tags: [...head.matchAll(/^tag (.+)$/gm)].map((match) => match[1]!),
      proof: proofs.get(log) ?? null,
      path: paths.get(log) ?? null,
    };
  });
  return [...rows.filter(isFailing), ...rows.filter((row) => !isFailing(row))];
}

export const isFailing = ({ proof }: BoardRow): boolean => proof !== null && !proof.holds;

export const pathDiffers = ({ path }: BoardRow): boolean => path?.kind === "differs";

/** The rows that pass the filter and hold what is sought, in title, id, tags, rules or a check's words; in their order. */
export function shownRows(
  rows: readonly BoardRow[],
  { filter, sought, ...order }: Pick<BoardState, "filter" | "sought"> & BoardOrder,
): readonly BoardRow[] {
  const words = sought.trim().toLowerCase();
  const fitting = rows.filter((row) => {
    if ((filter === "failing" && !isFailing(row)) || (filter === "path" && !pathDiffers(row))) return false;
    if (words === "") return true;
    return [row.title, row.log, row.rules, ...row.tags, ...(row.proof?.checks.map(({ check }) => check) ?? [])].some(
      (text) => text.toLowerCase().includes(words),
    );
  });
  return sortedRows(fitting, order);
}

/** Number of the check of a proof that is to be looked at first: the failing one that is decided first, else none. */
export function firstMissed(proof: Proof | null): number | null {
  if (proof === null) return null;
  let first: number | null = null;
  proof.checks.forEach(({ verdict, frame }, i) => {
    if (verdict !== "pass" && (first === null || frame < proof.checks[first]!.frame)) first = i;
  });
  return first;
}

/** The board of logs: which are shown, which is chosen. */
export class ProofBoard {
  readonly store = createStore<BoardState>(() => ({
    filter: "all",
    sought: "",
    check: null,
    chosen: new Set(),
    beside: "log",
    sort: "holds",
    descending: false,
    byTag: false,
  }));

  constructor(
    private readonly proofs: Proofs,
    private readonly shownLog: ShownLog,
    private readonly benchStore: BenchStore,
    private readonly playing: Playing,
    private readonly project: ProjectSession,
    private readonly recordings: RecordingImport,
    private readonly ownGame: OwnGame,
  ) {}

  /** Shows a log of the board, at the frame that breaks it. */
  readonly chooseRow = (log: string): void => {
    const proof = this.proofs.store.getState().proofs.get(log) ?? null;
    const check = firstMissed(proof);
    this.store.setState({ check, beside: "log", chosen: new Set() });
    this.shownLog.selectLog(log, check === null ? (proof?.frames ?? 0) : proof!.checks[check]!.frame);
  };

  /** Adds a log to those that are chosen together, or takes it out again. */
  readonly alsoChoose = (log: string): void => {
    const chosen = new Set(this.togetherNow());
    if (!chosen.delete(log)) chosen.add(log);
    this.store.setState({ chosen });
  };

  /** Chooses all rows from the shown log's to that one. */
  readonly chooseTo = (log: string): void => {
    const rows = this.rowsInOrder();
    const [from, to] = [this.benchStore.getState().log, log].map((id) => rows.indexOf(id ?? "")) as [number, number];
    if (from < 0 || to < 0) this.chooseRow(log);
    else this.store.setState({ chosen: new Set(rows.slice(Math.min(from, to), Math.max(from, to) + 1)) });
  };

  /** Chooses all rows that are shown. */
  readonly chooseAll = (): void => {
    this.store.setState({ chosen: new Set(this.rowsInOrder()), beside: "log" });
  };

  /** Chooses the shown log alone. */
  readonly chooseNone = (): void => {
    this.store.setState({ chosen: new Set() });
  };

  /** Sorts the rows by a column; by the one that they are sorted by already the other way round. */
  readonly sortBy = (sort: Sort): void => {
    this.store.setState((state) => ({ sort, descending: state.sort === sort && !state.descending }));
  };

  /** Puts rows with the same tag together, or no longer. */
  readonly toggleByTag = (): void => {
    this.store.setState(({ byTag }) => ({ byTag: !byTag }));
  };

  private togetherNow(): Iterable<string> {
    const { chosen } = this.store.getState();
    const { log } = this.benchStore.getState();
    return chosen.size > 0 || log === null ? chosen : [log];
  }

  /** The logs from the top of the board to its end; one with several tags once. */
  private rowsInOrder(): string[] {
    const { project } = this.project.store.getState();
    if (project === null) return [];
    const state = this.store.getState();
    const rows = shownRows(boardRows(project, this.proofs.store.getState()), state);
    return [...new Set(boardItems(rows, state).flatMap((item) => (item.kind === "row" ? [item.row.log] : [])))];
  }

  /** Looks at one check of the shown log, at the frame that decides it. */
  readonly chooseCheck = (check: number): void => {
    const { log } = this.benchStore.getState();
    const verdict = log === null ? undefined : this.proofs.store.getState().proofs.get(log)?.checks[check];
    if (verdict === undefined) return;
    this.store.setState({ check });
    this.playing.pause();
    this.playing.showFrame(verdict.frame);
  };

  /** Goes through the rows that are shown; `by` is how many, infinite for the first or last. */
  readonly stepRow = (by: number): void => {
    const rows = this.rowsInOrder();
    if (rows.length === 0) return;
    const at = rows.indexOf(this.benchStore.getState().log ?? "");
    const next = at < 0 ? 0 : Math.max(0, Math.min(rows.length - 1, at + by));
    if (next !== at) this.chooseRow(rows[next]!);
  };

  /** Goes through the checks of the shown log. */
  readonly stepCheck = (by: 1 | -1): void => {
    const { log } = this.benchStore.getState();
    const checks = log === null ? [] : (this.proofs.store.getState().proofs.get(log)?.checks ?? []);
    if (checks.length === 0) return;
    const { check } = this.store.getState();
    this.chooseCheck(
      check === null ? (by > 0 ? 0 : checks.length - 1) : Math.max(0, Math.min(checks.length - 1, check + by)),
    );
  };

  readonly chooseFilter = (filter: BoardFilter): void => {
    this.store.setState({ filter });
  };

  /**
   * Takes log files in, all of them or none: input logs, and recordings of what was pressed. The walk of a game that the
   * world knows is laid beside its log; of a recording that nothing says how to read it is asked.
   */
  readonly takeLogsIn = async (files: readonly File[]): Promise<void> => {
    const { project } = this.project.store.getState();
    if (project === null || files.length === 0) return;
    const stillOpen = this.project.stillOpen();
    const logs = new Map<string, string>();
    const unknown: TakenTable[] = [];
    const traces: (TakenTrace & { readonly log: string | null })[] = [];
    try {
      for (const file of files) {
        const ending = /\.(inputs|csv|tsv|jsonl)$/.exec(file.name)?.[1];
        if (ending === undefined)
          throw new RefusedError(file.name, [
            { place: "", line: null, column: null, message: "its ending is none of .inputs, .csv, .tsv and .jsonl" },
          ]);
        const text = await textOf(file);
        if (!stillOpen()) return;
        const taken: { readonly log: InputLog | null; readonly trace: TakenTrace | null } | TakenTable =
          ending === "inputs"
            ? { log: readLog(text, file.name), trace: null }
            : await this.recordingIn(text, takenFile(file));
        if (!stillOpen()) return;
        if ("columns" in taken) {
          unknown.push(taken);
          continue;
        }
        let id: string | null = null;
        if (taken.log !== null) {
          const made = writeLog(taken.log);
          // A trace that is dropped again is of the same log.
          id =
            (taken.trace !== null ? logWith(project, made) : null) ??
            freeSlug(file.name.slice(0, -ending.length - 1), logs.keys());
          if (project.logs.get(id) !== made || taken.trace === null) logs.set(id, made);
        }
        if (taken.trace !== null) traces.push({ ...taken.trace, log: id });
      }
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.project.notice(
        `${error.message}. ${files.length > 1 ? "None of the files was taken in" : "It was not taken in"}.`,
      );
      return;
    }
    const [first] = unknown;
    if (first !== undefined) await this.recordings.begin(first.file, first.table);
    await this.keepTaken(logs, traces);
  };

  private readonly keepTaken = async (
    logs: ReadonlyMap<string, string>,
    traces: readonly (TakenTrace & { readonly log: string | null })[],
  ): Promise<void> => {
    if (logs.size > 0 && !this.project.change((now) => ({ ...now, logs: new Map([...now.logs, ...logs]) }))) return;
    const ids = [...logs.keys()];
    if (ids.length > 0)
      this.project.notice(
        `${ids.length === 1 ? "1 log" : `${ids.length} logs`} taken in: ${ids.slice(0, 6).join(", ")}${ids.length > 6 ? " ..." : ""}. Undo takes ${ids.length === 1 ? "it" : "them"} out again.`,
        "info",
      );
    for (const trace of traces) {
      const log = trace.log ?? this.benchStore.getState().log;
      if (log === null)
        this.project.notice(`${trace.file.name} says nothing of keys: choose the log that it walks first.`);
      else await this.ownGame.take(log, trace);
    }
    const shown = traces.filter(({ log }) => log !== null).at(-1)?.log ?? ids[0];
    if (shown !== undefined && shown !== this.benchStore.getState().log) this.chooseRow(shown);
  };

  /** A recording as a log and as a walk; its table where neither its columns nor a game of the world say how it is to be read. */
  private readonly recordingIn = async (
    text: string,
    file: TakenFile,
  ): Promise<{ readonly log: InputLog | null; readonly trace: TakenTrace | null } | TakenTable> => {
    const { gameLog, gameOf, gameOfTrace, gameTrace, logOfTable, readGameTable } =
      await import("@keen-pebble/core/reading");
    const table = readGameTable(text, file.name);
    const { world } = this.project.store.getState().project!;
    const game = gameOfTrace(world.games, table);
    if (game === null) {
      const log = logOfTable(table, world.games, file.name);
      return log === null ? { file, table, columns: table.columns } : { log, trace: null };
    }
    gameTrace(table, game, world, rulesById(world, world.activeRules)!, file.name);
    const log = gameOf([game], table) === null ? null : gameLog(table, game, file.name);
    return { log, trace: { file, table, game } };
  };
}

/** A table that nothing says how to read. */
interface TakenTable extends Pick<TakenTrace, "file" | "table"> {
  readonly columns: readonly string[];
}

/** The log of the world that presses the same, whatever else it says; null for none. */
function logWith({ logs }: Project, text: string): string | null {
  const pressed = (each: string): string => each.slice(each.indexOf("\n---\n"));
  return [...logs].find(([, each]) => pressed(each) === pressed(text))?.[0] ?? null;
}
