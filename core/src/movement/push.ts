import { DOOR, resolveCell, resolved, solidAt } from "../ground/ground.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { doorIn } from "../compiled/door-in-cell.ts";
import { bodyIn } from "../compiled/body-in-cell.ts";

/**
 * Takes note of the closed doors that the body at `(x, y)` overlaps: what blocked a tested position is pushed
 * (semantics.md section 4.6), also through a seam.
 * @param all also doors that the body's interior was in already at `(fromX, fromY)`
 */
export function pushDoors(
  c: Compiled,
  s: SimState,
  x: number,
  y: number,
  all: boolean,
  fromX: number,
  fromY: number,
): void {
  if (c.fixtures.doorRooms.length === 0) return;
  const { body, tileUnits: t } = c;
  const reach = body.edgesCount ? 1 : 0;
  const extra = body.kind === "box" ? 1 : 0;
  const lastX = Math.floor((x + body.right - extra + reach) / t);
  const lastY = Math.floor((y + body.bottom - extra + reach) / t);
  for (let cy = Math.floor((y + body.top - reach) / t); cy <= lastY; cy++) {
    for (let cx = Math.floor((x + body.left - reach) / t); cx <= lastX; cx++) {
      if (solidAt(s.ground, s.room, cx, cy) < DOOR) continue;
      // Only probes can be beside what their box covers; a box that counts its edges touches all that it reaches.
      if (body.kind === "probes" && !bodyIn(c, x - cx * t, y - cy * t)) continue;
      if (!all && bodyIn(c, fromX - cx * t, fromY - cy * t)) continue;
      if (resolveCell(s.ground, s.room, cx, cy)) s.memory.push(doorIn(c, resolved.room, resolved.cell));
    }
  }
}
