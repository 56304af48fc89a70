import type { Ground } from "./ground.ts";
import { isFree } from "./free.ts";
import { solidAt } from "./ground.ts";
import { NOTHING } from "./solid-shape.ts";

/**
 * Where the body does not fit although the ground is free: for each cell of a room 1 where nothing is solid in it, but
 * a walker that stands on it overlaps something beside it.
 */
export function clearance(ground: Ground, roomNumber: number): Uint8Array {
  const { width, height } = ground.rooms[roomNumber]!;
  const t = ground.tileUnits;
  const cells = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (solidAt(ground, roomNumber, x, y) === NOTHING && !isFree(ground, roomNumber, x * t, y * t))
        cells[y * width + x] = 1;
    }
  }
  return cells;
}
