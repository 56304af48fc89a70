import type { Check, InputLog } from "@keen-pebble/core/check";
import type { FixtureKindName, Pair } from "@keen-pebble/core/world";
import type { Explanation, TraceRows } from "@keen-pebble/core/simulate";
import { createStore } from "zustand/vanilla";
import type { Cell, Rect } from "./paint-cells.ts";
import type { Piece } from "./piece.ts";
import type { GameGhost } from "../elsewhere/own-game.ts";
import type { Elsewhere, RunAnswer } from "../../workers/simulation.ts";

/** The run of the selected log, as it stands after the last change. */
export interface ShownRun extends RunAnswer {
  readonly log: string;
  /** When the change was made that it follows, by the page's clock; null for a log that was chosen. */
  readonly changedAt: number | null;
}

/** The shown log's run elsewhere: under another rule set, or as it was at an earlier revision. */
export interface Beside {
  readonly where: Elsewhere;
  /** What it is called. */
  readonly name: string;
  /** The log's text there: a revision may have had another one. */
  readonly text: string | null;
  readonly rows: TraceRows | null;
  /** The first frame in which the two runs differ; null where they do not. */
  readonly differs: number | null;
  /** What the shown frame is there. */
  readonly explanation: Explanation | null;
}

/** Live play: under way, or stopped and offered to be kept. */
interface WalkState {
  readonly phase: "walking" | "offered";
  readonly room: number;
  readonly rows: TraceRows;
  readonly log: InputLog;
  /** The log that it goes on from, or null for one of its own. */
  readonly onto: string | null;
}

/** Live play that stopped, replayed under the rules as they are at its end, and offered to be kept. */
export interface OfferedWalk extends WalkState {
  readonly phase: "offered";
  /** Checks that hold in it. */
  readonly checks: readonly Check[];
  /** The first frame that differs from what was seen: settings changed while it was walked. Null where none does. */
  readonly differs: number | null;
}

export const OVERLAYS = ["grid", "solid", "body", "velocity", "trail", "ghost", "camera", "clearance"] as const;
export type Overlay = (typeof OVERLAYS)[number];
export type Tool = "look" | "walk" | "paint" | "place" | "wall";

/** How a wall is drawn: a straight rectangle, one along a line, corner by corner. */
export const WALL_WAYS = ["straight", "turned", "corners"] as const;
export type WallWay = (typeof WALL_WAYS)[number];

/** A wall that is drawn in px of the shown room. */
export interface WallPen {
  readonly way: WallWay;
  /** Px across, of one that is drawn along a line. */
  readonly thickness: number;
  /** The pointer goes to the nearest multiple of so many px. */
  readonly snap: number;
  /** What was set so far: where the drag began, or all corners. */
  readonly corners: readonly Pair[];
  /** Where the pointer is; null outside. */
  readonly to: Pair | null;
  /** What the last one became. */
  readonly laid: string;
}

/** Ways to paint. */
export const PENS = ["brush", "line", "box", "bucket", "erase", "select"] as const;
export type Pen = (typeof PENS)[number];
export const LARGEST_BRUSH = 9;

/** How many fixtures one stroke places: one, one in each cell that it crosses, a line, a box. */
export const SPREADS = ["one", "brush", "line", "box"] as const;
export type Spread = (typeof SPREADS)[number];

export const KIT_TABS = ["tiles", "fixtures", "actors", "bag", "room", "world", "feel", "game"] as const;
export type KitTab = (typeof KIT_TABS)[number];

