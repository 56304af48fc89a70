import { UNITS_PER_PX } from "../base/units.ts";
import type { GameTrace } from "../formats/game-trace.ts";
import type { TraceRows } from "../simulation/trace.ts";

/** Where a walker is in a frame: the room's number and the corner of its frame-square, in units. */
export interface Spot {
  readonly room: number;
  readonly x: number;
  readonly y: number;
}

/** The first frame in which a game's walker is somewhere else than ours. */
export interface Divergence {
  readonly frame: number;
  readonly ours: Spot;
  readonly theirs: Spot;
}

/** How a game's trace and ours agree (formats.md section 9). */
export interface Conformance {
  /** Frames that both have, the start counted. */
  readonly compared: number;
  /** Null where every frame that both have is within the tolerance. */
  readonly first: Divergence | null;
  /** The greatest distance on an axis, in units, up to that frame. */
  readonly farthest: number;
}

/**
 * Compares where a game's walker was with where ours is, from the first frame that both have: a row of the game's holds
 * until its next one.
 * @param tolerance in px: so far apart on an axis they may be
 */
export function conform(ours: TraceRows, theirs: GameTrace, tolerance: number): Conformance {
  const most = tolerance * UNITS_PER_PX;
  let farthest = 0;
  let compared = 0;
  for (const { frame, at } of framesOf(ours, theirs)) {
    const spot = spotOf(theirs, at);
    compared++;
    const far = Math.max(Math.abs(ours.x[frame]! - spot.x), Math.abs(ours.y[frame]! - spot.y));
    if (ours.room[frame] !== spot.room || far > most)
      return { compared, first: { frame, ours: ourSpot(ours, frame), theirs: spot }, farthest };
    farthest = Math.max(farthest, far);
  }
  return { compared, first: null, farthest };
}

/** The frames that both have, each with the game's row that holds in it. */
export function* framesOf(ours: Pick<TraceRows, "count">, theirs: GameTrace): Generator<{ frame: number; at: number }> {
  let at = 0;
  const last = Math.min(ours.count - 1, theirs.frames[theirs.count - 1] ?? -1);
  for (let frame = theirs.frames[0] ?? 0; frame <= last; frame++) {
    while ((theirs.frames[at + 1] ?? Infinity) <= frame) at++;
    yield { frame, at };
  }
}

function spotOf(trace: GameTrace, at: number): Spot {
  return { room: trace.rooms[at]!, x: trace.x[at]!, y: trace.y[at]! };
}

function ourSpot(rows: TraceRows, frame: number): Spot {
  return { room: rows.room[frame]!, x: rows.x[frame]!, y: rows.y[frame]! };
}

/** Where a game's walker was in the frame before one; null where that is not known. */
export function spotBefore(trace: GameTrace, frame: number): Spot | null {
  let at = trace.count - 1;
  while ((trace.frames[at] ?? -1) >= frame) at--;
  return at < 0 ? null : spotOf(trace, at);
}

/** A game's walk as rows of ours, a row a frame, to be drawn as a ghost; before its first row it stands where that is. */
export function ghostRows(trace: GameTrace): TraceRows {
  const count = (trace.frames[trace.count - 1] ?? -1) + 1;
  const rows = {
    count,
    keys: new Uint8Array(count),
    room: new Uint8Array(count),
    x: new Int32Array(count),
    y: new Int32Array(count),
    facing: new Uint8Array(count),
    pose: new Uint8Array(count),
    flags: new Uint8Array(count),
    status: new Uint8Array(count),
    events: new Int32Array(0),
    actors: null,
  };
  let at = 0;
  for (let frame = 0; frame < count; frame++) {
    while ((trace.frames[at + 1] ?? Infinity) <= frame) at++;
    rows.room[frame] = trace.rooms[at]!;
    rows.x[frame] = trace.x[at]!;
    rows.y[frame] = trace.y[at]!;
  }
  return rows;
}
