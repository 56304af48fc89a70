import type { TraceRows } from "@keen-pebble/core/simulate";
import { ARRIVE } from "@keen-pebble/core/world";
import { trailScale, trailStep } from "./trail-colour.ts";

/**
 * A run's path as line pieces: neighbouring frames that go the same way, in the same step of colour and without a jump
 * are one piece. Numbers, six a piece: frames of its ends, then x and y of its ends in px (the frame-square's centre).
 */
export interface Trail {
  readonly rows: TraceRows;
  readonly room: number;
  /** Half a tile, in px. */
  readonly half: number;
  /** The frames over which its colours go. */
  readonly scale: number;
  /** Whether frames are still to come, as of a walk that goes on. */
  readonly growing: boolean;
  readonly pieces: Float32Array;
  /** The pieces of each step of colour that has some, in the order of the run. */
  readonly stretches: readonly TrailStretch[];
  /** Each place at which the run arrives, once: its first frame there, then x and y in px (the frame-square's centre). */
  readonly stations: Float32Array;
}

/** Number of no step. */
const NEVER = 255;

/** A run of pieces in one step of colour. */
export interface TrailStretch {
  readonly step: number;
  /** Places of its first piece and of the one after its last. */
  readonly begin: number;
  readonly end: number;
  /** For each way that they go, one or the other way round, the first and the last of them: a long log goes the same ways again and again. */
  readonly firsts: Uint32Array;
  readonly lasts: Uint32Array;
  /** For each way the next step that goes it too, and so covers it; 255 where none does. */
  readonly coveredBy: Uint8Array;
}

/**
 * Makes the trail of a run in a room.
 * @param half half a tile, in px
 * @param growing whether frames are still to come
 */
export function makeTrail(rows: TraceRows, room: number, half: number, growing = false): Trail {
  const pieces: number[] = [];
  const steps: number[] = [];
  const frames = rows.count - 1;
  const scale = trailScale(frames, growing);
  let direction = -1;
  for (let frame = 1; frame <= frames; frame++) {
    if (rows.room[frame] !== room || rows.room[frame - 1] !== room) {
      direction = -1;
      continue;
    }
    const dx = rows.x[frame]! - rows.x[frame - 1]!;
    const dy = rows.y[frame]! - rows.y[frame - 1]!;
    // Further than any step: a crossing, not a way.
    if ((dx === 0 && dy === 0) || Math.abs(dx) + Math.abs(dy) > 256 * half * 10) {
      direction = -1;
      continue;
    }
    const step = trailStep(frame, scale);
    const way = (Math.sign(dx) + 1) * 3 + Math.sign(dy) + 1;
    const straight = dx === 0 || dy === 0;
    const toX = rows.x[frame]! / 256 + half;
    const toY = rows.y[frame]! / 256 + half;
    if (straight && way === direction && steps.at(-1) === step) {
      pieces[pieces.length - 5] = frame;
      pieces[pieces.length - 2] = toX;
      pieces[pieces.length - 1] = toY;
    } else {
      pieces.push(frame - 1, frame, rows.x[frame - 1]! / 256 + half, rows.y[frame - 1]! / 256 + half, toX, toY);
      steps.push(step);
    }
    direction = way;
  }
  const numbers = Float32Array.from(pieces);
  return {
    rows,
    room,
    half,
    scale,
    growing,
    pieces: numbers,
    stretches: stretchesOf(numbers, steps, growing),
    stations: stationsOf(rows, room, half),
  };
}

function stationsOf({ events, room: rooms, x, y }: TraceRows, room: number, half: number): Float32Array {
  const stations: number[] = [];
  const seen = new Set<number>();
  for (let i = 0; i < events.length; i += 3) {
    const frame = events[i]!;
    if (events[i + 1] !== ARRIVE || rooms[frame] !== room) continue;
    const place = x[frame]! * 2 ** 26 + y[frame]!;
    if (seen.has(place)) continue;
    seen.add(place);
    stations.push(frame, x[frame]! / 256 + half, y[frame]! / 256 + half);
  }
  return Float32Array.from(stations);
}

/** A way that pieces of a step go: its first and its last piece there, and the next step that goes it. */
interface Way {
  readonly step: number;
  readonly first: number;
  last: number;
  coveredBy: number;
}

