import type { InputLog } from "../logs/input-log.ts";
import { logFrames } from "../logs/input-log.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { SimState } from "../compiled/state.ts";

/** Where a run stands: the state after a frame, and what of the log is still to be pressed. */
export interface KeyFrame {
  readonly state: SimState;
  /** Place of the line in the log, and how many of its frames are left. */
  readonly line: number;
  readonly left: number;
}

const LEAST_APART = 1024;
const MOST_KEPT = 256;

/**
 * States of a run at regular distances: a frame is explained from the nearest one before it instead of from the start,
 * so that a log of a million frames is looked at as quickly as a short one.
 */
export class KeyFrames {
  /** Frames between two. */
  readonly apart: number;
  private readonly kept: KeyFrame[] = [];

  constructor(
    private readonly c: Compiled,
    log: InputLog,
    leastApart: number = LEAST_APART,
  ) {
    this.apart = Math.max(leastApart, Math.ceil(logFrames(log) / MOST_KEPT));
  }

  /** Takes the run's state down; its frame is one to be kept. */
  see(state: SimState, line: number, left: number): void {
    const copy = new SimState(this.c);
    copy.copyFrom(state);
    this.kept.push({ state: copy, line, left });
  }

  /** The last one before a frame; null where the run's start is nearer. */
  before(frame: number): KeyFrame | null {
    const at = Math.min(this.kept.length, Math.ceil(frame / this.apart) - 1) - 1;
    return this.kept[at] ?? null;
  }
}
