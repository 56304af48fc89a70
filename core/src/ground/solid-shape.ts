import type { Shape } from "../world/world.ts";
import { UNITS_PER_PX } from "../base/units.ts";

/** Number of "nothing solid here" in a compiled room. */
export const NOTHING = 0;
/** Number of "the whole cell is solid" in a compiled room; shapes of boxes and polygons follow from 2. */
export const FULL = 1;

/** A tile's solid part inside its cell, in units from the cell's top-left corner. */
export type SolidShape =
  | { readonly kind: "boxes"; /** left, top, right, bottom, four a box */ readonly edges: Int32Array }
  | { readonly kind: "poly"; /** x, y of each corner, clockwise */ readonly points: Int32Array };

/** The solid part of a shape that is not full. */
export function solidShape(shape: Exclude<Shape, { kind: "full" }>): SolidShape {
  if (shape.kind === "poly")
    return { kind: "poly", points: Int32Array.from(shape.points.flat(), (v) => v * UNITS_PER_PX) };
  const edges = shape.boxes.flatMap(([left, top, width, height]) => [left, top, left + width, top + height]);
  return { kind: "boxes", edges: Int32Array.from(edges, (v) => v * UNITS_PER_PX) };
}

/**
 * Whether a box body overlaps the shape (semantics.md section 3). All in units from the cell's top-left corner.
 * @param edgesCount `flush: "blocks"`: shapes that only touch overlap too, corner to corner included
 */
export function boxMeetsShape(
  shape: SolidShape,
  left: number,
  top: number,
  right: number,
  bottom: number,
  edgesCount: boolean,
): boolean {
  return shape.kind === "boxes"
    ? boxMeetsBoxes(shape.edges, left, top, right, bottom, edgesCount)
    : boxMeetsPolygon(shape.points, left, top, right, bottom, edgesCount);
}

function boxMeetsBoxes(
  edges: Int32Array,
  left: number,
  top: number,
  right: number,
  bottom: number,
  edgesCount: boolean,
): boolean {
  for (let i = 0; i < edges.length; i += 4) {
    const l = edges[i]!;
    const t = edges[i + 1]!;
    const r = edges[i + 2]!;
    const b = edges[i + 3]!;
    if (
      edgesCount ? left <= r && right >= l && top <= b && bottom >= t : left < r && right > l && top < b && bottom > t
    )
      return true;
  }
  return false;
}

// Two convex figures are apart exactly when the normal of one of their edges parts them. All whole numbers: a normal
// has at most 16 bits, a coordinate at most 19, so products and their sums are exact.
function boxMeetsPolygon(
  points: Int32Array,
  left: number,
  top: number,
  right: number,
  bottom: number,
  edgesCount: boolean,
): boolean {
  const n = points.length;
  let minX = points[0]!;
  let maxX = minX;
  let minY = points[1]!;
  let maxY = minY;
  for (let i = 2; i < n; i += 2) {
    const x = points[i]!;
    const y = points[i + 1]!;
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  if (
    edgesCount
      ? left > maxX || right < minX || top > maxY || bottom < minY
      : left >= maxX || right <= minX || top >= maxY || bottom <= minY
  ) {
    return false;
  }
  for (let i = 0; i < n; i += 2) {
    const ax = points[i]!;
    const ay = points[i + 1]!;
    const j = i + 2 === n ? 0 : i + 2;
    // Clockwise on a screen whose y grows downward: the outside of the edge lies along (dy, -dx).
    const nx = points[j + 1]! - ay;
    const ny = ax - points[j]!;
    // The corner of the box that lies deepest against the normal decides.
    const depth = nx * ((nx > 0 ? left : right) - ax) + ny * ((ny > 0 ? top : bottom) - ay);
    if (edgesCount ? depth > 0 : depth >= 0) return false;
  }
  return true;
}

/**
 * Whether a probe at that place overlaps the shape (semantics.md section 3): inside `left <= p < left + width`
 * for boxes, inside or on the edge for a polygon. Units from the cell's top-left corner.
 */
export function probeMeetsShape(shape: SolidShape, x: number, y: number): boolean {
  if (shape.kind === "boxes") {
    const edges = shape.edges;
    for (let i = 0; i < edges.length; i += 4) {
      if (x >= edges[i]! && x < edges[i + 2]! && y >= edges[i + 1]! && y < edges[i + 3]!) return true;
    }
    return false;
  }
  const points = shape.points;
  for (let i = 0; i < points.length; i += 2) {
    const j = i + 2 === points.length ? 0 : i + 2;
    const nx = points[j + 1]! - points[i + 1]!;
    const ny = points[i]! - points[j]!;
    if (nx * (x - points[i]!) + ny * (y - points[i + 1]!) > 0) return false;
  }
  return true;
}
