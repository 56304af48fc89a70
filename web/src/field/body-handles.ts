import type { Body, Pair } from "@keen-pebble/core/world";
import type { View } from "./view.ts";

/** A place on the canvas that can be dragged to change the body. */
export interface BodyHandle {
  readonly x: number;
  readonly y: number;
  /** The body once the handle was dragged by so many whole px of the world. */
  readonly drag: (dx: number, dy: number) => Body;
}

/** How near the pointer must be to a handle to take it, in px of the screen. */
const REACH = 6;

/** The handles of a body: a box's four corners, or each probe; `x` and `y` are the walker's place in px. */
export function bodyHandles(body: Body, x: number, y: number, { zoom, left, top }: View): BodyHandle[] {
  const at = (px: number, py: number, drag: BodyHandle["drag"]): BodyHandle => ({
    x: left + (x + px) * zoom,
    y: top + (y + py) * zoom,
    drag,
  });
  if (body.kind === "probes") {
    return body.points.map(([px, py], i) =>
      at(px, py, (dx, dy) => ({
        ...body,
        points: body.points.map((point, j): Pair => (i === j ? [px + dx, py + dy] : point)),
      })),
    );
  }
  const [l, t, w, h] = body.box;
  const box = (left_: number, top_: number, width: number, height: number): Body => ({
    ...body,
    box: [left_, top_, width, height],
  });
  // A corner that is dragged beyond the opposite one leaves a px.
  const along = (from: number, size: number, by: number, first: boolean): readonly [number, number] =>
    first ? [Math.min(from + by, from + size - 1), Math.max(1, size - by)] : [from, Math.max(1, size + by)];
  return [
    [true, true],
    [false, true],
    [true, false],
    [false, false],
  ].map(([isLeft, isTop]) =>
    at(isLeft ? l : l + w, isTop ? t : t + h, (dx, dy) => {
      const [nl, nw] = along(l, w, dx, isLeft!);
      const [nt, nh] = along(t, h, dy, isTop!);
      return box(nl, nt, nw, nh);
    }),
  );
}

/** The handle under a place on the canvas. */
export function handleAt(handles: readonly BodyHandle[], x: number, y: number): BodyHandle | null {
  return handles.find((handle) => Math.abs(handle.x - x) <= REACH && Math.abs(handle.y - y) <= REACH) ?? null;
}
