import type { Box, Pair } from "../../world/world.ts";
import { doubleArea } from "./outline.ts";

/** Boxes that a tile's shape has at the most. */
const MOST_BOXES = 64;

/** Whether all edges of a figure are straight up and down or sideways. */
export function isBoxed(figure: readonly Pair[]): boolean {
  return figure.every(([x, y], i) => {
    const [nextX, nextY] = figure[(i + 1) % figure.length]!;
    return x === nextX || y === nextY;
  });
}

/** Whether a point that is on no edge is inside a figure. */
export function isInside(figure: readonly Pair[], x: number, y: number): boolean {
  let inside = false;
  figure.forEach(([ax, ay], i) => {
    const [bx, by] = figure[(i + 1) % figure.length]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/**
 * Boxes that cover exactly the filled px of a cell, none over another. More than a shape may have are made with rows
 * of more px, filled where their first px is.
 * @param filled 1 for each filled px, row by row
 */
export function boxesOf(filled: Uint8Array, tileSize: number): readonly Box[] {
  for (let step = 1; ; step *= 2) {
    const found = inSteps(filled, tileSize, step);
    if (found.length <= MOST_BOXES || step >= tileSize) return found;
  }
}

function inSteps(filled: Uint8Array, tileSize: number, step: number): readonly Box[] {
  const done: Box[] = [];
  /** Boxes that reach down to the row before, by where they begin and how wide they are. */
  let open = new Map<string, Box>();
  for (let y = 0; y < tileSize; y += step) {
    const high = Math.min(step, tileSize - y);
    const now = new Map<string, Box>();
    for (const [left, wide] of runsOf(filled.subarray(y * tileSize, (y + 1) * tileSize))) {
      const key = `${left} ${wide}`;
      const above = open.get(key);
      now.set(key, above === undefined ? [left, y, wide, high] : [left, above[1], wide, above[3] + high]);
      open.delete(key);
    }
    done.push(...open.values());
    open = now;
  }
  return [...done, ...open.values()];
}

/** Where filled px begin in a row, and how many there are together. */
function runsOf(row: Uint8Array): readonly Pair[] {
  const runs: Pair[] = [];
  for (let x = 0; x < row.length; x++) {
    if (row[x] !== 1) continue;
    let end = x;
    while (row[end] === 1) end++;
    runs.push([x, end - x]);
    x = end;
  }
  return runs;
}

/** The area, in px x px, that convex figures of one list share with those of the other. */
export function areaInside(some: readonly (readonly Pair[])[], others: readonly (readonly Pair[])[]): number {
  let area = 0;
  for (const one of some) for (const other of others) area += doubleArea(clipped(one, other)) / 2;
  return area;
}

/** What of a convex figure lies in another one, both clockwise on the screen. */
function clipped(figure: readonly Pair[], within: readonly Pair[]): readonly Pair[] {
  let left = figure;
  within.forEach((a, i) => {
    const b = within[(i + 1) % within.length]!;
    const side = ([x, y]: Pair): number => (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]);
    left = left.flatMap((point, k): Pair[] => {
      const next = left[(k + 1) % left.length]!;
      const [here, there] = [side(point), side(next)];
      const kept = here >= 0 ? [point] : [];
      if (here * there >= 0) return kept;
      const share = here / (here - there);
      return [...kept, [point[0] + (next[0] - point[0]) * share, point[1] + (next[1] - point[1]) * share]];
    });
  });
  return left;
}
