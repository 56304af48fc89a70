import type { FieldsOf } from "./field.ts";
import type { Pair } from "./world.ts";

/** What a `with` line of a log can set up of a fixture, by the word of that line. */
export type SetUp = "taken" | "open" | "respawn";

/**
 * All about one kind of fixture but what it does in a run: its fields, its words, what becomes of it when it is placed.
 * One file each in `fixtures/`; what it does says its file in `rooms/kinds`, how it looks its file in the page.
 */
export interface FixtureKind<F> {
  /** What it is called. */
  readonly label: string;
  readonly fields: FieldsOf<F>;
  /** Names of the events that are of it. */
  readonly events: readonly string[];
  /** Something of the world that it cannot be without. */
  readonly needs: "item" | "circuit" | null;
  /** How the ids of new ones begin, by the item or circuit that they are about: a bead is `bead-1`. */
  readonly stem: (about: string | null) => string;
  /** The fields of a new one in that place, about an item or circuit: one that it needs, or that it may ask for. */
  readonly place: (about: string | null, room: string, cell: Pair) => F;
  /** Whether one at the most stands in a cell. */
  readonly alone: boolean;
  /** Whether `touch` says when it is touched. */
  readonly touched: boolean;
  /** Whether what `keeps` says brings it back to its first state. */
  readonly returns: (fixture: F) => boolean;
  /** What of it a log can set up before row 0; null for nothing. */
  readonly setUp: (fixture: F) => SetUp | null;
  /** The item that it gives or asks for, or null. */
  readonly item: (fixture: F) => string | null;
}

/** What most kinds are: touched, several in a cell, with no state of their own. */
export const PLAIN_FIXTURE = {
  needs: null,
  alone: false,
  touched: true,
  returns: () => false,
  setUp: () => null,
  item: () => null,
} as const;
