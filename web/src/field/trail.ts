import type { TraceRows } from "@keen-pebble/core/simulate";
import { trailStep } from "./trail-colour.ts";

/**
 * A run's path as line pieces: neighbouring frames that go the same way, in the same step of colour and without a jump
 * are one piece. Numbers, six a piece: frames of its ends, then x and y of its ends in px (the frame-square's centre).
 */
export interface Trail {
  readonly rows: TraceRows;
  readonly room: number;
  readonly pieces: Float32Array;
  readonly steps: Uint8Array;
}

/**
 * Makes the trail of a run in a room.
 * @param half half a tile, in px
 */
export function makeTrail(rows: TraceRows, room: number, half: number): Trail {
  const pieces: number[] = [];
  const steps: number[] = [];
  const frames = rows.count - 1;
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
    const step = trailStep(frame, frames);
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
  return { rows, room, pieces: Float32Array.from(pieces), steps: Uint8Array.from(steps) };
}

/** Where a trail is drawn. */
export interface TrailPlace {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
}

/**
 * Strokes the way from frame `from` to frame `to`, one path a colour step.
 * @param colour stroke of a step; null keeps the one that is set
 */
export function strokeTrail(
  c: CanvasRenderingContext2D,
  trail: Trail,
  place: TrailPlace,
  from: number,
  to: number,
  colour: ((step: number) => string) | null,
): void {
  const { pieces, steps } = trail;
  for (let i = 0; i < steps.length;) {
    const step = steps[i]!;
    if (colour !== null) c.strokeStyle = colour(step);
    c.beginPath();
    for (; i < steps.length && steps[i] === step; i++) strokePiece(c, pieces, i * 6, place, from, to);
    c.stroke();
  }
}

/** The part of one piece that lies between two frames; along a piece the walker goes evenly. */
function strokePiece(
  c: CanvasRenderingContext2D,
  pieces: Float32Array,
  at: number,
  place: TrailPlace,
  from: number,
  to: number,
): void {
  const first = pieces[at]!;
  const last = pieces[at + 1]!;
  if (last <= from || first >= to) return;
  const begin = Math.max(0, (from - first) / (last - first));
  const end = Math.min(1, (to - first) / (last - first));
  const x = pieces[at + 2]!;
  const y = pieces[at + 3]!;
  const dx = pieces[at + 4]! - x;
  const dy = pieces[at + 5]! - y;
  c.moveTo(place.left + (x + dx * begin) * place.zoom, place.top + (y + dy * begin) * place.zoom);
  c.lineTo(place.left + (x + dx * end) * place.zoom, place.top + (y + dy * end) * place.zoom);
}
