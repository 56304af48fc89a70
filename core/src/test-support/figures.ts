import type { Pair } from "../world/world.ts";

/** A point in px, whole or not. */
export type Point = readonly [number, number];

/** How far a point is from the edges of a figure. */
export function distanceToEdges(figure: readonly Pair[], point: Point): number {
  return Math.min(...figure.map((from, i) => distanceToSegment(point, from, figure[(i + 1) % figure.length]!)));
}

function distanceToSegment([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const length = (bx - ax) ** 2 + (by - ay) ** 2;
  const share = length === 0 ? 0 : Math.min(Math.max(((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length, 0), 1);
  return Math.hypot(x - ax - (bx - ax) * share, y - ay - (by - ay) * share);
}

/** How deep two convex figures are in each other at least; less than 0: how far apart they are. */
export function depthOf(one: readonly Point[], other: readonly Point[]): number {
  let depth = Infinity;
  for (const [a, b] of [
    [one, other],
    [other, one],
  ] as const)
    a.forEach(([x, y], i) => {
      const [nextX, nextY] = a[(i + 1) % a.length]!;
      const length = Math.hypot(nextX - x, nextY - y);
      const along = (points: readonly Point[]): number[] =>
        points.map(([px, py]) => ((px - x) * (nextY - y) - (py - y) * (nextX - x)) / length);
      const [mine, theirs] = [along(a), along(b)];
      depth = Math.min(depth, Math.max(...mine) - Math.min(...theirs), Math.max(...theirs) - Math.min(...mine));
    });
  if (depth >= 0) return depth;
  const corners = Math.min(
    ...one.map((point) => distanceToEdges(other as readonly Pair[], point)),
    ...other.map((point) => distanceToEdges(one as readonly Pair[], point)),
  );
  return -corners;
}
