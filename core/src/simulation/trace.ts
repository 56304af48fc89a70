import { FACINGS } from "../world/facing.ts";
import { floorModulo } from "../base/units.ts";
import { keysText } from "../world/keys.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { ActorRows } from "./actor-rows.ts";
import { ActorRecorder, copiedActorRows } from "./actor-rows.ts";
import { eventName } from "./event-text.ts";
import type { SimState } from "../compiled/state.ts";
import { STATUS_NAMES } from "../world/vocabulary.ts";

/** Bits of a row's flags. */
export const ROW_MOVING = 1;
/** A leg is under way after the frame. */
export const ROW_ON_LEG = 2;
export const ROW_BUMPING = 4;

/** The rows of a run as columns: plain typed arrays, so that they can be handed from a worker to the page. */
export interface TraceRows {
  /** Number of rows: the last frame's number and 1. */
  readonly count: number;
  readonly keys: Uint8Array;
  readonly room: Uint8Array;
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly facing: Uint8Array;
  readonly pose: Uint8Array;
  readonly flags: Uint8Array;
  readonly status: Uint8Array;
  /** Events in order: frame, kind, subject, three an event. */
  readonly events: Int32Array;
  /** Where the actors of the walker's room are; null where the world has none. */
  readonly actors: ActorRows | null;
}

/** Collects the rows of a run. Grows by doubling; nothing is allocated in a frame that fits. */
export class TraceRecorder {
  private count = 0;
  private eventLength = 0;
  private rows: Columns;
  private actors: ActorRecorder | null;
  private events = new Int32Array(64 * 3);

  /** @param frames how many frames to make room for at once */
  constructor(
    private readonly c: Compiled,
    frames: number,
  ) {
    this.actors = c.actors && new ActorRecorder();
    this.rows = emptyRows(Math.min(Math.max(frames, 0), 1_000_000) + 1);
  }

  /** One that goes on behind the rows of another run. */
  static behind(c: Compiled, rows: TraceRows): TraceRecorder {
    const recorder = new TraceRecorder(c, rows.count + 3600);
    const { actors, count, events, ...columns } = rows;
    if (actors !== null) recorder.actors = ActorRecorder.behind(actors);
    for (const name of Object.keys(columns) as (keyof typeof columns)[]) recorder.rows[name].set(columns[name]);
    recorder.count = count;
    recorder.events = new Int32Array(Math.max(events.length * 2, recorder.events.length));
    recorder.events.set(events);
    recorder.eventLength = events.length;
    return recorder;
  }

  /** Adds the row of the state's frame. */
  row(s: SimState): void {
    const i = this.count++;
    if (i >= this.rows.x.length) this.rows = grownRows(this.rows);
    const rows = this.rows;
    rows.keys[i] = s.held;
    rows.room[i] = s.room;
    rows.x[i] = s.x;
    rows.y[i] = s.y;
    rows.facing[i] = s.facing;
    rows.pose[i] = s.pose;
    rows.flags[i] =
      (s.moving ? ROW_MOVING : 0) | (s.legX !== 0 || s.legY !== 0 ? ROW_ON_LEG : 0) | (s.bumping ? ROW_BUMPING : 0);
    rows.status[i] = s.status;
    this.actors?.row(this.c, s);
    for (let e = 0; e < s.eventCount; e++) this.event(s.frame, s.eventKinds[e]!, s.eventSubjects[e]!);
  }

  private event(frame: number, kind: number, subject: number): void {
    if (this.eventLength + 3 > this.events.length) {
      const grown = new Int32Array(this.events.length * 2);
      grown.set(this.events);
      this.events = grown;
    }
    this.events[this.eventLength++] = frame;
    this.events[this.eventLength++] = kind;
    this.events[this.eventLength++] = subject;
  }

  /** The rows so far, as views of arrays that go on growing: good until the next row is added. */
  view(): TraceRows {
    const { count } = this;
    const { keys, room, x, y, facing, pose, flags, status } = this.rows;
    return {
      count,
      keys: keys.subarray(0, count),
      room: room.subarray(0, count),
      x: x.subarray(0, count),
      y: y.subarray(0, count),
      facing: facing.subarray(0, count),
      pose: pose.subarray(0, count),
      flags: flags.subarray(0, count),
      status: status.subarray(0, count),
      events: this.events.subarray(0, this.eventLength),
      actors: this.actors?.view() ?? null,
    };
  }

  /** The rows so far, in arrays of just that length. */
  finish(): TraceRows {
    const { actors, count, ...columns } = this.view();
    const copied = Object.entries(columns).map(([name, column]) => [name, column.slice()] as const);
    return { count, ...(Object.fromEntries(copied) as typeof columns), actors: actors && copiedActorRows(actors) };
  }
}

type Columns = Omit<TraceRows, "count" | "events" | "actors">;

function emptyRows(length: number): Columns {
  return {
    keys: new Uint8Array(length),
    room: new Uint8Array(length),
    x: new Int32Array(length),
    y: new Int32Array(length),
    facing: new Uint8Array(length),
    pose: new Uint8Array(length),
    flags: new Uint8Array(length),
    status: new Uint8Array(length),
  };
}

function grownRows(rows: Columns): Columns {
  const grown = emptyRows(rows.x.length * 2);
  for (const name of Object.keys(rows) as (keyof typeof rows)[]) grown[name].set(rows[name]);
  return grown;
}

/** The columns of a trace, in order (formats.md section 3). */
export const TRACE_COLUMNS = [
  "frame",
  "keys",
  "room",
  "x",
  "y",
  "cx",
  "cy",
  "facing",
  "pose",
  "moving",
  "aligned",
  "status",
  "events",
] as const;
const ROWS_A_CHUNK = 4096;

/** The trace as CSV (formats.md section 3), in pieces of some thousand rows, all of them ASCII. */
export function* traceText(c: Compiled, rows: TraceRows): Generator<string, void> {
  const t = c.tileUnits;
  let piece = `${TRACE_COLUMNS.join(",")}\r\n`;
  let event = 0;
  for (let frame = 0; frame < rows.count; frame++) {
    const x = rows.x[frame]!;
    const y = rows.y[frame]!;
    const aligned = floorModulo(x, t) === 0 && floorModulo(y, t) === 0 ? 1 : 0;
    let events = "";
    for (; event < rows.events.length && rows.events[event] === frame; event += 3) {
      events += `${events === "" ? "" : ";"}${eventName(c, rows.events[event + 1]!, rows.events[event + 2]!)}`;
    }
    piece += `${frame},${keysText(rows.keys[frame]!)},${c.rooms[rows.room[frame]!]!.id},${x},${y},${occupiedX(t, x)},${occupiedY(t, y)},${FACINGS[rows.facing[frame]!]!},${rows.pose[frame]!},${rows.flags[frame]! & ROW_MOVING},${aligned},${STATUS_NAMES[rows.status[frame]!]!},${events}\r\n`;
    if (frame % ROWS_A_CHUNK === ROWS_A_CHUNK - 1) {
      yield piece;
      piece = "";
    }
  }
  yield piece;
}

/** SHA-256 as the core is handed it: fed with ASCII text, then asked for its 64 hex digits. */
export interface TextHash {
  update(text: string): void;
  hex(): string;
}

/** The run's fingerprint: SHA-256 of its trace's bytes (formats.md section 3). Equal fingerprints, equal runs. */
export function fingerprint(c: Compiled, rows: TraceRows, hash: TextHash): string {
  for (const piece of traceText(c, rows)) hash.update(piece);
  return hash.hex();
}
