import { pxText } from "../base/units.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";

/** Where the walker is, in px. */
export function positionText(s: SimState): string {
  return `${pxText(s.x)} ${pxText(s.y)}`;
}

/** The cell that the walker occupies. */
export function cellText(c: Compiled, s: SimState): string {
  return `cell ${occupiedX(c.tileUnits, s.x)} ${occupiedY(c.tileUnits, s.y)}`;
}
