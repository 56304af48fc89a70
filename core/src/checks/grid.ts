import type { SimState } from "../compiled/state.ts";
import { floorModulo } from "../base/units.ts";

/** Whether the walker stands on the grid: both coordinates whole cells (semantics.md section 1). */
export function isOnGrid(tileUnits: number, s: SimState): boolean {
  return floorModulo(s.x, tileUnits) === 0 && floorModulo(s.y, tileUnits) === 0;
}

/** The larger of the two axes' distances to the nearest cell, in units; 0 on the grid (interface.md, off-grid lane). */
export function gridDistance(tileUnits: number, x: number, y: number): number {
  const dx = floorModulo(x, tileUnits);
  const dy = floorModulo(y, tileUnits);
  return Math.max(Math.min(dx, tileUnits - dx), Math.min(dy, tileUnits - dy));
}
