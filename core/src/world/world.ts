import type { Actor } from "./actors.ts";
import type { Facing } from "./facing.ts";
import type { Fixture } from "./fixtures.ts";
import type { Game } from "./game.ts";
import type { Gait, GaitSettings } from "./gaits.ts";

/** A pair of whole numbers in a file: a cell (column, row), a point or an offset. */
export type Pair = readonly [number, number];

/** `[left, top, width, height]` in px. */
export type Box = readonly [number, number, number, number];

export type Shape =
  | { readonly kind: "full" }
  | { readonly kind: "boxes"; readonly boxes: readonly Box[] }
  | { readonly kind: "poly"; readonly points: readonly Pair[] };

/** How a tile is drawn: a colour, a colour with a pattern of ours, or a place in an image sheet. */
export type Look =
  | { readonly fill: string; readonly pattern?: Pattern }
  | { readonly sheet: string; readonly at: Pair };

/** The patterns that a tile's look may name; the page draws them by code from the look's colour. */
export const PATTERNS = [
  "brick",
  "coping",
  "crust",
  "deep",
  "flagstone",
  "grating",
  "moss",
  "planks",
  "rubble",
  "shallow",
] as const;

export type Pattern = (typeof PATTERNS)[number];

export interface Joins {
  /** `same`, or the flag whose neighbours count. */
  readonly to: string;
  /** 16 looks, chosen by the neighbours: north 1, east 2, south 4, west 8. */
  readonly looks: readonly Look[];
}

export interface Tile {
  readonly id: string;
  readonly name: string;
  readonly flags: readonly string[];
  readonly shape: Shape;
  readonly look: Look;
  readonly joins: Joins | null;
  readonly glyph: string | null;
}

export interface Item {
  readonly id: string;
  readonly name: string;
  readonly role: "key" | "treasure";
  readonly colour: string;
}

export interface Sheet {
  readonly id: string;
  readonly file: string;
  readonly tile: number;
  readonly margin: number;
  readonly spacing: number;
}

export type Body =
  | { readonly kind: "box"; readonly box: Box; readonly flush: "free" | "blocks" }
  | { readonly kind: "probes"; readonly points: readonly Pair[]; readonly flush: "free" | "blocks" };

/** One rule set: everything that decides how the walker moves. Each setting is described in `settings.ts` and `gaits/`. */
export interface Rules extends GaitSettings {
  readonly id: string;
  readonly name: string;
  readonly gait: Gait;
  readonly input: {
    readonly opposites: "cancel" | "latest" | "earliest";
    readonly ways: 4 | 8;
    readonly prefer: "latest" | "horizontal" | "vertical";
  };
  readonly walker: {
    readonly blockedBy: readonly string[];
    readonly body: Body;
    /** When the walker is in the next room: as soon as its centre is, or only when all of it is. */
    readonly crossesAt: "centre" | "whole";
  };
  readonly facing: {
    readonly source: "intent" | "pointer";
    readonly ways: 4 | 8;
    readonly tie: "keep" | "horizontal" | "vertical";
    readonly idle: "keep" | "reset";
    readonly rest: Facing;
  };
  readonly pose: {
    readonly images: number;
    readonly advance: "distance" | "frames" | "off";
    readonly every: number;
    readonly idleImage: number;
    readonly idleAfter: number;
  };
}

export type EdgeRule =
  | { readonly kind: "wall" }
  | { readonly kind: "wrap" }
  | { readonly kind: "link"; readonly room: string; readonly offset: number };

export type Span = EdgeRule & { readonly from: number; readonly to: number };
export type Side = EdgeRule | readonly Span[];

export const SIDES = ["north", "east", "south", "west"] as const;
export type SideName = (typeof SIDES)[number];

export interface Room {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Where the room lies on the floorplan, in cells. */
  readonly plan: Pair;
  readonly edges: Readonly<Record<SideName, Side>>;
  /** Tile numbers, row by row, `width * height` of them. Never written to once the room is made. */
  readonly cells: Uint16Array;
  readonly fixtures: readonly Fixture[];
  /** What moves by itself there. */
  readonly actors: readonly Actor[];
}

export interface Camera {
  readonly mode: "whole" | "screen" | "follow";
  readonly width: number;
  readonly height: number;
  readonly margin: Pair;
  readonly ease: number;
}

export interface Figure {
  readonly sheet: string;
  readonly offset: Pair;
  readonly images: Readonly<Partial<Record<Facing, readonly Pair[]>>>;
}

export type Goal =
  | { readonly kind: "marker"; readonly fixture: string }
  | { readonly kind: "collect"; readonly item: string };

/** What a respawn gives back (semantics.md section 7): what keeps `life`, or how it was at the last checkpoint or in row 0. */
export const RESPAWN_RESTORES = ["keeps", "checkpoint", "start"] as const;
export type RespawnRestores = (typeof RESPAWN_RESTORES)[number];

export interface Start {
  readonly room: string;
  readonly cell: Pair;
  readonly facing: Facing;
}

/** A world: a value that is never changed in place (formats.md section 1). Edits make new ones. */
export interface World {
  readonly id: string;
  readonly name: string;
  readonly tileSize: number;
  readonly frameRate: number;
  readonly seed: number;
  readonly sheets: readonly Sheet[];
  readonly flags: readonly string[];
  readonly tiles: readonly Tile[];
  readonly items: readonly Item[];
  readonly circuits: readonly string[];
  readonly lives: number | null;
  readonly respawnRestores: RespawnRestores;
  readonly rules: readonly Rules[];
  readonly activeRules: string;
  readonly camera: Camera;
  readonly figure: Figure | null;
  readonly start: Start;
  readonly goal: Goal | null;
  readonly laws: readonly string[];
  /** Checks about all play there could be, as texts (`checks/reach-check.ts`). */
  readonly reachChecks: readonly string[];
  /** How the recordings of games are to be read that one compares with. */
  readonly games: readonly Game[];
  readonly rooms: readonly Room[];
}