/** What the Bench shows: a view of the project that is never saved. */
export interface BenchState {
  readonly room: string;
  readonly log: string | null;
  readonly parsed: InputLog | null;
  readonly frame: number;
  readonly playing: boolean;
  /** Frames shown a frame: 1 is the world's frame rate. */
  readonly rate: number;
  readonly tool: Tool;
  readonly pen: Pen;
  /** The kind of fixture that Place lays, or null to choose and move only; and the chosen fixtures. */
  readonly placing: FixtureKindName | null;
  /** The item or circuit that the next ones are about; null for the world's first. */
  readonly about: string | null;
  readonly spread: Spread;
  readonly wall: WallPen;
  readonly fixtures: readonly string[];
  /** The chosen actor; what a click does while the Kit shows actors, and of which phase a path is drawn. */
  readonly actor: string | null;
  readonly actorPen: "choose" | "place" | "path";
  readonly path: number;
  /** Cells along a side of the brush, 1 to `LARGEST_BRUSH`. */
  readonly brush: number;
  /** The box paints its frame alone. */
  readonly boxFrame: boolean;
  /** Id of the tile to paint with, and all tiles that are chosen in the Kit. */
  readonly tile: string;
  readonly chosenTiles: readonly string[];
  /** Line, box or rectangle under way. */
  readonly drag: { readonly from: Cell; readonly to: Cell } | null;
  /** The chosen rectangle of cells. */
  readonly selection: Rect | null;
  /** What was copied, and whether it is taken up to be laid down. */
  readonly piece: Piece | null;
  readonly laying: boolean;
  readonly overlays: Readonly<Record<Overlay, boolean>>;
  readonly run: ShownRun | null;
  /** Why the selected log cannot be run. */
  readonly refused: string | null;
  readonly ghost: TraceRows | null;
  /** The walk under a change that is looked at, before it is made. */
  readonly preview: TraceRows | null;
  /** The walk of a game of one's own beside the shown log's run. */
  readonly gameGhost: GameGhost | null;
  /** Another run of the shown log that is laid beside. */
  readonly beside: Beside | null;
  readonly explanation: Explanation | null;
  readonly walk: (WalkState & { readonly phase: "walking" }) | OfferedWalk | null;
  /** A walk that was discarded, for as long as nothing was edited since: undo brings it back. */
  readonly discarded: OfferedWalk | null;
  /** Of the shown room: 1 for each cell whose tile is free but in which the body does not fit; null until it is asked for. */
  readonly clearance: { readonly room: string; readonly cells: Uint8Array } | null;
  /** Room pixel under the pointer, or null. */
  readonly pointer: { readonly x: number; readonly y: number } | null;
  /** Whether keys moved it there last, and hold the tool down. */
  readonly cursor: "none" | "shown" | "held";
  /** What the left side shows: the frame's anatomy, the log as a table and as text, or the room as text. */
  readonly side: "anatomy" | "log" | "room";
  readonly kit: KitTab;
  /** The rules as a program stand in place of the field. */
  readonly showsProgram: boolean;
  /** The check that is being written: its text, and which of the log's checks it takes the place of. */
  readonly writing: { readonly text: string; readonly replaces: number | null } | null;
}

export const makeBenchStore = () =>
  createStore<BenchState>(() => ({
    room: "",
    log: null,
    parsed: null,
    frame: 0,
    playing: false,
    rate: 1,
    tool: "paint",
    pen: "brush",
    placing: null,
    about: null,
    spread: "one",
    wall: { way: "turned", thickness: 12, snap: 4, corners: [], to: null, laid: "" },
    fixtures: [],
    actor: null,
    actorPen: "choose",
    path: 0,
    brush: 1,
    boxFrame: false,
    tile: "",
    chosenTiles: [],
    drag: null,
    selection: null,
    piece: null,
    laying: false,
    overlays: {
      grid: false,
      solid: false,
      body: true,
      velocity: false,
      trail: true,
      ghost: true,
      camera: false,
      clearance: false,
    },
    run: null,
    refused: null,
    ghost: null,
    preview: null,
    gameGhost: null,
    beside: null,
    explanation: null,
    walk: null,
    discarded: null,
    clearance: null,
    pointer: null,
    cursor: "none",
    side: "anatomy",
    kit: "tiles",
    showsProgram: false,
    writing: null,
  }));

/** What `makeBenchStore` makes. */
export type BenchStore = ReturnType<typeof makeBenchStore>;
