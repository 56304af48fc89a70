import type { Account } from "../../compiled/account.ts";
import type { Ground } from "../../ground/ground.ts";
import type { SingleChange } from "../fixes/single-change.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { FrameBegin } from "../../replay/run.ts";
import type { SimState } from "../../compiled/state.ts";

/** The mistakes that are told from a run: what goes wrong in job.md's table. */
export type MistakeKind =
  | "unasked flag"
  | "flush sticking"
  | "gap before the wall"
  | "sinking in"
  | "missed corner"
  | "jump through a wall"
  | "faster diagonals"
  | "faster slope"
  | "facing reset"
  | "lost turn"
  | "speed that does not fit";

/** A mistake that is at work in one log: true of it, and gone when the setting that it names is cured. */
export interface LogFinding {
  readonly kind: MistakeKind;
  /** The setting that it comes from: a path of a rule set. */
  readonly path: string;
  /** The first frame that shows it, and how many do. */
  readonly frame: number;
  readonly frames: number;
  /** One line with its number. */
  readonly text: string;
  /** Changes that take it away; whether the log's checks then hold is for the search to say. */
  readonly cures: readonly SingleChange[];
}

/** One frame of a run as a mistake's watch sees it. */
export interface SeenFrame {
  readonly c: Compiled;
  /** After the frame; where it was before is in `rowRoom`, `rowX`, `rowY`. */
  readonly s: SimState;
  readonly account: Account;
  readonly began: FrameBegin;
  /** What blocked when the frame began. */
  readonly ground: Ground;
}

/** Watches a run for one kind of mistake. */
export interface MistakeWatch {
  see(frame: SeenFrame): void;
  /** What was found, in no special order. */
  findings(): readonly LogFinding[];
}

/** Counts the frames that show a mistake, and remembers the first. */
export class Tally {
  frame = 0;
  frames = 0;

  add(frame: number): boolean {
    if (this.frames++ > 0) return false;
    this.frame = frame;
    return true;
  }
}

/** Units as px with at most two decimals. */
export function roundPx(units: number): string {
  return String(Math.round((units / 256) * 100) / 100);
}

/** `in frame 12` or `in 7 frames, first in frame 12`. */
export function whenText({ frame, frames }: Tally): string {
  return frames === 1 ? `in frame ${frame}` : `in ${frames} frames, first in frame ${frame}`;
}

/** The body of the whole frame-square. */
export const wholeBody = (c: Compiled): SingleChange => ({
  path: "walker.body",
  value: { kind: "box", box: [0, 0, c.world.tileSize, c.world.tileSize], flush: "free" },
});
