import type { Ground } from "../ground/ground.ts";
import { resolveCell, resolved } from "../ground/ground.ts";
import type { Compiled } from "../compiled/compiled.ts";

/** The tile at a cell as seen from a room, -1 where a wall side stands before it. */
export function tileAt(c: Compiled, ground: Ground, roomNumber: number, cx: number, cy: number): number {
  return resolveCell(ground, roomNumber, cx, cy) ? c.world.rooms[resolved.room]!.cells[resolved.cell]! : -1;
}
