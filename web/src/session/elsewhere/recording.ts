import type { CsvTable, buttonCalled, gameLog, guessGame, keysIn } from "@keen-pebble/core/reading";
import type { InputLog } from "@keen-pebble/core/check";
import { logFrames } from "@keen-pebble/core/check";
import { freeId } from "@keen-pebble/core/edit";
import { writeLog } from "@keen-pebble/core/check";
import type { Button, Game } from "@keen-pebble/core/world";
import { LIMITS, RefusedError } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
import type { ProjectSession } from "../project/project.ts";

/** What a column of a recording says: nothing that counts, the frame, all keys, or one of them. */
export type ColumnRole = "" | "frame" | "keys" | Button;

/** A recording that is being brought in: what it is, how it is to be read, and what comes of it so. */
export interface BroughtRecording {
  readonly file: string;
  readonly table: CsvTable;
  readonly game: Game;
  /** Names of keys that the column with all of them holds; bits by their numbers. */
  readonly names: readonly string[];
  /** The log, or why it is none. */
  readonly read: { readonly log: InputLog; readonly frames: number } | { readonly refused: string };
}

/** What reads recordings: it comes with the first one. */
interface Reading {
  readonly buttonCalled: typeof buttonCalled;
  readonly gameLog: typeof gameLog;
  readonly guessGame: typeof guessGame;
  readonly keysIn: typeof keysIn;
}

/** Brings in what a game wrote down, where neither our own columns nor a game of the world say how it is to be read. */
export class RecordingImport {
  readonly store = createStore<{ readonly open: BroughtRecording | null }>(() => ({ open: null }));
  private reading: Reading | null = null;

  constructor(private readonly project: ProjectSession) {}

  /** Shows a recording with a guess at what its columns are. */
  readonly begin = async (file: string, table: CsvTable): Promise<void> => {
    this.reading = await import("@keen-pebble/core/reading");
    const world = this.project.store.getState().project?.world;
    if (world === undefined) return;
    const id = freeId(
      "my-game",
      world.games.map((each) => each.id),
    );
    const name = world.games.length === 0 ? "My game" : `My game ${world.games.length + 1}`;
    this.show(file, table, this.reading.guessGame(table, id, name));
  };

  private readonly show = (file: string, table: CsvTable, game: Game): void => {
    const { gameLog, keysIn } = this.reading!;
    const { keys } = game.columns;
    const names = typeof keys === "string" ? keysIn(table, keys) : [];
    let read: BroughtRecording["read"];
    try {
      const log = gameLog(table, game, file);
      read = { log, frames: logFrames(log) };
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      read = { refused: error.message };
    }
    this.store.setState({ open: { file, table, game, names, read } });
  };

  private readonly change = (how: (game: Game) => Game): void => {
    const { open } = this.store.getState();
    if (open !== null) this.show(open.file, open.table, how(open.game));
  };

  readonly close = (): void => {
    this.store.setState({ open: null });
  };

  /** Calls the game otherwise; it is not read again for that. */
  readonly call = (name: string): void => {
    this.store.setState(({ open }) => ({ open: open && { ...open, game: { ...open.game, name } } }));
  };

  readonly setOffset = (frameOffset: number): void => this.change((game) => ({ ...game, frameOffset }));

  /** What a column says now. */
  readonly roleOf = ({ columns }: Game, column: string): ColumnRole => {
    if (columns.frame === column) return "frame";
    if (columns.keys === column) return "keys";
    return columns.keys !== null && typeof columns.keys !== "string" && Object.hasOwn(columns.keys, column)
      ? columns.keys[column]!
      : "";
  };

  /** Says what a column is; a button that another column had goes over to it. */
  readonly setRole = (column: string, role: ColumnRole): void => {
    const { open } = this.store.getState();
    if (open === null) return;
    const { buttonCalled, keysIn } = this.reading!;
    const called = keysIn(open.table, column).flatMap((name): (readonly [string, Button])[] => {
      const button = buttonCalled(name);
      return button === null ? [] : [[name, button]];
    });
    this.change((game) => {
      const { frame, keys } = game.columns;
      const others = new Map(typeof keys === "string" || keys === null ? [] : Object.entries(keys));
      others.delete(column);
      if (role !== "" && role !== "frame" && role !== "keys") {
        for (const [other, button] of others) if (button === role) others.delete(other);
        others.set(column, role);
      }
      const left = typeof keys === "string" && keys !== column && others.size === 0 ? keys : Object.fromEntries(others);
      const columns = {
        ...game.columns,
        frame: role === "frame" ? column : frame === column ? null : frame,
        keys: role === "keys" ? column : typeof left === "string" || others.size > 0 ? left : null,
      };
      return { ...game, columns, keys: role === "keys" ? Object.fromEntries(called) : game.keys };
    });
  };

  /** Says which button a name of a key is; null for none. */
  readonly setButton = (name: string, button: Button | null): void => {
    this.change((game) => {
      const keys = new Map(Object.entries(game.keys));
      if (button === null) keys.delete(name);
      else keys.set(name, button);
      return { ...game, keys: Object.fromEntries(keys) };
    });
  };

  /** Keeps the recording as a log, and how it was read as a game of the world, for the next one. Gives the log's id. */
  readonly make = (): string | null => {
    const { open } = this.store.getState();
    const { project } = this.project.store.getState();
    if (open === null || project === null || "refused" in open.read) return null;
    if (project.world.games.length >= LIMITS.games) {
      this.project.notice(`A world knows at most ${LIMITS.games} games.`);
      return null;
    }
    const id = freeSlug(open.file.replace(/\.[a-z]+$/i, ""), project.logs.keys());
    const text = writeLog(open.read.log);
    const made = this.project.change((now) => ({
      world: { ...now.world, games: [...now.world.games, open.game] },
      logs: new Map(now.logs).set(id, text),
    }));
    if (!made) return null;
    this.close();
    this.project.notice(
      `${open.read.frames} frames taken in as ${id}. Recordings with these columns are read so from now on.`,
      "info",
    );
    return id;
  };
}
