import { WALL, WEST, EAST, NORTH, SOUTH, edgeRuleAt } from "../ground/compiled-room.ts";
import type { Compiled } from "./compiled.ts";

/** The tile at a cell as seen from a room, -1 where a wall side stands before it. */
export function tileAt(c: Compiled, roomNumber: number, cellX: number, cellY: number): number {
  const room = c.rooms[roomNumber]!;
  let cx = cellX;
  let cy = cellY;
  if (cx < 0 || cx >= room.width) {
    if (edgeRuleAt(room, cx < 0 ? WEST : EAST, cy) === WALL) return -1;
    cx += cx < 0 ? room.width : -room.width;
  }
  if (cy < 0 || cy >= room.height) {
    if (edgeRuleAt(room, cy < 0 ? NORTH : SOUTH, cx) === WALL) return -1;
    cy += cy < 0 ? room.height : -room.height;
  }
  return c.world.rooms[roomNumber]!.cells[cy * room.width + cx] ?? -1;
}
