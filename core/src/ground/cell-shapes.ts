import type { Ground } from "./ground.ts";
import { DOOR, solidAt } from "./ground.ts";
import type { SolidShape } from "./solid-shape.ts";
import { FULL, NOTHING, boxMeetsShape, probeMeetsShape } from "./solid-shape.ts";

/** One solid shape where it stands, as seen from a room; edges of its bounding box in units. For showing, not for stepping. */
export interface PlacedShape {
  readonly cx: number;
  readonly cy: number;
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly poly: boolean;
  /** The same in units from the cell's corner. */
  readonly shape: SolidShape;
}

/** Every solid shape of one cell, as seen from a room (semantics.md section 3: each is a shape of its own). */
export function shapesOfCell(ground: Ground, room: number, cx: number, cy: number): PlacedShape[] {
  const t = ground.tileUnits;
  const place = (edges: readonly [number, number, number, number], shape: SolidShape): PlacedShape => {
    const [l, top, r, b] = edges;
    return {
      cx,
      cy,
      left: cx * t + l,
      top: cy * t + top,
      right: cx * t + r,
      bottom: cy * t + b,
      poly: shape.kind === "poly",
      shape,
    };
  };
  const number = solidAt(ground, room, cx, cy);
  const whole = (): PlacedShape => place([0, 0, t, t], { kind: "boxes", edges: Int32Array.of(0, 0, t, t) });
  if (number >= DOOR) return [whole(), ...shapesOf(number - DOOR, place, whole, ground)];
  return shapesOf(number, place, whole, ground);
}

function shapesOf(
  solid: number,
  place: (edges: readonly [number, number, number, number], shape: SolidShape) => PlacedShape,
  whole: () => PlacedShape,
  ground: Ground,
): PlacedShape[] {
  if (solid === NOTHING) return [];
  if (solid === FULL) return [whole()];
  const shape = ground.shapes[solid]!;
  if (shape.kind === "poly") {
    const xs = shape.points.filter((_, i) => i % 2 === 0);
    const ys = shape.points.filter((_, i) => i % 2 === 1);
    return [place([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)], shape)];
  }
  const boxes: PlacedShape[] = [];
  for (let i = 0; i < shape.edges.length; i += 4) {
    const edges = shape.edges.slice(i, i + 4);
    boxes.push(place([edges[0]!, edges[1]!, edges[2]!, edges[3]!], { kind: "boxes", edges }));
  }
  return boxes;
}

/** Whether the body at `(x, y)` (units) overlaps that shape. */
export function bodyMeets(ground: Ground, x: number, y: number, placed: PlacedShape): boolean {
  const { body, tileUnits } = ground;
  const left = x - placed.cx * tileUnits;
  const top = y - placed.cy * tileUnits;
  if (body.kind === "box")
    return boxMeetsShape(
      placed.shape,
      left + body.left,
      top + body.top,
      left + body.right,
      top + body.bottom,
      body.edgesCount,
    );
  for (let i = 0; i < body.probes.length; i += 2) {
    const px = left + body.probes[i]!;
    const py = top + body.probes[i + 1]!;
    // A probe looks only at the cell that contains it.
    if (px >= 0 && py >= 0 && px < tileUnits && py < tileUnits && probeMeetsShape(placed.shape, px, py)) return true;
  }
  return false;
}
