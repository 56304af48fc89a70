import { LIMITS } from "../../world/limits.ts";
import type { Box, Pair, Shape } from "../../world/world.ts";
import type { CutCell } from "./cut-outline.ts";
import { hullOf } from "./hull.ts";
import { doubleArea } from "./outline.ts";
import { areaInside, boxesOf, isBoxed, isInside } from "./px-cells.ts";

/** A tile's shape for what shall block in a cell, and by how many px at the most it is another figure. */
export interface MadeShape {
  readonly shape: Shape;
  /** 0 where the shape is exactly what was asked for. */
  readonly off: number;
}

const FULL: Shape = { kind: "full" };

/** The shape for what of a wall lies in a cell; a convex wall stays convex, whatever the rounding does. */
export function shapeOfCut({ corners }: Pick<CutCell, "corners">, isConvex: boolean, tileSize: number): MadeShape {
  const hull = hullOf(corners);
  if (isConvex || doubleArea(hull) === doubleArea(corners)) return convexShape(hull, tileSize);
  const filled = pxInside(tileSize, (x, y) => isInside(corners, x, y));
  // Straight edges are exact in boxes, slanted ones become steps.
  return { shape: boxes(filled, tileSize), off: isBoxed(corners) ? 0 : 1 };
}

/** The shape of what either shape blocks. */
export function unionOf(one: Shape, other: Shape, tileSize: number): MadeShape {
  const [a, b] = [figuresOf(one, tileSize), figuresOf(other, tileSize)];
  const hull = hullOf([...a, ...b].flat());
  const shared = areaInside(a, b);
  const area = areaOf(a) + areaOf(b) - shared;
  if (same(shared, areaOf(b))) return { shape: one, off: 0 };
  if (same(shared, areaOf(a))) return { shape: other, off: 0 };
  if (same(doubleArea(hull) / 2, area)) return convexShape(hull, tileSize);
  const all = [...a, ...b];
  const filled = pxInside(tileSize, (x, y) => all.some((figure) => isInside(figure, x, y)));
  return { shape: boxes(filled, tileSize), off: all.every(isBoxed) ? 0 : 1 };
}

/** Areas come from crossings of edges, which are no whole numbers. */
function same(a: number, b: number): boolean {
  return Math.abs(a - b) < 1e-6;
}

const areaOf = (figures: readonly (readonly Pair[])[]): number =>
  figures.reduce((sum, figure) => sum + doubleArea(figure) / 2, 0);

/** Convex figures that make up a shape and do not overlap. */
function figuresOf(shape: Shape, tileSize: number): readonly (readonly Pair[])[] {
  if (shape.kind === "poly") return [shape.points];
  const apart: readonly Box[] =
    shape.kind === "full"
      ? [[0, 0, tileSize, tileSize]]
      : boxesOf(
          pxInside(tileSize, (x, y) =>
            shape.boxes.some(([left, top, w, h]) => x > left && x < left + w && y > top && y < top + h),
          ),
          tileSize,
        );
  return apart.map(([left, top, w, h]): readonly Pair[] => [
    [left, top],
    [left + w, top],
    [left + w, top + h],
    [left, top + h],
  ]);
}

function convexShape(hull: readonly Pair[], tileSize: number): MadeShape {
  if (doubleArea(hull) === 2 * tileSize * tileSize) return { shape: FULL, off: 0 };
  if (hull.length === 4 && isBoxed(hull)) {
    const [left, top] = [Math.min(...hull.map(([x]) => x)), Math.min(...hull.map(([, y]) => y))];
    const [right, bottom] = [Math.max(...hull.map(([x]) => x)), Math.max(...hull.map(([, y]) => y))];
    return { shape: { kind: "boxes", boxes: [[left, top, right - left, bottom - top]] }, off: 0 };
  }
  let points = hull;
  let off = 0;
  // A polygon has so many corners at the most: those go whose loss is least.
  while (points.length > LIMITS.corners[1]) {
    const losses = points.map((_, i) => lossOf(points, i));
    const least = losses.indexOf(Math.min(...losses));
    off = Math.max(off, losses[least]!);
    points = points.filter((_, i) => i !== least);
  }
  return { shape: { kind: "poly", points }, off };
}

/** By how many whole px at the most the figure changes where a corner goes: its distance from the line between its neighbours. */
function lossOf(points: readonly Pair[], at: number): number {
  const [ax, ay] = points[(at + points.length - 1) % points.length]!;
  const [bx, by] = points[(at + 1) % points.length]!;
  const [x, y] = points[at]!;
  const across = (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  const length = (bx - ax) * (bx - ax) + (by - ay) * (by - ay);
  let px = 0;
  while (px * px * length < across * across) px++;
  return px;
}

/** 1 for each px of a cell whose middle is inside. */
function pxInside(tileSize: number, inside: (x: number, y: number) => boolean): Uint8Array {
  const filled = new Uint8Array(tileSize * tileSize);
  for (let y = 0; y < tileSize; y++)
    for (let x = 0; x < tileSize; x++) if (inside(x + 0.5, y + 0.5)) filled[y * tileSize + x] = 1;
  return filled;
}

function boxes(filled: Uint8Array, tileSize: number): Shape {
  if (filled.every((px) => px === 1)) return FULL;
  return { kind: "boxes", boxes: boxesOf(filled, tileSize) };
}
