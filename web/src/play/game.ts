import type { InputLog, LogLine, Pointer } from "@keen-pebble/core/check";
import { MOST_PLAYED, mergeLines, playedLog, writeLog } from "@keen-pebble/core/check";
import type { Compiled, Remembered, SimState, TraceRows } from "@keen-pebble/core/simulate";
import { TraceRecorder, compile, fingerprint, rememberedIn, startState, step } from "@keen-pebble/core/simulate";
import type { Room, World } from "@keen-pebble/core/world";
import { PLAYING, unitsFromPx } from "@keen-pebble/core/world";
import { traceHash } from "../workers/trace-hash.ts";

/** About a minute of rows is made room for at once. */
const ROWS = 3600;

/** One play of a world, from its start on: steps by the real rules, and keeps what was pressed. */
export class Game {
  private readonly c: Compiled;
  private readonly state: SimState;
  private readonly recorder: TraceRecorder;
  private readonly log: InputLog;
  private readonly lines: LogLine[] = [];
  /** What is remembered after the last frame; changes only with an event. */
  remembered: Remembered;

  /** @throws {CoreError} where nobody can walk in the world yet */
  constructor(readonly world: World) {
    this.c = compile(world, world.activeRules);
    this.state = startState(this.c, world.start);
    this.recorder = new TraceRecorder(this.c, ROWS);
    this.recorder.row(this.state);
    this.log = playedLog(world);
    this.remembered = rememberedIn(this.c, this.state);
  }

  /** Number of the last frame. */
  get frame(): number {
    return this.state.frame;
  }

  /** How it stands: one of the numbers of a run's status. */
  get status(): number {
    return this.state.status;
  }

  /** It goes no further: the run ended, or one may not play on. */
  get isOver(): boolean {
    return this.state.status !== PLAYING || this.state.frame >= MOST_PLAYED;
  }

  /** The walker's room. */
  get room(): Room {
    return this.world.rooms[this.state.room]!;
  }

  /** Whether the walker looks at the pointer. */
  get looksAtPointer(): boolean {
    return this.c.rules.facing.source === "pointer";
  }

  /** The rows so far: good until the next step. */
  rows(): TraceRows {
    return this.recorder.view();
  }

  /**
   * Goes on by one frame with buttons held; nothing where it is over.
   * @param pointer in px of the room, for rules that look there
   */
  step(held: number, pointer: Pointer | null): void {
    if (this.isOver) return;
    const { state } = this;
    const seen = this.looksAtPointer ? pointer : null;
    state.hasPointer = seen !== null;
    if (seen !== null) {
      state.pointerX = unitsFromPx(seen.x);
      state.pointerY = unitsFromPx(seen.y);
    }
    step(this.c, state, held, null);
    this.recorder.row(state);
    this.lines.push({ kind: "keys", count: 1, keys: held, pointer: seen, until: null });
    if (state.eventCount > 0) this.remembered = rememberedIn(this.c, state);
  }

  /** What was played: the log as a file's text, and the fingerprint of its run. */
  played(): { readonly log: string; readonly fingerprint: string } {
    return {
      log: writeLog({ ...this.log, lines: mergeLines(this.lines) }),
      fingerprint: fingerprint(this.c, this.rows(), traceHash()),
    };
  }
}
