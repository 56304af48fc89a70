import type { Holds } from "../checks/condition-kind.ts";
import type { Verdict } from "../checks/verdict.ts";
import { Watch } from "../checks/verdict.ts";
import { invariantChecks } from "../checks/invariants.ts";
import { compileCondition, conditionText, seenText } from "../checks/condition.ts";
import { unitsFromPx } from "../base/units.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import { logFrames } from "../logs/input-log.ts";
import type { Account } from "../compiled/account.ts";
import { newAccount } from "../compiled/account.ts";
import type { Ground } from "../ground/ground.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { Explanation } from "../simulation/explain.ts";
import { explain, explainStart } from "../simulation/explain.ts";
import type { KeyFrame } from "./key-frames.ts";
import { KeyFrames } from "./key-frames.ts";
import { startState } from "../simulation/start-state.ts";
import type { SimState } from "../compiled/state.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { step } from "../simulation/step.ts";
import type { TraceRows } from "../simulation/trace.ts";
import { TraceRecorder } from "../simulation/trace.ts";

/** What a run gives back. */
export interface RunResult {
  /** Number of the last frame; row 0 is before the first. */
  readonly frames: number;
  /** One of the numbers in `compiled/state.ts`. */
  readonly status: number;
  /** A cheap hash of room, x and y in every row, 64 bits as 16 hex digits: equal for runs that took the same path. */
  readonly pathHash: string;
  /** One for each check of the log, then one for each law of the world; an `until` that ran out stands last. Empty unless asked for. */
  readonly verdicts: readonly Verdict[];
  /** The rows, or null unless asked for. */
  readonly rows: TraceRows | null;
  /** For each keys line of the log the frame after which it ended; lines that were not reached are missing. */
  readonly lineEnds: readonly number[];
}

export interface RunOptions {
  /** Keep the rows. */
  readonly rows?: boolean;
  /** Watch the log's checks and the world's laws. */
  readonly checks?: boolean;
  /** Stop after this frame: for looking at the state in the middle of a run. */
  readonly last?: number;
}

/** Is shown every frame of a run with its account. */
export interface FrameObserver {
  /**
   * @param state after the frame; where it was before is in `rowRoom`, `rowX`, `rowY`
   * @param began what the frame began with
   * @param ground what blocked when it began: doors may have opened or closed since
   */
  frame(state: SimState, account: Account, began: FrameBegin, ground: Ground): void;
}

/** What a frame began with: the leg under way (0, 0 without one), facing, and velocity in units a frame. */
export type FrameBegin = Readonly<Pick<SimState, "legX" | "legY" | "facing" | "vx" | "vy">>;

/** Explains the last frame instead of only stepping through it, or shows every frame to somebody. */
type InnerOptions = RunOptions & {
  readonly explain?: boolean;
  readonly observer?: FrameObserver;
  readonly keyFrames?: KeyFrames;
  readonly from?: KeyFrame | null;
};

/**
 * Runs a log: `run(world, log)` of architecture.md. Pure; the same everywhere.
 * @throws {CoreError} `no-such-place`, `no-such-thing` where the log's start or what it sets up is not in the world
 */
export function run(c: Compiled, log: InputLog, options: RunOptions = {}): RunResult {
  return new Run(c, log, options).result();
}

/** Runs a log as `run` does, and keeps states on the way to begin from when a frame of it is looked at. */
export function runWithKeyFrames(
  c: Compiled,
  log: InputLog,
  options: RunOptions = {},
  keyFrames = new KeyFrames(c, log),
): { readonly result: RunResult; readonly keyFrames: KeyFrames } {
  return { result: new Run(c, log, { ...options, keyFrames }).result(), keyFrames };
}

/**
 * Explains one frame of the log's run; row 0 too. A frame beyond the run's end gives its last one. Throws as `run` does.
 * @param keyFrames of a run of this log in this compiled world, to begin from; without them it begins at the start
 */
export function explainFrame(
  c: Compiled,
  log: InputLog,
  frame: number,
  keyFrames: KeyFrames | null = null,
): Explanation {
  const made = new Run(c, log, { last: frame, explain: true, from: keyFrames?.before(frame) ?? null });
  if (frame === 0) return explainStart(c, made.state);
  made.result();
  return made.explanation ?? explainFrame(c, log, made.state.frame);
}

/** Runs a log and shows every frame to an observer: some ten times slower than `run`. Throws as `run` does. */
export function observe(c: Compiled, log: InputLog, observer: FrameObserver): void {
  new Run(c, log, { observer }).result();
}

/** The state after a frame of the log's run, or after its last frame where it has fewer. Throws as `run` does. */
export function stateAt(c: Compiled, log: InputLog, frame: number, keyFrames: KeyFrames | null = null): SimState {
  const made = new Run(c, log, { last: frame, from: keyFrames?.before(frame) ?? null });
  made.result();
  return made.state;
}

type KeysLine = Extract<LogLine, { kind: "keys" }>;

