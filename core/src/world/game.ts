import type { Pair } from "./world.ts";

/** What a game's position names: a corner or the centre of the frame-square, or of the body. */
export const ANCHORS = ["corner", "centre", "body-corner", "body-centre"] as const;
export const GAME_UNITS = ["px", "units", "cells"] as const;

/** The buttons that a game's keys may stand for, as a log writes them. */
export const BUTTONS = ["L", "R", "U", "D", "A", "B"] as const;
export type Button = (typeof BUTTONS)[number];

/** How what a game of one's own writes down is to be read (formats.md section 9). */
export interface Game {
  readonly id: string;
  readonly name: string;
  readonly columns: {
    /** Null: a row a frame. */
    readonly frame: string | null;
    /** Null, both: it says nothing of places, only what was pressed. */
    readonly x: string | null;
    readonly y: string | null;
    /** Null: one room. */
    readonly room: string | null;
    /** One column with names or a number, or a column a key: its button by the column's name. Null: none. */
    readonly keys: string | Readonly<Record<string, Button>> | null;
  };
  readonly unit: (typeof GAME_UNITS)[number];
  readonly yUp: boolean;
  readonly anchor: (typeof ANCHORS)[number];
  /** Added to a position first, in the file's unit. */
  readonly origin: Pair;
  /** Added to the file's frame number; frame 1 is the first step. */
  readonly frameOffset: number;
  /** In px. */
  readonly tolerance: number;
  /** Rooms by what the game calls them. */
  readonly rooms: Readonly<Record<string, string>>;
  /** Buttons by the game's names; names that are numbers are bits of a number. */
  readonly keys: Readonly<Record<string, Button>>;
}

/** What a name in a game's file looks like: nothing that every object has, so that it may be a key of one. */
export const GAME_NAME_PATTERN = /^(?!__proto__$)[^\u0000-\u001f\u007f]{1,80}$/;

/** What a game is but for its columns, where nothing else is known. */
export const PLAIN_GAME = {
  unit: "px",
  yUp: false,
  anchor: "corner",
  origin: [0, 0],
  frameOffset: 0,
  tolerance: 0.5,
  rooms: {},
  keys: {},
} as const satisfies Omit<Game, "id" | "name" | "columns">;
