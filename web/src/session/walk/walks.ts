import type { BenchStore } from "../bench/bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import { KEY_BUTTONS, MOST_CATCH_UP } from "./key-buttons.ts";
import type { WalkOffer } from "./offered-walk.ts";
import type { InputLog, LogLine, Pointer } from "@keen-pebble/core/check";
import type { Compiled, SimState, TraceRows, Explanation, WithLine } from "@keen-pebble/core/simulate";
import type { World, Start } from "@keen-pebble/core/world";
import { EMPTY_LOG, cutLog, mergeLines } from "@keen-pebble/core/check";
import { changesWorld } from "@keen-pebble/core/edit";
import {
  TraceRecorder,
  carriedState,
  compile,
  explain,
  explainStart,
  run,
  startState,
  stateAt,
  withLinesOf,
} from "@keen-pebble/core/simulate";
import { CoreError, FACINGS, PLAYING, isFree, rulesById, unitsFromPx } from "@keen-pebble/core/world";

/** So many frames are walked between two times at which the walk is kept in this browser. */
const KEEP_EVERY = 60;

/** Walking with the keyboard, from a start or from a frame of a log. */
export class Walks {
  walk: Walk | null = null;

  constructor(
    readonly benchStore: BenchStore,
    readonly project: ProjectSession,
    readonly offeredWalk: WalkOffer,
  ) {}

  /** Whether somebody walks, on this area or another. */
  readonly isWalking = (): boolean => {
    return this.walk !== null;
  };

  /** Lets a walk go by what is changed while it is walked. Gives back what stops that. */
  readonly startWalks = (): (() => void) => {
    return this.project.onProject(({ world }, steps) => {
      if (steps?.some(changesWorld)) this.walk?.follow(world);
    });
  };

  /** Whether the keyboard is the walker's. */
  readonly walkTakesKeys = (): boolean => {
    return this.walk?.takesKeys ?? false;
  };

  /** The field is shown, or not any more: a walk stands still while it is not. */
  readonly showsField = (shown: boolean): void => {
    if (shown) this.walk?.resume();
    else this.walk?.pause();
  };

  /** Begins live play at a start, the world's unless another is named, under the rule set that is shown. */
  readonly beginWalk = (from?: Start, setUp: readonly WithLine[] = []): void => {
    const { project } = this.project.store.getState();
    if (project === null || this.walk !== null) return;
    const { world } = project;
    const start = from ?? world.start;
    const shown = this.benchStore.getState().parsed?.rules ?? null;
    const rules = shown !== null && rulesById(world, shown) !== undefined ? shown : world.activeRules;
    try {
      const compiled = compile(world, rules);
      const state = startState(compiled, start, setUp);
      this.benchStore.setState({ tool: "walk", playing: false, room: start.room, ghost: null, discarded: null });
      this.walk = new Walk(this, compiled, state, { ...EMPTY_LOG, world: world.id, rules, start, with: setUp }, null);
      if (!isFree(state.ground, state.room, state.x, state.y))
        this.project.notice(
          `The walker stands in something that blocks it, in cell ${start.cell[0]},${start.cell[1]}.`,
          "info",
        );
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.project.notice(`Nobody can walk here yet: ${error.message}.`);
    }
  };

  /** Goes on walking from the shown frame of the shown log: what it pressed later is cut away once the walk is kept. */
  readonly goOnWalking = (): void => {
    const { project } = this.project.store.getState();
    const { log, parsed, run: shown, frame } = this.benchStore.getState();
    if (project === null || log === null || parsed === null || shown === null || this.walk !== null) return;
    try {
      const compiled = compile(project.world, parsed.rules ?? undefined);
      const begun = cutLog(parsed, shown.lineEnds, frame);
      const state = stateAt(compiled, begun, frame);
      const { rows } = run(compiled, begun, { rows: true });
      this.benchStore.setState({ tool: "walk", playing: false, ghost: null, discarded: null });
      this.walk = new Walk(this, compiled, state, begun, { log, rows: rows! });
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.project.notice(`Nobody can go on from here: ${error.message}.`);
    }
  };

