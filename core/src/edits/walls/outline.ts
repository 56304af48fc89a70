import type { Pair } from "../../world/world.ts";

/**
 * The outline of a wall: corners in whole px of the room, in turn, either way round. It is straight, turned or
 * many-cornered, and does not cross itself (formats.md section 8, walls off the cells).
 */
export type Outline = readonly Pair[];

/** Corners that an outline has at the most. */
export const MOST_CORNERS = 64;

/** The straight rectangle with these two corners. */
export function straightWall([ax, ay]: Pair, [bx, by]: Pair): Outline {
  const [left, right] = [Math.min(ax, bx), Math.max(ax, bx)];
  const [top, bottom] = [Math.min(ay, by), Math.max(ay, by)];
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
}

/** Twice the area inside, in px x px; above 0 where the corners go clockwise on the screen. */
export function doubleArea(outline: Outline): number {
  let area = 0;
  outline.forEach(([x, y], i) => {
    const [nextX, nextY] = outline[(i + 1) % outline.length]!;
    area += x * nextY - nextX * y;
  });
  return area;
}

/** Which way the walk `a`, `b`, `c` turns: 1 clockwise on the screen, -1 the other way, 0 straight on. */
export function turn(a: Pair, b: Pair, c: Pair): number {
  return Math.sign((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]));
}

/** Why corners are no outline of a wall, or null. */
export function outlineFault(outline: Outline): string | null {
  if (outline.length < 3) return `a wall has at least 3 corners, this one ${outline.length}`;
  if (outline.length > MOST_CORNERS) return `a wall has at most ${MOST_CORNERS} corners, this one ${outline.length}`;
  const n = outline.length;
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) {
      const next = j === i + 1 || (i === 0 && j === n - 1);
      const [a, b, c, d] = [outline[i]!, outline[(i + 1) % n]!, outline[j]!, outline[(j + 1) % n]!];
      if (next ? foldsBack(a, b, c, d) : meet(a, b, c, d))
        return `its edge from ${a.join(",")} meets the one from ${c.join(",")}: a wall does not cross or touch itself`;
    }
  return doubleArea(outline) === 0 ? "it has no area" : null;
}

/** Whether two edges that follow each other go back over the same px. */
function foldsBack(a: Pair, b: Pair, c: Pair, d: Pair): boolean {
  const [before, corner, after] = b[0] === c[0] && b[1] === c[1] ? [a, b, d] : [c, d, b];
  if (turn(before, corner, after) !== 0) return false;
  return (corner[0] - before[0]) * (after[0] - corner[0]) + (corner[1] - before[1]) * (after[1] - corner[1]) <= 0;
}

/** Whether two edges have a point in common. */
function meet(a: Pair, b: Pair, c: Pair, d: Pair): boolean {
  const sides = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)] as const;
  if (sides[0] * sides[1] < 0 && sides[2] * sides[3] < 0) return true;
  return (
    (sides[0] === 0 && isBetween(a, c, b)) ||
    (sides[1] === 0 && isBetween(a, d, b)) ||
    (sides[2] === 0 && isBetween(c, a, d)) ||
    (sides[3] === 0 && isBetween(c, b, d))
  );
}

function isBetween(a: Pair, at: Pair, b: Pair): boolean {
  return [0, 1].every((axis) => Math.min(a[axis]!, b[axis]!) <= at[axis]! && at[axis]! <= Math.max(a[axis]!, b[axis]!));
}