function waysOf(pieces: Float32Array, steps: readonly number[]): Way[] {
  const latest = new Map<string, Way>();
  const all: Way[] = [];
  steps.forEach((step, at) => {
    const key = keyOf(pieces, at * 6);
    const before = latest.get(key);
    if (before?.step === step) {
      before.last = at;
      return;
    }
    if (before !== undefined) before.coveredBy = step;
    const way: Way = { step, first: at, last: at, coveredBy: NEVER };
    latest.set(key, way);
    all.push(way);
  });
  return all;
}

/** @param growing whether it is made anew with each frame: then each piece is a way of its own, which is quicker said */
function stretchesOf(pieces: Float32Array, steps: readonly number[], growing: boolean): TrailStretch[] {
  const stretches: TrailStretch[] = [];
  const all = growing ? [] : waysOf(pieces, steps);
  for (let begin = 0, way = 0; begin < steps.length;) {
    const step = steps[begin]!;
    let end = begin;
    while (end < steps.length && steps[end] === step) end++;
    if (growing) {
      const each = Uint32Array.from({ length: end - begin }, (_, i) => begin + i);
      const coveredBy = new Uint8Array(end - begin).fill(NEVER);
      stretches.push({ step, begin, end, firsts: each, lasts: each, coveredBy });
    } else {
      const ways: Way[] = [];
      for (; all[way]?.step === step; way++) ways.push(all[way]!);
      const [firsts, lasts] = [ways.map(({ first }) => first), ways.map(({ last }) => last)];
      const coveredBy = Uint8Array.from(ways, (each) => each.coveredBy);
      stretches.push({ step, begin, end, firsts: Uint32Array.from(firsts), lasts: Uint32Array.from(lasts), coveredBy });
    }
    begin = end;
  }
  return stretches;
}

/** The ends of a piece, alike for both directions. */
function keyOf(pieces: Float32Array, at: number): string {
  const one = `${pieces[at + 2]!} ${pieces[at + 3]!}`;
  const other = `${pieces[at + 4]!} ${pieces[at + 5]!}`;
  return one < other ? `${one} ${other}` : `${other} ${one}`;
}

/** The frame at which a stretch ends. */
export const lastFrameOf = ({ pieces }: Trail, { end }: TrailStretch): number => pieces[end * 6 - 5]!;

/** Where a trail is drawn. */
export interface TrailPlace {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
}

/**
 * Strokes the way from frame `from` to frame `to`, one path a colour step; of pieces that lie on each other the last.
 * @param colour stroke of a step; null keeps the one that is set
 */
export function strokeTrail(
  c: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  trail: Trail,
  place: TrailPlace,
  from: number,
  to: number,
  colour: ((step: number) => string) | null,
): void {
  const { pieces } = trail;
  /** The last step that is drawn to its end. */
  let whole = -1;
  for (const stretch of trail.stretches) if (lastFrameOf(trail, stretch) <= to) whole = stretch.step;
  for (const stretch of trail.stretches) {
    const first = pieces[stretch.begin * 6]!;
    const last = lastFrameOf(trail, stretch);
    if (last <= from || first >= to) continue;
    c.beginPath();
    let some = false;
    const piece = (at: number): void => {
      some = strokePiece(c, pieces, at * 6, place, from, to) || some;
    };
    if (from > first && last > to) for (let at = stretch.begin; at < stretch.end; at++) piece(at);
    else {
      // A way that is gone after `from` is gone for the last time after it, and before `to` for the first time.
      const ends = from > first ? stretch.lasts : stretch.firsts;
      for (let i = 0; i < ends.length; i++) if (stretch.coveredBy[i]! > whole) piece(ends[i]!);
    }
    if (!some) continue;
    if (colour !== null) c.strokeStyle = colour(stretch.step);
    c.stroke();
  }
}

/** The part of one piece that lies between two frames, if one does; along a piece the walker goes evenly. */
function strokePiece(
  c: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  pieces: Float32Array,
  at: number,
  place: TrailPlace,
  from: number,
  to: number,
): boolean {
  const first = pieces[at]!;
  const last = pieces[at + 1]!;
  if (last <= from || first >= to) return false;
  const begin = Math.max(0, (from - first) / (last - first));
  const end = Math.min(1, (to - first) / (last - first));
  const x = pieces[at + 2]!;
  const y = pieces[at + 3]!;
  const dx = pieces[at + 4]! - x;
  const dy = pieces[at + 5]! - y;
  c.moveTo(place.left + (x + dx * begin) * place.zoom, place.top + (y + dy * begin) * place.zoom);
  c.lineTo(place.left + (x + dx * end) * place.zoom, place.top + (y + dy * end) * place.zoom);
  return true;
}
