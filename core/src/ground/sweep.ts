import type { Ground } from "./ground.ts";
import { DOOR, solidAt } from "./ground.ts";
import { FULL, NOTHING } from "./solid-shape.ts";

/** Axes of movement. */
export const X = 0;
export const Y = 1;

/**
 * Looks at every shape that a body comes near when it is moved along one axis. For each it gives the displacements, a
 * whole range of them since bodies and shapes are convex, at which they overlap: exact at any speed, without stepping.
 * Ranges are left in `lo` and `hi`; nothing is allocated.
 */
export abstract class ShapeVisitor {
  /** Displacements, in units along the axis, at which the body (or one of its probes) overlaps the shape. */
  lo = 0;
  hi = 0;
  /** The body's interior, or a probe, is in the shape already. */
  inside = false;
  /** The shape is a polygon. */
  poly = false;
  /** The cell that it stands in, as seen from the room. */
  cx = 0;
  cy = 0;
  /** Range at which the shape's bounding box is overlapped. */
  boxLo = 0;
  boxHi = 0;

  /** Asked for each shape and, for a body of probes, each probe. */
  abstract visit(): void;

  /** Asked once a shape is done with. */
  shapeDone(): void {
    // Most have nothing to do.
  }
}

/**
 * Visits all shapes that the body at `(x, y)` may overlap when it is displaced by `from` to `to` units along an axis.
 * @param from smallest displacement, 0 or less; `to` the largest, 0 or more
 */
export function visitShapes(
  ground: Ground,
  room: number,
  x: number,
  y: number,
  axis: number,
  from: number,
  to: number,
  visitor: ShapeVisitor,
): void {
  const { body, tileUnits } = ground;
  const reach = body.edgesCount ? 1 : 0;
  const isBox = body.kind === "box";
  const extra = isBox ? 0 : 1;
  const firstX = Math.floor((x + body.left - reach + (axis === X ? from : 0)) / tileUnits);
  const lastX = Math.floor((x + body.right - 1 + reach + extra + (axis === X ? to : 0)) / tileUnits);
  const firstY = Math.floor((y + body.top - reach + (axis === Y ? from : 0)) / tileUnits);
  const lastY = Math.floor((y + body.bottom - 1 + reach + extra + (axis === Y ? to : 0)) / tileUnits);
  for (let cy = firstY; cy <= lastY; cy++) {
    for (let cx = firstX; cx <= lastX; cx++) {
      let solid = solidAt(ground, room, cx, cy);
      if (solid === NOTHING) continue;
      visitor.cx = cx;
      visitor.cy = cy;
      const left = x - cx * tileUnits;
      const top = y - cy * tileUnits;
      if (solid >= DOOR) {
        // A closed door is a shape of its own, and so is the tile under it.
        rectangle(ground, left, top, axis, 0, 0, tileUnits, tileUnits, visitor);
        solid -= DOOR;
        if (solid === NOTHING) continue;
      }
      if (solid === FULL) {
        rectangle(ground, left, top, axis, 0, 0, tileUnits, tileUnits, visitor);
        continue;
      }
      const shape = ground.shapes[solid]!;
      if (shape.kind === "poly") polygon(ground, left, top, axis, shape.points, visitor);
      else {
        const { edges } = shape;
        for (let i = 0; i < edges.length; i += 4)
          rectangle(ground, left, top, axis, edges[i]!, edges[i + 1]!, edges[i + 2]!, edges[i + 3]!, visitor);
      }
    }
  }
}

/** A box of the cell; `left` and `top` are the walker's place from the cell's corner. */
function rectangle(
  ground: Ground,
  left: number,
  top: number,
  axis: number,
  l: number,
  t: number,
  r: number,
  b: number,
  v: ShapeVisitor,
): void {
  const { body } = ground;
  v.poly = false;
  if (body.kind === "box") {
    const touch = body.edgesCount ? 1 : 0;
    if (axis === X) along(left + body.left, left + body.right, top + body.top, top + body.bottom, l, r, t, b, touch, v);
    else along(top + body.top, top + body.bottom, left + body.left, left + body.right, t, b, l, r, touch, v);
    v.boxLo = v.lo;
    v.boxHi = v.hi;
    if (v.lo <= v.hi) v.visit();
  } else {
    const { probes } = body;
    for (let i = 0; i < probes.length; i += 2) {
      const px = left + probes[i]!;
      const py = top + probes[i + 1]!;
      // Left and upper edge belong to it, right and lower edge do not.
      if (axis === X ? py < t || py >= b : px < l || px >= r) continue;
      v.lo = axis === X ? l - px : t - py;
      v.hi = axis === X ? r - 1 - px : b - 1 - py;
      v.inside = v.lo <= 0 && v.hi >= 0;
      v.boxLo = v.lo;
      v.boxHi = v.hi;
      v.visit();
    }
  }
  v.shapeDone();
}

