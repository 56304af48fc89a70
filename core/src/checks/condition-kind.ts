import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { EventName } from "../world/vocabulary.ts";
import type { Pair, World } from "../world/world.ts";
import type { When } from "./when.ts";

/** Answers for the row that a state stands for. Allocates nothing. */
export type Holds = (s: SimState) => boolean;

/** Of what the world does not have, nothing holds. */
export const NEVER_HOLDS: Holds = () => false;

/** What may stand at one place of a check: some words, or a number. */
export interface Expected {
  readonly words: readonly string[];
  readonly number: "whole" | "decimal" | null;
  /** The smallest whole number that may stand there. */
  readonly min: number;
  /** What it is, for a sentence: `a room`. */
  readonly name: string;
}

export const NOTHING_MORE: Expected = { words: [], number: null, min: 0, name: "the end" };

/** Some words are expected. */
export const oneOf = (name: string, words: readonly string[]): Expected => ({ words, number: null, min: 0, name });

/** A whole number from `min` on is expected, or a decimal one. */
export const aNumber = (name: string, kind: "whole" | "decimal" = "whole", min = 0): Expected => ({
  words: [],
  number: kind,
  min,
  name,
});

/** What becomes of what checks, `until` lines and `with` lines name when a world changes as a whole. */
export interface ReferenceChange {
  /** A room's or fixture's id afterwards; null: it is gone. */
  readonly room: (id: string) => string | null;
  readonly fixture: (id: string) => string | null;
  /** Where a cell is afterwards; a room of null stands for whichever the walker is in. */
  readonly cell: (room: string | null, cell: Pair) => Pair;
  /** Where a position in px is afterwards, in whichever room. */
  readonly pixel: (at: Pair) => Pair;
}

/** Something that happened in a frame: the event, and the id of the fixture or room that it is of; null: of nothing. */
export interface FrameEvent {
  readonly event: EventName;
  readonly subject: string | null;
}

/**
 * All about one kind of condition, the WHAT of a check and of an `until` (formats.md section 2): its words, what it
 * names, when it holds, what was seen instead, and what of it is offered for a frame. One file each in `conditions/`.
 */
export interface ConditionKind<C> {
  /** How it is written, for error messages and completion. */
  readonly form: string;
  /** Reads the words behind the first; null where they are none of this kind. */
  readonly parse: (words: readonly string[]) => C | null;
  /** The whole as text, words parted by single blanks. */
  readonly text: (condition: C) => string;
  /** What may stand behind these words, the first one left out; they are in order themselves. */
  readonly expected: (world: World, words: readonly string[]) => Expected;
  /** Says which id the world does not have, or null: such a check is a failed one. */
  readonly dangling: (world: World, condition: C) => string | null;
  /** The same of a changed world; null where it has lost what it was about. */
  readonly follow: (condition: C, change: ReferenceChange) => C | null;
  /** Makes the question that is asked of every row. */
  readonly compile: (c: Compiled, condition: C) => Holds;
  /** What there was in a row, in the same words: the `seen` of a failed check. */
  readonly seen: (c: Compiled, condition: C, s: SimState) => string;
  /** What can be said of a frame in such words, the state being as it is after that frame (interface.md, pebble line). */
  readonly trueIn: (c: Compiled, s: SimState) => readonly C[];
  /** When that is said to hold: at that frame, by it, at the end, or in every frame or none. */
  readonly offeredWhen: When["kind"];
  /** Says an event that this kind has better words for than `event`; null for others. */
  readonly ofEvent: (happened: FrameEvent, s: SimState) => C | null;
}

/** What a kind need not say: it names nothing, is not offered, and says no event. */
export const PLAIN_CONDITION = {
  expected: () => NOTHING_MORE,
  dangling: () => null,
  follow: <C>(condition: C): C => condition,
  trueIn: () => [],
  offeredWhen: "at",
  ofEvent: () => null,
} as const;
