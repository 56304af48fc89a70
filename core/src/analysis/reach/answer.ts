import type { LogLine } from "../../logs/input-log.ts";
import type { Gait } from "../../world/gaits.ts";

/** Never, proved; and neither known nor proved (formats.md section 5). Any other number is that of a witness's moves or frames. */
export const NEVER = -1;
export const UNDECIDED = -2;

/** A play that shows something: its moves, or its frames where those are counted, and the log lines that play it. */
export interface Way {
  readonly moves: number;
  /** The frames with which its moves end; null where frames are counted. */
  readonly ends: readonly number[] | null;
  readonly lines: readonly LogLine[];
}

/** The way to where one is already. */
export const HERE: Way = { moves: 0, ends: [], lines: [] };

/** A class of stuck states and the nearest way into it. */
export interface StuckWay extends Way {
  readonly taken: readonly string[];
  readonly open: readonly string[];
  readonly on: readonly string[];
}

/** An item fixture that can be lost for good, and the nearest way to lose it. */
export interface LosableWay extends Way {
  readonly fixture: string;
}

/** What can be reached in a world under a rule set, from a start (semantics.md section 10). A value. */
export interface ReachAnswer {
  readonly gait: Gait;
  readonly unit: "moves" | "frames";
  /** Nothing is open. */
  readonly exhaustive: boolean;
  /** Every number is the smallest there is. */
  readonly shortest: boolean;
  /** How many states were looked at. */
  readonly states: number;
  /** By room, in its cells' order: the number of moves, `NEVER` or `UNDECIDED`. */
  readonly first: readonly Int32Array[];
  /** By fixture in file order, likewise. */
  readonly fixtures: Int32Array;
  /** Null where the search was not exhaustive, or play may rest where it never looks. */
  readonly losable: readonly LosableWay[] | null;
  readonly alignment: { readonly verdict: "proved" | "broken" | "open"; readonly way: Way | null };
  /** Null without a goal. */
  readonly goal: number | null;
  /** Null without a goal; empty where it cannot be reached. */
  readonly stuck: { readonly states: number; readonly classes: readonly StuckWay[] } | null;
  /** Claims that no log of ours arrives at, in words. */
  readonly unconfirmed: readonly string[];
}