/** Range of displacements at which two boxes overlap, `a` along the axis and `p` across it; an empty one where they never do. */
function along(
  a0: number,
  a1: number,
  p0: number,
  p1: number,
  s0: number,
  s1: number,
  q0: number,
  q1: number,
  touch: number,
  v: ShapeVisitor,
): void {
  if (touch ? p0 > q1 || p1 < q0 : p0 >= q1 || p1 <= q0) {
    v.lo = 1;
    v.hi = 0;
    return;
  }
  v.lo = s0 - a1 + 1 - touch;
  v.hi = s1 - a0 - 1 + touch;
  v.inside = s0 - a1 < 0 && s1 - a0 > 0 && p0 < q1 && p1 > q0;
}

/** A convex polygon of the cell, its corners clockwise. */
function polygon(ground: Ground, left: number, top: number, axis: number, points: Int32Array, v: ShapeVisitor): void {
  const { body, tileUnits } = ground;
  v.poly = true;
  let minX = points[0]!;
  let maxX = minX;
  let minY = points[1]!;
  let maxY = minY;
  for (let i = 2; i < points.length; i += 2) {
    if (points[i]! < minX) minX = points[i]!;
    if (points[i]! > maxX) maxX = points[i]!;
    if (points[i + 1]! < minY) minY = points[i + 1]!;
    if (points[i + 1]! > maxY) maxY = points[i + 1]!;
  }
  if (body.kind === "box") {
    const touch = body.edgesCount ? 1 : 0;
    const l = left + body.left;
    const r = left + body.right;
    const t = top + body.top;
    const b = top + body.bottom;
    if (axis === X) along(l, r, t, b, minX, maxX, minY, maxY, touch, v);
    else along(t, b, l, r, minY, maxY, minX, maxX, touch, v);
    v.boxLo = v.lo;
    v.boxHi = v.hi;
    cut(points, axis, l, t, r, b, touch, v);
    if (v.lo <= v.hi) v.visit();
  } else {
    const { probes } = body;
    for (let i = 0; i < probes.length; i += 2) {
      const px = left + probes[i]!;
      const py = top + probes[i + 1]!;
      // Its box counts with all four edges, also for a probe that lies in the next cell.
      const beside = axis === X ? py < minY || py > maxY : px < minX || px > maxX;
      v.boxLo = beside ? 1 : axis === X ? minX - px : minY - py;
      v.boxHi = beside ? 0 : axis === X ? maxX - px : maxY - py;
      v.lo = v.boxLo;
      v.hi = v.boxHi;
      v.inside = true;
      cut(points, axis, px, py, px, py, 1, v);
      // A probe looks only at the cell that contains it.
      const across = axis === X ? py : px;
      if (across < 0 || across >= tileUnits) v.hi = v.lo - 1;
      const at = axis === X ? px : py;
      if (v.lo < -at) v.lo = -at;
      if (v.hi > tileUnits - 1 - at) v.hi = tileUnits - 1 - at;
      v.inside = v.lo <= 0 && v.hi >= 0;
      v.visit();
    }
  }
  v.shapeDone();
}

/** Cuts the range down to where no edge of the polygon parts it from the box; whole numbers all along. */
function cut(
  points: Int32Array,
  axis: number,
  l: number,
  t: number,
  r: number,
  b: number,
  touch: number,
  v: ShapeVisitor,
): void {
  const n = points.length;
  for (let i = 0; i < n; i += 2) {
    const j = i + 2 === n ? 0 : i + 2;
    const nx = points[j + 1]! - points[i + 1]!;
    const ny = points[i]! - points[j]!;
    // How far the box's deepest corner is outside this edge, and how that changes with each unit along the axis.
    const depth = nx * ((nx > 0 ? l : r) - points[i]!) + ny * ((ny > 0 ? t : b) - points[i + 1]!);
    const change = axis === X ? nx : ny;
    if (depth >= 0) v.inside = false;
    if (change === 0) {
      if (touch ? depth > 0 : depth >= 0) v.hi = v.lo - 1;
    } else if (change > 0) {
      const max = touch ? Math.floor(-depth / change) : Math.ceil(-depth / change) - 1;
      if (max < v.hi) v.hi = max;
    } else {
      const min = touch ? Math.ceil(depth / -change) : Math.floor(depth / -change) + 1;
      if (min > v.lo) v.lo = min;
    }
  }
}
