import type { Room, World } from "@keen-pebble/core/world";
import { isDrawnInShape } from "./tile-art.ts";

/** Neighbours that are looked at for the ground: those at the sides first. */
const AROUND = [
  [0, -1],
  [-1, 0],
  [1, 0],
  [0, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;

/**
 * What is seen beside a tile that does not fill its cell: for each such tile the tiles that may lie there, those that
 * fill theirs and share no flag with it.
 */
export class GroundBeside {
  /** By tile, 1 for each tile that may be its ground; null where it fills its cell. */
  private readonly may: readonly (Uint8Array | null)[];

  constructor(tiles: World["tiles"]) {
    const whole = tiles.map((tile) => !isDrawnInShape(tile));
    /** Tiles of the same flags have the same ground: what a wall is cut into is many. */
    const byFlags = new Map<string, Uint8Array>();
    this.may = tiles.map((tile, i) => {
      if (whole[i]) return null;
      const key = tile.flags.join();
      const made =
        byFlags.get(key) ??
        Uint8Array.from(tiles, (other, k) =>
          whole[k] && k > 0 && !other.flags.some((flag) => tile.flags.includes(flag)) ? 1 : 0,
        );
      byFlags.set(key, made);
      return made;
    });
  }

  /** The tile to be seen beside the one in a cell, from its neighbours; -1 where it fills its cell or none may be. */
  at({ cells, width, height }: Room, x: number, y: number): number {
    const may = this.may[cells[y * width + x]!];
    if (!may) return -1;
    for (const [dx, dy] of AROUND) {
      const [nx, ny] = [x + dx, y + dy];
      if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
      const tile = cells[ny * width + nx]!;
      if (may[tile] === 1) return tile;
    }
    return -1;
  }
}