  /**
   * Sets the walker down on a cell of the shown room and begins to walk there, looking as it does in the shown frame.
   * @param asNow with the bag, the open doors and the memory of the shown frame; else as at the start
   */
  readonly setDown = (x: number, y: number, asNow = false): void => {
    const { project } = this.project.store.getState();
    const { room: id, run, frame } = this.benchStore.getState();
    const room = project?.world.rooms.find((each) => each.id === id);
    if (!project || !room || x < 0 || y < 0 || x >= room.width || y >= room.height) return;
    const facing = run === null ? project.world.start.facing : FACINGS[run.rows.facing[frame]!]!;
    const { explanation } = this.benchStore.getState();
    this.beginWalk(
      { room: id, cell: [x, y], facing },
      asNow && explanation !== null ? withLinesOf(project.world, explanation.remembered) : [],
    );
  };

  /** Sets the walker down on the cell under the pointer. */
  readonly setDownAtPointer = (asNow = false): void => {
    const { pointer } = this.benchStore.getState();
    const size = this.project.store.getState().project?.world.tileSize;
    if (pointer === null || size === undefined) return;
    this.setDown(Math.floor(pointer.x / size), Math.floor(pointer.y / size), asNow);
  };

  /** Stops live play, as Esc does. */
  readonly endWalk = (): void => {
    this.walk?.stop();
  };
}

class Walk {
  private readonly down = new Set<string>();
  /** Pressed since the last frame: a key that is let go before the next one counts for that one all the same. */
  private readonly tapped = new Set<string>();
  private readonly lines: LogLine[];
  private recorder: TraceRecorder;
  /** Frames that were there before the walk went on. */
  private readonly before: number;
  private readonly onto: string | null;
  private rows: TraceRows;
  private rest = 0;
  private last = performance.now();
  private paused = true;
  private keptAt = 0;

  /** The world as it is by now, where the walk does not go by it yet. */
  private changed: World | null = null;

  constructor(
    private readonly walks: Walks,
    private c: Compiled,
    private state: SimState,
    private readonly log: InputLog,
    goesOn: { readonly log: string; readonly rows: TraceRows } | null,
  ) {
    this.onto = goesOn?.log ?? null;
    this.lines = goesOn === null ? [] : [...log.lines];
    this.before = state.frame;
    this.recorder = goesOn === null ? new TraceRecorder(c, 3600) : TraceRecorder.behind(c, goesOn.rows);
    if (goesOn === null) this.recorder.row(state);
    this.rows = this.recorder.finish();
    this.show(explainStart(c, state));
    this.resume();
  }

  /** Whether the keyboard is the walker's. */
  get takesKeys(): boolean {
    return !this.paused;
  }

  /** Goes on: its field is shown. */
  resume(): void {
    if (!this.paused) return;
    this.paused = false;
    window.addEventListener("keydown", this.keyDown, true);
    window.addEventListener("keyup", this.keyUp, true);
    window.addEventListener("blur", this.letGo);
    this.last = performance.now();
    this.rest = 0;
    requestAnimationFrame(this.tick);
  }

  /** Stands still while its field is not shown: keys are somebody else's, and all are let go. */
  pause(): void {
    if (this.paused) return;
    this.paused = true;
    this.letGo();
    window.removeEventListener("keydown", this.keyDown, true);
    window.removeEventListener("keyup", this.keyUp, true);
    window.removeEventListener("blur", this.letGo);
  }

  /** Goes by the world as it is now from the next frame on: one tunes while one walks. */
  follow(world: World): void {
    this.changed = world;
  }

