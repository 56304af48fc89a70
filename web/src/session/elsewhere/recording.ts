import type {
  CsvTable,
  buttonCalled,
  gameLog,
  gameTrace,
  guessGame,
  hasPlaces,
  keysIn,
} from "@keen-pebble/core/reading";
import type { GameTrace } from "@keen-pebble/core/formats";
import { guessPlacing, roomsCalled } from "@keen-pebble/core/analyse";
import type { InputLog } from "@keen-pebble/core/check";
import { logFrames } from "@keen-pebble/core/check";
import { freeId } from "@keen-pebble/core/edit";
import { compile, run } from "@keen-pebble/core/simulate";
import { EMPTY_LOG, writeLog } from "@keen-pebble/core/check";
import type { Button, Game, World } from "@keen-pebble/core/world";
import { LIMITS, RefusedError, rulesById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
import type { ProjectSession } from "../project/project.ts";
import type { OwnGame } from "./own-game.ts";
import type { TakenFile } from "./taken-file.ts";

/** What a column of a recording says: nothing that counts, the frame, where the walker is, all keys, or one of them. */
export type ColumnRole = "" | PlaceRole | "keys" | Button;
type PlaceRole = (typeof PLACE_ROLES)[number];
const PLACE_ROLES = ["frame", "x", "y", "room"] as const;

/** What comes of a recording: what was pressed, where the walker was, or both. */
export interface ReadRecording {
  readonly log: InputLog | null;
  readonly frames: number;
  readonly trace: GameTrace | null;
}

/** A recording that is being brought in: what it is, how it is to be read, and what comes of it so. */
export interface BroughtRecording {
  readonly file: TakenFile;
  readonly table: CsvTable;
  readonly game: Game;
  /** Names of keys that the column with all of them holds; bits by their numbers. */
  readonly names: readonly string[];
  /** What the column of rooms calls them. */
  readonly rooms: readonly string[];
  /** What comes of it, or why nothing does. */
  readonly read: ReadRecording | { readonly refused: string };
}

/** What reads recordings: it comes with the first one. */
interface Reading {
  readonly buttonCalled: typeof buttonCalled;
  readonly gameLog: typeof gameLog;
  readonly gameTrace: typeof gameTrace;
  readonly guessGame: typeof guessGame;
  readonly hasPlaces: typeof hasPlaces;
  readonly keysIn: typeof keysIn;
}

/** Brings in what a game wrote down, where neither our own columns nor a game of the world say how it is to be read. */
export class RecordingImport {
  readonly store = createStore<{ readonly open: BroughtRecording | null }>(() => ({ open: null }));
  private reading: Reading | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly ownGame: OwnGame,
  ) {}

  /** Shows a recording with a guess at what its columns are, and at what its places mean. */
  readonly begin = async (file: TakenFile, table: CsvTable): Promise<void> => {
    const reading = await import("@keen-pebble/core/reading");
    this.reading = reading;
    const world = this.project.store.getState().project?.world;
    if (world === undefined) return;
    const id = freeId(
      "my-game",
      world.games.map((each) => each.id),
    );
    const name = world.games.length === 0 ? "My game" : `My game ${world.games.length + 1}`;
    const game = reading.guessGame(table, id, name);
    this.show(file, table, reading.hasPlaces(game) ? this.placed(table, game, world) : game);
  };

  /** Guesses what places mean from a run of the same keys, or of none. */
  private readonly placed = (table: CsvTable, game: Game, world: World): Game => {
    const rules = rulesById(world, world.activeRules)!;
    const c = compile(world);
    return guessPlacing(table, game, world, rules, (tried) => {
      const log = orRefused(() => (tried.columns.keys === null ? EMPTY_LOG : this.reading!.gameLog(table, tried)));
      return run(c, "refused" in log ? EMPTY_LOG : log, { rows: true }).rows!;
    });
  };

  private readonly show = (file: TakenFile, table: CsvTable, game: Game): void => {
    const { keysIn } = this.reading!;
    const { keys } = game.columns;
    const names = typeof keys === "string" ? keysIn(table, keys) : [];
    const read = orRefused(() => this.readAs(file, table, game));
    this.store.setState({ open: { file, table, game, names, rooms: roomsCalled(table, game), read } });
  };

  private readonly readAs = (file: TakenFile, table: CsvTable, game: Game): ReadRecording => {
    const { gameLog, gameTrace, hasPlaces } = this.reading!;
    const { world } = this.project.store.getState().project!;
    const isTrace = hasPlaces(game);
    // A trace alone says nothing of keys, and need not.
    const log = isTrace && game.columns.keys === null ? null : gameLog(table, game, file.name);
    const trace = isTrace ? gameTrace(table, game, world, rulesById(world, world.activeRules)!, file.name) : null;
    const last = trace === null ? 0 : (trace.frames[trace.count - 1] ?? 0);
    return { log, frames: log === null ? last : logFrames(log), trace };
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

  /** Answers what the columns cannot say: unit, which way y grows, what a position names, where it is counted from. */
  readonly answer = (
    answers: Partial<Pick<Game, "unit" | "yUp" | "anchor" | "origin" | "frameOffset" | "tolerance">>,
  ): void => this.change((game) => ({ ...game, ...answers }));

  /** Says which room of the world a name in the column of rooms is; null for none. */
  readonly setRoom = (called: string, room: string | null): void => {
    this.change((game) => {
      const rooms = new Map(Object.entries(game.rooms));
      if (room === null) rooms.delete(called);
      else rooms.set(called, room);
      return { ...game, rooms: Object.fromEntries(rooms) };
    });
  };

  /** What a column says now. */
  readonly roleOf = ({ columns }: Game, column: string): ColumnRole => {
    const place = PLACE_ROLES.find((role) => columns[role] === column);
    if (place !== undefined) return place;
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
      const { keys } = game.columns;
      const others = new Map(typeof keys === "string" || keys === null ? [] : Object.entries(keys));
      others.delete(column);
      if (isButton(role)) {
        for (const [other, button] of others) if (button === role) others.delete(other);
        others.set(column, role);
      }
      const left = typeof keys === "string" && keys !== column && others.size === 0 ? keys : Object.fromEntries(others);
      const columns = {
        ...game.columns,
        ...Object.fromEntries(
          PLACE_ROLES.map((place) => {
            const present = game.columns[place];
            return [place, role === place ? column : present === column ? null : present];
          }),
        ),
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

  /**
   * Keeps how it was read as a game of the world, for the next one; what was pressed as a log; and lays the walk beside
   * that log, or beside the shown one. Gives the log's id.
   */
  readonly make = (shown: string | null): string | null => {
    const { open } = this.store.getState();
    const { project } = this.project.store.getState();
    if (open === null || project === null || "refused" in open.read) return null;
    if (project.world.games.length >= LIMITS.games) {
      this.project.notice(`A world knows at most ${LIMITS.games} games.`);
      return null;
    }
    const { file, table, game, read } = open;
    const text = read.log === null ? null : writeLog(read.log);
    const id = text === null ? shown : freeSlug(file.name.replace(/\.[a-z]+$/i, ""), project.logs.keys());
    const made = this.project.change((now) => ({
      world: { ...now.world, games: [...now.world.games, game] },
      logs: text === null ? now.logs : new Map(now.logs).set(id!, text),
    }));
    if (!made) return null;
    this.close();
    if (read.trace !== null && id !== null) void this.ownGame.take(id, { file, table, game });
    this.project.notice(
      text === null
        ? "Its walk lies beside the log. Traces with these columns are read so from now on."
        : `${read.frames} frames taken in as ${id}. Recordings with these columns are read so from now on.`,
      "info",
    );
    return id;
  };
}

function isButton(role: ColumnRole): role is Button {
  return role !== "" && role !== "keys" && !(PLACE_ROLES as readonly string[]).includes(role);
}

/** What the core refuses as an answer; anything else is a fault and stays one. */
function orRefused<T extends object>(act: () => T): T | { readonly refused: string } {
  try {
    return act();
  } catch (error) {
    if (error instanceof RefusedError) return { refused: error.message };
    throw error;
  }
}
