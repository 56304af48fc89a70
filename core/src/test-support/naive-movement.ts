import type { Ground } from "../ground/ground.ts";
import { solidAt } from "../ground/ground.ts";
import type { SolidShape } from "../ground/solid-shape.ts";
import { FULL, NOTHING, boxMeetsShape, probeMeetsShape } from "../ground/solid-shape.ts";

/** A shape of its own, by its cell and what of the cell it is (semantics.md section 3). */
export interface OneShape {
  readonly left: number;
  readonly top: number;
  readonly shape: SolidShape;
}

const boxes = (...edges: number[]): SolidShape => ({ kind: "boxes", edges: Int32Array.from(edges) });

/** Every shape within some cells of a place, one by one. */
export function shapesNear(ground: Ground, room: number, x: number, y: number, cells: number): OneShape[] {
  const t = ground.tileUnits;
  const found: OneShape[] = [];
  const [cx0, cy0] = [Math.floor(x / t), Math.floor(y / t)];
  for (let cy = cy0 - cells; cy <= cy0 + cells; cy++) {
    for (let cx = cx0 - cells; cx <= cx0 + cells; cx++) {
      const solid = solidAt(ground, room, cx, cy);
      if (solid === NOTHING) continue;
      const at = { left: cx * t, top: cy * t };
      const shape = solid === FULL ? boxes(0, 0, t, t) : ground.shapes[solid]!;
      if (shape.kind === "poly") found.push({ ...at, shape });
      else
        for (let i = 0; i < shape.edges.length; i += 4)
          found.push({ ...at, shape: boxes(...shape.edges.subarray(i, i + 4)) });
    }
  }
  return found;
}

/** Whether the body at a place overlaps one shape; `edges` overrides whether lying flush counts. */
export function meets(
  ground: Ground,
  { left, top, shape }: OneShape,
  x: number,
  y: number,
  edges = ground.body.edgesCount,
): boolean {
  const { body, tileUnits } = ground;
  if (body.kind === "box")
    return boxMeetsShape(
      shape,
      x + body.left - left,
      y + body.top - top,
      x + body.right - left,
      y + body.bottom - top,
      edges,
    );
  for (let i = 0; i < body.probes.length; i += 2) {
    const px = x + body.probes[i]! - left;
    const py = y + body.probes[i + 1]! - top;
    if (px >= 0 && py >= 0 && px < tileUnits && py < tileUnits && probeMeetsShape(shape, px, py)) return true;
  }
  return false;
}

/** Whether the body at a place overlaps the box round a shape; a polygon's box counts with all edges for a probe. */
export function meetsBoxOf(ground: Ground, one: OneShape, x: number, y: number): boolean {
  const { shape, left, top } = one;
  if (shape.kind === "boxes") return meets(ground, one, x, y);
  const xs = shape.points.filter((_, i) => i % 2 === 0);
  const ys = shape.points.filter((_, i) => i % 2 === 1);
  const [l, t, r, b] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  const { body } = ground;
  if (body.kind === "box") return meets(ground, { left, top, shape: boxes(l, t, r, b) }, x, y);
  for (let i = 0; i < body.probes.length; i += 2) {
    const px = x + body.probes[i]! - left;
    const py = y + body.probes[i + 1]! - top;
    if (px >= l && px <= r && py >= t && py <= b) return true;
  }
  return false;
}

/** Shapes that count for a movement from a place: those that the body's interior, or a probe, is not in already. */
export function counting(ground: Ground, shapes: readonly OneShape[], x: number, y: number): OneShape[] {
  return shapes.filter((shape) => !meets(ground, shape, x, y, false));
}
