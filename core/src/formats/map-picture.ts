import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { NumberGrid } from "./number-grid.ts";
import type { Pixels } from "./room-pixels.ts";

/** A picture of a whole map, cut into cells. */
export interface CutMap {
  /** Cells by their kind, from 1 on in reading order; 0 is a cell that is transparent all over. */
  readonly grid: NumberGrid;
  /** The kinds side by side, `ACROSS` in a row: place N - 1 is kind N. */
  readonly sheet: Pixels;
  readonly across: number;
  readonly down: number;
  /** Px at the right and below that are no whole cell. */
  readonly over: readonly [number, number];
}

/** Places of a cut map's sheet in a row. */
const ACROSS = 16;

/**
 * Cuts a picture of a whole map into cells (formats.md section 8): equal cells are one kind, mirrored ones are others.
 * @param tileSize px of a cell's side
 * @throws {RefusedError} where it is smaller than a cell, larger than a room, or has more kinds than a world has tiles
 */
export function cutMapPicture(pixels: Pixels, tileSize: number, name = "the picture"): CutMap {
  const refuse = (message: string): never => {
    throw new RefusedError(name, [{ place: "", line: null, column: null, message }]);
  };
  const [width, height] = [Math.floor(pixels.width / tileSize), Math.floor(pixels.height / tileSize)];
  const max = LIMITS.roomSide[1];
  if (width < 1 || height < 1 || width > max || height > max)
    refuse(`has ${width} x ${height} cells of ${tileSize} px; a room has 1 x 1 to ${max} x ${max}`);
  const kinds = new Kinds(tileSize);
  const values: number[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const kind = kinds.of(pixels, x * tileSize, y * tileSize);
      if (kind >= LIMITS.tiles)
        refuse(`has more than ${LIMITS.tiles - 1} kinds of cells of ${tileSize} px; is that the size of a cell?`);
      values.push(kind);
    }
  const readAs = `${width} x ${height} cells of ${kinds.count} kinds`;
  const across = Math.min(ACROSS, Math.max(1, kinds.count));
  const down = Math.max(1, Math.ceil(kinds.count / across));
  return {
    grid: { width, height, values, readAs, characters: false },
    sheet: kinds.sheet(across, down),
    across,
    down,
    over: [pixels.width - width * tileSize, pixels.height - height * tileSize],
  };
}

/** The cells that were met, each kept once. */
class Kinds {
  /** Kinds by a hash of their pixels. */
  private readonly byHash = new Map<number, number[]>();
  private readonly cells: Uint32Array[] = [];

  constructor(private readonly side: number) {}

  get count(): number {
    return this.cells.length;
  }

  /** The number of the kind of the cell at that place in px; 0 where it is transparent all over. */
  of(pixels: Pixels, left: number, top: number): number {
    const cell = this.cellAt(pixels, left, top);
    if (cell.every((pixel) => pixel === 0)) return 0;
    let hash = 0x811c9dc5;
    for (const pixel of cell) hash = Math.imul(hash ^ pixel, 0x01000193);
    const alike = this.byHash.get(hash) ?? [];
    const known = alike.find((kind) => this.cells[kind - 1]!.every((pixel, i) => pixel === cell[i]));
    if (known !== undefined) return known;
    const kind = this.cells.push(cell);
    this.byHash.set(hash, [...alike, kind]);
    return kind;
  }

  /** The cell's pixels as numbers; a transparent one has no colour. */
  private cellAt({ width, rgba }: Pixels, left: number, top: number): Uint32Array {
    const { side } = this;
    const cell = new Uint32Array(side * side);
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const at = ((top + y) * width + left + x) * 4;
        if (rgba[at + 3] === 0) continue;
        cell[y * side + x] = ((rgba[at]! << 24) | (rgba[at + 1]! << 16) | (rgba[at + 2]! << 8) | rgba[at + 3]!) >>> 0;
      }
    return cell;
  }

  sheet(across: number, down: number): Pixels {
    const { side } = this;
    const [width, height] = [across * side, down * side];
    const rgba = new Uint8Array(width * height * 4);
    this.cells.forEach((cell, kind) => {
      const [left, top] = [(kind % across) * side, Math.floor(kind / across) * side];
      cell.forEach((pixel, i) => {
        const at = ((top + Math.floor(i / side)) * width + left + (i % side)) * 4;
        rgba.set([pixel >>> 24, (pixel >>> 16) & 255, (pixel >>> 8) & 255, pixel & 255], at);
      });
    });
    return { width, height, rgba };
  }
}
