import { isFree } from "../ground/free.ts";
import type { Ground } from "../ground/ground.ts";
import { X, Y, visitShapes } from "../ground/sweep.ts";
import { blockedRanges } from "./shift.ts";

/** How the body lies to what blocks it: free room on each side, or how deep it is in. All in units. */
export interface Gaps {
  /** To the nearest thing on that side; null where there is none within a cell. All null where the body overlaps. */
  readonly left: number | null;
  readonly right: number | null;
  readonly top: number | null;
  readonly bottom: number | null;
  /** The shortest way out along one axis, up to two cells; null where nothing is overlapped. 0 for lying flush where that counts. */
  readonly overlap: number | null;
}

/** The gaps around the body at `(x, y)` of a room (contact marks of interface.md). Slow: for showing. */
export function gapsAround(ground: Ground, room: number, x: number, y: number): Gaps {
  if (!isFree(ground, room, x, y))
    return { left: null, right: null, top: null, bottom: null, overlap: overlapDepth(ground, room, x, y) };
  return {
    left: gapTowards(ground, room, x, y, X, -1),
    right: gapTowards(ground, room, x, y, X, 1),
    top: gapTowards(ground, room, x, y, Y, -1),
    bottom: gapTowards(ground, room, x, y, Y, 1),
    overlap: null,
  };
}

/** Units that the body could go along an axis before anything blocks it; null where a whole cell is free. */
export function gapTowards(
  ground: Ground,
  room: number,
  x: number,
  y: number,
  axis: number,
  sign: number,
): number | null {
  const max = ground.tileUnits;
  gather(ground, room, x, y, axis, max);
  const at = blockedRanges.firstBlocked(sign);
  return at > max ? null : at - 1;
}

/** The shortest way along one axis to a free place, in units: how deep the body is in. */
export function overlapDepth(ground: Ground, room: number, x: number, y: number): number {
  const max = 2 * ground.tileUnits;
  let min = max;
  for (const axis of [X, Y]) {
    gather(ground, room, x, y, axis, max);
    min = Math.min(min, -blockedRanges.firstFree(0, -1), blockedRanges.firstFree(0, 1));
  }
  return ground.body.edgesCount ? Math.max(0, min - 1) : min;
}

function gather(ground: Ground, room: number, x: number, y: number, axis: number, max: number): void {
  blockedRanges.begin();
  visitShapes(ground, room, x, y, axis, -max, max, blockedRanges);
}
