import type { Room, SideName, World } from "@keen-pebble/core/world";
import { SIDES } from "@keen-pebble/core/world";

/** Where the plan lies on the canvas: px of the screen a cell, and where its cell 0, 0 is. */
export interface PlanView {
  readonly cell: number;
  readonly left: number;
  readonly top: number;
}

const MARGIN = 36;

/** Shows all rooms of a world. */
export function fitPlan({ rooms }: World, width: number, height: number): PlanView {
  const left = Math.min(...rooms.map((room) => room.plan[0]));
  const top = Math.min(...rooms.map((room) => room.plan[1]));
  const across = Math.max(...rooms.map((room) => room.plan[0] + room.width)) - left;
  const down = Math.max(...rooms.map((room) => room.plan[1] + room.height)) - top;
  const fitting = Math.min((width - 2 * MARGIN) / across, (height - 2 * MARGIN - 16) / down, 32);
  const cell = fitting >= 4 ? Math.floor(fitting) : Math.max(1, fitting);
  return {
    cell,
    left: Math.round((width - across * cell) / 2 - left * cell),
    top: Math.round((height - down * cell) / 2 - top * cell) + 8,
  };
}

/** Larger or smaller around a place on the canvas. */
export function zoomPlan(view: PlanView, direction: 1 | -1, x: number, y: number): PlanView {
  const cell = Math.min(48, Math.max(2, direction > 0 ? Math.ceil(view.cell * 1.25) : Math.floor(view.cell / 1.25)));
  return { cell, left: x - ((x - view.left) / view.cell) * cell, top: y - ((y - view.top) / view.cell) * cell };
}

/** A room's corner on the canvas. */
export const cornerOf = (view: PlanView, room: Room): { readonly x: number; readonly y: number } => ({
  x: view.left + room.plan[0] * view.cell,
  y: view.top + room.plan[1] * view.cell,
});

/** What of the plan is at a place on the canvas: a room, and its side where the place is near one. */
export interface PlanSpot {
  readonly room: Room;
  readonly side: SideName | null;
  /** Row or column along that side, or the cell. */
  readonly at: number;
  readonly cx: number;
  readonly cy: number;
}

/** So many px around a side count as that side. */
const REACH = 7;

export function spotAt({ rooms }: World, view: PlanView, x: number, y: number): PlanSpot | null {
  for (const room of [...rooms].reverse()) {
    const corner = cornerOf(view, room);
    const [dx, dy] = [x - corner.x, y - corner.y];
    const [across, down] = [room.width * view.cell, room.height * view.cell];
    if (dx < -REACH || dy < -REACH || dx > across + REACH || dy > down + REACH) continue;
    const cx = clamp(Math.floor(dx / view.cell), room.width);
    const cy = clamp(Math.floor(dy / view.cell), room.height);
    const near: Readonly<Record<SideName, number>> = {
      north: Math.abs(dy),
      south: Math.abs(down - dy),
      west: Math.abs(dx),
      east: Math.abs(across - dx),
    };
    const side = SIDES.filter((each) => near[each] <= REACH).sort((a, b) => near[a] - near[b])[0] ?? null;
    return { room, side, at: side === "north" || side === "south" ? cx : cy, cx, cy };
  }
  return null;
}

const clamp = (n: number, max: number): number => Math.min(Math.max(n, 0), max - 1);

/** The middle of a place along a side, on the canvas. */
export function sidePoint(
  view: PlanView,
  room: Room,
  side: SideName,
  at: number,
): { readonly x: number; readonly y: number } {
  const { x, y } = cornerOf(view, room);
  const along = (at + 0.5) * view.cell;
  if (side === "north") return { x: x + along, y };
  if (side === "south") return { x: x + along, y: y + room.height * view.cell };
  return side === "west" ? { x, y: y + along } : { x: x + room.width * view.cell, y: y + along };
}

/** A step straight out of a side. */
export const OUT: Readonly<Record<SideName, readonly [number, number]>> = {
  north: [0, -1],
  south: [0, 1],
  west: [-1, 0],
  east: [1, 0],
};
