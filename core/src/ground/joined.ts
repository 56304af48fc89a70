import type { Tile } from "../world/world.ts";

/** Neighbours of a cell, as bits of the look that a joining tile gets (formats.md section 1). */
export const JOIN_NORTH = 1;
export const JOIN_EAST = 2;
export const JOIN_SOUTH = 4;
export const JOIN_WEST = 8;

/** For each tile that joins: which tiles it joins with, 1 by their number; null for the others. */
export function joinTables(tiles: readonly Tile[]): readonly (Uint8Array | null)[] {
  return tiles.map(
    ({ joins }, i) =>
      joins &&
      Uint8Array.from(tiles, (other, n) => ((joins.to === "same" ? n === i : other.flags.includes(joins.to)) ? 1 : 0)),
  );
}

/** Which of a cell's neighbours its tile joins with, as bits; what lies outside the room joins nothing. */
export function joinMask(
  table: Uint8Array,
  cells: ArrayLike<number>,
  width: number,
  height: number,
  x: number,
  y: number,
): number {
  const at = y * width + x;
  return (
    (y > 0 && table[cells[at - width]!] ? JOIN_NORTH : 0) |
    (x < width - 1 && table[cells[at + 1]!] ? JOIN_EAST : 0) |
    (y < height - 1 && table[cells[at + width]!] ? JOIN_SOUTH : 0) |
    (x > 0 && table[cells[at - 1]!] ? JOIN_WEST : 0)
  );
}
