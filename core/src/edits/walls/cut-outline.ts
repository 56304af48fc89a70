import type { Pair } from "../../world/world.ts";
import type { Outline } from "./outline.ts";
import { doubleArea, turn } from "./outline.ts";

/** What of a wall lies in one cell: corners in whole px of the cell, clockwise on the screen. */
export interface CutCell {
  readonly x: number;
  readonly y: number;
  readonly corners: readonly Pair[];
}

/** A wall cut along the cells. */
export interface CutWall {
  readonly cells: readonly CutCell[];
  /** By how many px at the most an edge is off where it passes from cell to cell: there it goes through whole px. */
  readonly rounding: number;
  readonly isConvex: boolean;
}

/**
 * Cuts a wall along the cells of a room (formats.md section 8). Where an edge passes from one cell to the next it goes
 * through a whole px of the line between them, the same one for both.
 * @param tileSize px of a cell's side
 * @param size cells of the room across and down; what lies outside is left out
 */
export function cutOutline(outline: Outline, tileSize: number, [width, height]: Pair): CutWall {
  // A negative zero is no number of a file.
  const given = outline.map(([x, y]): Pair => [x + 0, y + 0]);
  const clockwise = doubleArea(given) < 0 ? given.reverse() : given;
  const { corners, rounding } = withCrossings(clockwise, tileSize);
  const isConvex = clockwise.every(
    (each, i) => turn(each, clockwise[(i + 1) % clockwise.length]!, clockwise[(i + 2) % clockwise.length]!) >= 0,
  );
  const cells: CutCell[] = [];
  const [top, bottom] = cellsAlong(corners, 1, tileSize, height);
  for (let y = top; y <= bottom; y++) {
    // First the row of cells, then each cell of it: the row has few corners.
    const row = between(corners, 1, y * tileSize, (y + 1) * tileSize);
    const [left, right] = cellsAlong(row, 0, tileSize, width);
    for (let x = left; x <= right; x++) {
      const cut = between(row, 0, x * tileSize, (x + 1) * tileSize).map(([cornerX, cornerY]): Pair => [
        cornerX - x * tileSize,
        cornerY - y * tileSize,
      ]);
      if (doubleArea(cut) > 0) cells.push({ x, y, corners: withoutSpikes(cut) });
    }
  }
  return { cells, rounding, isConvex };
}

/** A figure without corners at which it goes straight on or back: the cuts leave such ones along the cell's sides. */
function withoutSpikes(corners: readonly Pair[]): readonly Pair[] {
  let left = corners;
  for (;;) {
    const at = left.findIndex((corner, i) => turn(left.at(i - 1)!, corner, left[(i + 1) % left.length]!) === 0);
    if (at < 0) return left;
    left = left.filter((_, i) => i !== at);
  }
}

/** The first and the last cell that corners lie in, along an axis, as far as the room goes. */
function cellsAlong(corners: readonly Pair[], axis: 0 | 1, tileSize: number, cells: number): Pair {
  let [min, max] = [Infinity, -Infinity];
  for (const corner of corners) {
    min = Math.min(min, corner[axis]);
    max = Math.max(max, corner[axis]);
  }
  return [Math.max(Math.floor(min / tileSize), 0), Math.min(Math.ceil(max / tileSize), cells) - 1];
}

/** The corners with those at which an edge passes from cell to cell, in whole px: no edge crosses a line any more. */
function withCrossings(outline: Outline, tileSize: number): { readonly corners: Pair[]; readonly rounding: number } {
  const corners: Pair[] = [];
  let rounding = 0;
  const add = (corner: Pair): void => {
    const last = corners.at(-1);
    if (last?.[0] !== corner[0] || last[1] !== corner[1]) corners.push(corner);
  };
  outline.forEach((from, i) => {
    const to = outline[(i + 1) % outline.length]!;
    add(from);
    for (const { at, off } of crossings(from, to, tileSize)) {
      add(at);
      rounding = Math.max(rounding, off);
    }
  });
  return { corners, rounding };
}

interface Crossing {
  readonly at: Pair;
  /** How far along the edge, 0 to 1. */
  readonly along: number;
  readonly off: number;
}

function crossings(from: Pair, to: Pair, tileSize: number): readonly Crossing[] {
  const found: Crossing[] = [];
  // Always from the same end, so that edges of two walls that lie on each other go through the same px.
  const [a, b] = from[0] < to[0] || (from[0] === to[0] && from[1] < to[1]) ? [from, to] : [to, from];
  for (const axis of [0, 1] as const) {
    const [low, high] = [Math.min(a[axis], b[axis]), Math.max(a[axis], b[axis])];
    const other = axis === 0 ? 1 : 0;
    for (let line = (Math.floor(low / tileSize) + 1) * tileSize; line < high; line += tileSize) {
      const share = (line - a[axis]) / (b[axis] - a[axis]);
      const exact = a[other] + (b[other] - a[other]) * share;
      const whole = Math.round(exact) + 0;
      found.push({
        at: axis === 0 ? [line, whole] : [whole, line],
        along: a === from ? share : 1 - share,
        off: Math.abs(whole - exact),
      });
    }
  }
  return found.sort((one, two) => one.along - two.along);
}

/** What of a figure lies between two lines across an axis; both go through whole px, and so do the edges there. */
function between(corners: readonly Pair[], axis: 0 | 1, low: number, high: number): Pair[] {
  return beyond(beyond(corners, axis, low, 1), axis, high, -1);
}

function beyond(corners: readonly Pair[], axis: 0 | 1, line: number, side: 1 | -1): Pair[] {
  const kept: Pair[] = [];
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % corners.length]!;
    const [here, there] = [side * (corner[axis] - line), side * (next[axis] - line)];
    if (here >= 0) kept.push(corner);
    // Such an edge was made by an earlier cut and runs along its line: the other coordinate is that of both ends.
    if (here * there < 0) kept.push(axis === 0 ? [line, corner[1]] : [corner[0], line]);
  });
  return kept;
}
