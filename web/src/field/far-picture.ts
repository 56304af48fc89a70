import type { Room, joinTables } from "@keen-pebble/core/world";
import { joinMask } from "@keen-pebble/core/world";
import type { TileArt } from "./tile-art.ts";

/** Pixels along a side of a cell: enough for a slope to be seen as one. */
const SIDE = 2;
/** Cells on the screen of at most so many px are drawn from afar. */
export const FAR_PX = 4;

/**
 * A room from so far away that a cell is a few px: a small raster of each tile's colours, made in one go. A bucket over a
 * quarter of a million cells is drawn in some ms.
 */
export class FarPicture {
  readonly canvas: OffscreenCanvas;
  private readonly pixels: ImageData;
  /** What was looked at last, and what each cell shows. */
  private cells: Room["cells"] | null = null;
  private readonly shown: Int32Array;
  /** By what a cell shows, its colours. */
  private readonly colours = new Map<number, Uint32Array>();

  constructor(
    readonly width: number,
    readonly height: number,
    private readonly art: TileArt,
    private readonly joins: ReturnType<typeof joinTables>,
  ) {
    this.canvas = new OffscreenCanvas(width * SIDE, height * SIDE);
    this.pixels = new ImageData(width * SIDE, height * SIDE);
    this.shown = new Int32Array(width * height).fill(-1);
  }

  /** Takes over what became of the cells; they are never changed in place. */
  follow({ cells, width, height }: Room): void {
    if (cells === this.cells) return;
    this.cells = cells;
    const raster = new Uint32Array(this.pixels.data.buffer);
    const across = width * SIDE;
    for (let y = 0, cell = 0; y < height; y++) {
      for (let x = 0; x < width; x++, cell++) {
        const tile = cells[cell]!;
        const table = this.joins[tile] ?? null;
        const mask = table === null ? -1 : joinMask(table, cells, width, height, x, y);
        const shows = tile * 32 + mask + 1;
        if (this.shown[cell] === shows) continue;
        this.shown[cell] = shows;
        const colours = this.coloursOf(tile, mask, shows);
        const at = y * SIDE * across + x * SIDE;
        for (let i = 0; i < SIDE * SIDE; i++) raster[at + Math.floor(i / SIDE) * across + (i % SIDE)] = colours[i]!;
      }
    }
    this.canvas.getContext("2d")!.putImageData(this.pixels, 0, 0);
  }

  private coloursOf(tile: number, mask: number, shows: number): Uint32Array {
    const known = this.colours.get(shows);
    if (known !== undefined) return known;
    const c = new OffscreenCanvas(SIDE, SIDE).getContext("2d", { willReadFrequently: true })!;
    c.imageSmoothingQuality = "high";
    c.drawImage(this.art.picture(tile, 0, mask), 0, 0, SIDE, SIDE);
    const made = new Uint32Array(c.getImageData(0, 0, SIDE, SIDE).data.buffer);
    this.colours.set(shows, made);
    return made;
  }
}
