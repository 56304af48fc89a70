import type { RunStart } from "../simulation/run-start.ts";
import type { Check } from "../checks/check.ts";
import type { Condition } from "../checks/condition.ts";

/** A pointer position in px of the room, decimals allowed. */
export interface Pointer {
  readonly x: number;
  readonly y: number;
}

/** One line of a log's body: buttons held for a number of frames, or a comment that is kept on re-saving. */
export type LogLine =
  | {
      readonly kind: "keys";
      /** 1 to 1,000,000 frames; with `until` at most that many. */
      readonly count: number;
      /** Bits of `world/keys.ts`. */
      readonly keys: number;
      readonly pointer: Pointer | null;
      readonly until: Condition | null;
    }
  | { readonly kind: "comment"; readonly text: string };

/** An input log: what was pressed, where it began, and what must hold (formats.md section 2). A value. */
export interface InputLog extends RunStart {
  readonly world: string | null;
  readonly rules: string | null;
  readonly seed: number | null;
  readonly title: string | null;
  readonly tags: readonly string[];
  readonly notes: readonly string[];
  /** Fingerprint of the run that was accepted. */
  readonly accept: string | null;
  readonly checks: readonly Check[];
  readonly lines: readonly LogLine[];
}

/** The most frames that a log may have in all. */
export const MOST_FRAMES = 10_000_000;

/** The most lines, comments too. */
export const MOST_LINES = 2_000_000;

/** The most that frames times checks may be: a run looks at each check in each frame, and somebody waits for it. */
export const MOST_CHECKED = 200_000_000;

/** The most frames that a line may have. */
export const MOST_LINE_FRAMES = 1_000_000;

/** A log with nothing in it. */
export const EMPTY_LOG: InputLog = {
  world: null,
  rules: null,
  start: null,
  with: [],
  seed: null,
  title: null,
  tags: [],
  notes: [],
  accept: null,
  checks: [],
  lines: [],
};

/** Frames of the log if no `until` ends a line early. */
export function logFrames(log: InputLog): number {
  let frames = 0;
  for (const line of log.lines) if (line.kind === "keys") frames += line.count;
  return frames;
}