class Run {
  readonly state: SimState;
  private readonly recorder: TraceRecorder | null;
  private readonly watches: readonly Watch[];
  /** Watches that have not decided yet: the first `watching` of them. */
  private readonly undecided: Watch[];
  private watching: number;
  private readonly laws: number;
  private readonly lineEnds: number[] = [];
  private readonly last: number;
  private readonly explained: number | null;
  private readonly observer: FrameObserver | null;
  private readonly keyFrames: KeyFrames | null;
  private readonly from: KeyFrame | null;
  /** For an observer: the ground as it was before the frame, and how many doors had turned by then. */
  private groundBefore: Ground;
  private doorTurns = 0;
  explanation: Explanation | null = null;
  /** Two lanes that mix differently: a pair of paths that fools one of them does not fool the other. */
  private pathLane = 0x811c9dc5 | 0;
  private otherLane = 0x2545f491;
  private ranOut: Verdict | null = null;

  constructor(
    private readonly c: Compiled,
    private readonly log: InputLog,
    options: InnerOptions,
  ) {
    this.state = startState(c, log.start ?? undefined, log.with, log.seed ?? undefined);
    this.recorder = options.rows ? new TraceRecorder(c, logFrames(log)) : null;
    const laws = options.checks ? invariantChecks(c.world) : [];
    this.watches = options.checks ? [...log.checks, ...laws].map((check) => new Watch(c, check)) : [];
    this.undecided = [...this.watches];
    this.watching = this.watches.length;
    this.laws = laws.length;
    this.last = options.last ?? Infinity;
    this.explained = options.explain ? this.last : null;
    this.observer = options.observer ?? null;
    this.keyFrames = options.keyFrames ?? null;
    this.from = options.from ?? null;
    if (this.from !== null) this.state.copyFrom(this.from.state);
    this.groundBefore = c.ground;
  }

  result(): RunResult {
    const { state, log, from } = this;
    this.row();
    for (let at = from?.line ?? 0; at < log.lines.length; at++) {
      const line = log.lines[at]!;
      if (line.kind === "comment") continue;
      if (state.status !== PLAYING || state.frame >= this.last || this.ranOut !== null) break;
      this.line(line, at, at === from?.line ? from.left : line.count);
      this.lineEnds.push(state.frame);
    }
    const own = this.watches.length - this.laws;
    const verdicts = this.watches.map((watch, i): Verdict =>
      i < own ? watch.finish(state) : { ...watch.finish(state), law: true },
    );
    if (this.ranOut !== null) verdicts.push(this.ranOut);
    return {
      frames: state.frame,
      status: state.status,
      pathHash: hexOf(this.pathLane) + hexOf(this.otherLane),
      verdicts,
      rows: this.recorder?.finish() ?? null,
      lineEnds: this.lineEnds,
    };
  }

  /** Presses a line's keys; `left` of its frames where the run goes on within it. */
  private line(line: KeysLine, at: number, left: number): void {
    if (left === 0) return;
    const { c, state, keyFrames } = this;
    const pointer = line.pointer;
    state.hasPointer = pointer !== null;
    if (pointer !== null) {
      state.pointerX = unitsFromPx(pointer.x);
      state.pointerY = unitsFromPx(pointer.y);
    }
    const until: Holds | null = line.until === null ? null : compileCondition(c, line.until);
    const keys = line.keys;
    const last = this.last;
    for (let n = left; n > 0; n--) {
      if (state.frame + 1 === this.explained) this.explanation = explain(c, state, keys);
      else if (this.observer === null) step(c, state, keys, null);
      else this.observed(this.observer, keys);
      this.row();
      if (keyFrames !== null && state.frame % keyFrames.apart === 0)
        keyFrames.see(state, at, until !== null && until(state) ? 0 : n - 1);
      if (state.status !== PLAYING || state.frame >= last) return;
      if (until !== null && until(state)) return;
    }
    if (line.until !== null) {
      this.ranOut = {
        check: `until ${conditionText(line.until)}`,
        verdict: "fail",
        frame: state.frame,
        seen: seenText(c, line.until, state),
      };
    }
  }

  private observed(observer: FrameObserver, keys: number): void {
    const { legX, legY, facing, vx, vy, ground, memory } = this.state;
    if (memory.doorTurns !== this.doorTurns) {
      this.doorTurns = memory.doorTurns;
      this.groundBefore = ground.withOwn(this.c.fixtures.doorRooms);
    }
    const account = newAccount();
    step(this.c, this.state, keys, account);
    observer.frame(this.state, account, { legX, legY, facing, vx, vy }, this.groundBefore);
  }

  private row(): void {
    const { state, undecided, recorder } = this;
    const { room, x, y } = state;
    let hash = Math.imul(this.pathLane ^ room, 0x01000193);
    hash = Math.imul(hash ^ x, 0x01000193);
    this.pathLane = Math.imul(hash ^ y, 0x01000193) ^ (hash >>> 15);
    let other = Math.imul((this.otherLane ^ (this.otherLane >>> 13)) + y, 0x85ebca6b);
    other = Math.imul((other ^ (other >>> 16)) + x, 0xc2b2ae35);
    this.otherLane = (other ^ (other >>> 14)) + room;
    if (recorder !== null) recorder.row(state);
    for (let i = 0; i < this.watching; i++) {
      const watch = undecided[i]!;
      watch.row(state);
      // What has decided looks no further: the last one takes its place.
      if (watch.isDecided) undecided[i--] = undecided[--this.watching]!;
    }
  }
}

const hexOf = (lane: number): string => (lane >>> 0).toString(16).padStart(8, "0");
