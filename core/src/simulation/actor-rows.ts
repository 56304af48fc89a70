import { ACTOR_NUMBERS, AT_X, AT_Y, FACING, PHASE } from "../compiled/actor-memory.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { FACINGS } from "../world/facing.ts";
import type { TraceRows } from "./trace.ts";

/** Where the actors of the walker's room are in each row of a run, as columns: one place for each actor in each row. */
export interface ActorRows {
  /** Of each row the place of its first actor; and one more, the end of the last row. */
  readonly from: Int32Array;
  /** Number among all actors. */
  readonly actor: Uint16Array;
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly facing: Uint8Array;
  readonly phase: Uint8Array;
  /** 1 where the walker meets it. */
  readonly met: Uint8Array;
}

/** Collects the rows of actors. Grows by doubling; nothing is allocated in a frame that fits. */
export class ActorRecorder {
  private rows = 0;
  private count = 0;
  private from: Int32Array = new Int32Array(1024);
  private columns: Columns = emptyColumns(1024);

  /** One that goes on behind the rows of another run. */
  static behind({ from, ...columns }: ActorRows): ActorRecorder {
    const recorder = new ActorRecorder();
    recorder.rows = from.length - 1;
    recorder.count = columns.actor.length;
    recorder.from = grown(from, from.length + 1024);
    recorder.columns = grownColumns(columns, recorder.count + 1024);
    return recorder;
  }

  row(c: Compiled, s: SimState): void {
    const { met, numbers } = s.memory.actors!;
    const { firstOfRoom } = c.actors!;
    const end = firstOfRoom[s.room + 1]!;
    if (this.rows + 2 > this.from.length) this.from = grown(this.from, this.from.length * 2);
    this.from[this.rows++] = this.count;
    for (let number = firstOfRoom[s.room]!; number < end; number++) {
      const at = number * ACTOR_NUMBERS;
      const place = this.count++;
      if (place >= this.columns.actor.length) this.columns = grownColumns(this.columns, place * 2);
      const { actor, facing, met: meets, phase, x, y } = this.columns;
      actor[place] = number;
      x[place] = numbers[at + AT_X]!;
      y[place] = numbers[at + AT_Y]!;
      facing[place] = numbers[at + FACING]!;
      phase[place] = numbers[at + PHASE]!;
      meets[place] = met[number]!;
    }
    this.from[this.rows] = this.count;
  }

  /** The rows so far, as views of arrays that go on growing: good until the next row is added. */
  view(): ActorRows {
    const { count } = this;
    const { actor, facing, met, phase, x, y } = this.columns;
    return {
      from: this.from.subarray(0, this.rows + 1),
      actor: actor.subarray(0, count),
      x: x.subarray(0, count),
      y: y.subarray(0, count),
      facing: facing.subarray(0, count),
      phase: phase.subarray(0, count),
      met: met.subarray(0, count),
    };
  }
}

/** Rows of actors in arrays of just that length. */
export function copiedActorRows({ actor, facing, from, met, phase, x, y }: ActorRows): ActorRows {
  return {
    from: from.slice(),
    actor: actor.slice(),
    x: x.slice(),
    y: y.slice(),
    facing: facing.slice(),
    phase: phase.slice(),
    met: met.slice(),
  };
}

const ROWS_A_CHUNK = 4096;

/** The trace of a run's actors as CSV (semantics.md section 9), in pieces of some thousand rows; its header alone without any. */
export function* actorTraceText(c: Compiled, { actors, count }: TraceRows): Generator<string, void> {
  let piece = "frame,actor,x,y,facing,phase\r\n";
  for (let frame = 0; actors !== null && frame < count; frame++) {
    for (let i = actors.from[frame]!; i < actors.from[frame + 1]!; i++)
      piece += `${frame},${c.actors!.all[actors.actor[i]!]!.id},${actors.x[i]!},${actors.y[i]!},${FACINGS[actors.facing[i]!]!},${actors.phase[i]!}\r\n`;
    if (frame % ROWS_A_CHUNK === ROWS_A_CHUNK - 1) {
      yield piece;
      piece = "";
    }
  }
  yield piece;
}

type Columns = Omit<ActorRows, "from">;

function emptyColumns(length: number): Columns {
  return {
    actor: new Uint16Array(length),
    x: new Int32Array(length),
    y: new Int32Array(length),
    facing: new Uint8Array(length),
    phase: new Uint8Array(length),
    met: new Uint8Array(length),
  };
}

function grownColumns(columns: Columns, length: number): Columns {
  const longer = emptyColumns(length);
  for (const name of Object.keys(longer) as (keyof Columns)[]) longer[name].set(columns[name]);
  return longer;
}

function grown(numbers: Int32Array, length: number): Int32Array {
  const longer = new Int32Array(length);
  longer.set(numbers);
  return longer;
}