  /** @throws {CoreError} where nobody can walk in the world as it is now */
  private goBy(world: World): void {
    this.changed = null;
    const c = compile(world, this.log.rules ?? undefined);
    const carried = carriedState(c, this.c, this.state);
    if (carried === null) {
      // What the walk remembers is another thing now: it is walked again up to here.
      const log = { ...this.log, lines: mergeLines(this.lines) };
      this.recorder = TraceRecorder.behind(c, run(c, log, { rows: true }).rows!);
      this.state = stateAt(c, log, Infinity);
    } else {
      this.state = carried;
    }
    this.c = c;
  }

  private readonly keyDown = (event: KeyboardEvent): void => {
    if (event.code === "Escape") {
      event.preventDefault();
      event.stopPropagation();
      this.stop();
      return;
    }
    if (KEY_BUTTONS[event.code] === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    this.down.add(event.code);
    this.tapped.add(event.code);
  };

  private readonly keyUp = (event: KeyboardEvent): void => {
    this.down.delete(event.code);
  };

  // A key that is let go while the window is not looking would walk on by itself.
  private readonly letGo = (): void => {
    this.down.clear();
    this.tapped.clear();
  };

  private held(): number {
    let held = 0;
    for (const codes of [this.down, this.tapped]) for (const code of codes) held |= KEY_BUTTONS[code]!;
    return held;
  }

  /** Where the pointer is, for rules that look there. */
  private point(): Pointer | null {
    const { state } = this;
    const pointer = this.c.rules.facing.source === "pointer" ? this.walks.benchStore.getState().pointer : null;
    state.hasPointer = pointer !== null;
    if (pointer !== null) {
      state.pointerX = unitsFromPx(pointer.x);
      state.pointerY = unitsFromPx(pointer.y);
    }
    return pointer;
  }

  private readonly tick = (now: number): void => {
    if (this.paused) return;
    try {
      if (this.changed !== null) this.goBy(this.changed);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.walks.project.notice(`Nobody can walk on here: ${error.message}.`);
      this.stop();
      return;
    }
    const { frameRate } = this.c.world;
    this.rest = Math.min(this.rest + ((now - this.last) / 1000) * frameRate, MOST_CATCH_UP);
    this.last = now;
    let explanation: Explanation | null = null;
    for (; this.rest >= 1 && this.state.status === PLAYING; this.rest--) {
      const held = this.held();
      this.tapped.clear();
      const pointer = this.point();
      explanation = explain(this.c, this.state, held);
      this.recorder.row(this.state);
      this.lines.push({ kind: "keys", count: 1, keys: held, pointer, until: null });
    }
    if (explanation !== null) {
      this.rows = this.recorder.view();
      this.show(explanation);
      if (this.state.frame - this.keptAt >= KEEP_EVERY) {
        this.keptAt = this.state.frame;
        this.walks.offeredWalk.rememberWalk({ ...this.log, lines: mergeLines(this.lines) }, this.onto, false);
      }
    }
    if (this.state.status !== PLAYING) this.stop();
    else requestAnimationFrame(this.tick);
  };

  private show(explanation: Explanation): void {
    this.walks.benchStore.setState({
      explanation,
      frame: this.state.frame,
      // The field follows the walker from room to room.
      room: this.c.rooms[this.state.room]!.id,
      walk: { phase: "walking", room: this.state.room, rows: this.rows, log: this.log, onto: this.onto },
    });
  }

  /** Ends the walk and offers to keep it; a walk in which nothing was pressed is let go. */
  stop(): void {
    this.pause();
    this.walks.walk = null;
    this.rows = this.recorder.finish();
    const lines = mergeLines(this.lines);
    const pressed = this.recorder
      .view()
      .keys.subarray(this.before + 1)
      .some((keys) => keys !== 0);
    if (!pressed) {
      this.walks.offeredWalk.letWalkGo();
      return;
    }
    const log = { ...this.log, lines };
    this.walks.offeredWalk.rememberWalk(log, this.onto, false);
    this.walks.offeredWalk.offerReplayed(log, this.onto, this.rows);
  }
}
