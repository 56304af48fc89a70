import { wholeRoot } from "../base/root.ts";
import { DIRECTIONS, DOWN, LEFT, RIGHT, UP } from "../world/keys.ts";
import type { TraceRows } from "../simulation/trace.ts";

/** How a walk feels, measured in the walk itself; null where it shows nothing of it. Units and frames. */
export interface WalkFeel {
  /** The longest way of a frame with one direction held: left, right, up, down. */
  readonly straight: readonly (number | null)[];
  /** The same with two directions held that are not opposite, along the way. */
  readonly diagonal: number | null;
  /** From a press while standing to the first motion, the shortest. */
  readonly framesToMove: number | null;
  /** From letting go while moving to standing, the longest. */
  readonly framesToStop: number | null;
}

/** Where a walker is in each frame; what a walk's feel is measured from. */
export type Places = Pick<TraceRows, "count" | "room" | "x" | "y">;

/**
 * Measures a walk by what was pressed in it.
 * @param keys by frame: those of our own run, also where a game's walk is measured
 */
export function walkFeel({ count, room, x, y }: Places, keys: Uint8Array): WalkFeel {
  const straight: (number | null)[] = [null, null, null, null];
  let diagonal: number | null = null;
  let framesToMove: number | null = null;
  let framesToStop: number | null = null;
  let pressed: number | null = null;
  let released: number | null = null;
  let movedBefore = false;
  const most = (one: number | null, other: number): number => Math.max(one ?? 0, other);
  for (let frame = 1; frame < Math.min(count, keys.length); frame++) {
    const held = keys[frame]! & DIRECTIONS;
    const before = keys[frame - 1]! & DIRECTIONS;
    if (held !== 0 && before === 0 && !movedBefore) pressed = frame;
    if (held === 0 && before !== 0 && movedBefore) released = frame;
    const [dx, dy] = room[frame] === room[frame - 1] ? [x[frame]! - x[frame - 1]!, y[frame]! - y[frame - 1]!] : [0, 0];
    const moves = dx !== 0 || dy !== 0;
    if (moves && pressed !== null) framesToMove = Math.min(framesToMove ?? Infinity, frame - pressed + 1);
    if (moves || held === 0) pressed = null;
    if (!moves && released !== null) framesToStop = most(framesToStop, frame - released);
    if (!moves || held !== 0) released = null;
    movedBefore = moves;
    const way = [LEFT, RIGHT, UP, DOWN].indexOf(held);
    if (way >= 0) straight[way] = most(straight[way]!, Math.abs(way < 2 ? dx : dy));
    else if (isDiagonal(held)) diagonal = most(diagonal, wholeRoot(dx * dx + dy * dy));
  }
  return { straight, diagonal, framesToMove, framesToStop };
}

function isDiagonal(held: number): boolean {
  const horizontal = held & (LEFT | RIGHT);
  const vertical = held & (UP | DOWN);
  return [LEFT, RIGHT].includes(horizontal) && [UP, DOWN].includes(vertical);
}
