import { isCutTile } from "@keen-pebble/core/edit";
import type { Look, Pattern, Shape, Tile, World } from "@keen-pebble/core/world";
import { scatter, shade } from "./shades.ts";

/** Patterns are drawn on a raster of 16 by 16 and scaled without smoothing. */
const ART_SIZE = 16;

/** Each tile is drawn in this many variants, so that floors do not look ruled. */
export const VARIANTS = 8;

type Context = OffscreenCanvasRenderingContext2D;
type Paint = (c: Context, fill: string, seed: number) => void;

function rect(c: Context, colour: string, x: number, y: number, width: number, height: number): void {
  c.fillStyle = colour;
  c.fillRect(x, y, width, height);
}

function specks(c: Context, colour: string, seed: number, count: number, longest: number): void {
  const random = scatter(seed);
  for (let i = 0; i < count; i++) rect(c, colour, 1 + random(13), 1 + random(14), 1 + random(longest), 1);
}

const flagstone: Paint = (c, fill, seed) => {
  const joint = shade(fill, -0.2);
  const light = shade(fill, 0.13);
  rect(c, fill, 0, 0, 16, 16);
  if (seed % 3 !== 0) {
    rect(c, joint, 0, 15, 16, 1);
    rect(c, joint, 15, 0, 1, 16);
    rect(c, light, 0, 0, 15, 1);
    rect(c, light, 0, 0, 1, 15);
  } else {
    rect(c, joint, 0, 7, 16, 1);
    rect(c, joint, 9, 0, 1, 7);
    rect(c, joint, 4, 8, 1, 8);
    rect(c, joint, 0, 15, 16, 1);
    rect(c, joint, 15, 0, 1, 16);
    rect(c, light, 0, 0, 9, 1);
    rect(c, light, 10, 0, 5, 1);
    rect(c, light, 0, 8, 4, 1);
    rect(c, light, 5, 8, 10, 1);
  }
  specks(c, shade(fill, -0.07), seed * 7 + 5, 5, 2);
};

const PAINT: Readonly<Record<Pattern, Paint>> = {
  flagstone,
  crust: (c, fill, seed) => {
    flagstone(c, fill, seed);
    specks(c, shade(fill, 0.42), seed * 13 + 3, 7, 3);
    specks(c, shade(fill, 0.75), seed * 31 + 9, 9, 3);
  },
  moss: (c, fill, seed) => {
    flagstone(c, fill, seed);
    specks(c, "#66835f", seed * 17 + 2, 12, 3);
    specks(c, "#7f9a6c", seed * 19 + 4, 6, 2);
  },
  coping: (c, fill, seed) => {
    rect(c, fill, 0, 0, 16, 16);
    specks(c, shade(fill, -0.08), seed * 11 + 1, 6, 3);
    specks(c, shade(fill, 0.4), seed * 23 + 6, 3, 2);
  },
  rubble: (c, fill, seed) => {
    rect(c, fill, 0, 0, 16, 16);
    specks(c, shade(fill, -0.09), seed * 37 + 7, 5, 4);
    specks(c, shade(fill, 0.1), seed * 41 + 8, 5, 4);
  },
  brick: (c, fill, seed) => {
    rect(c, shade(fill, -0.32), 0, 0, 16, 16);
    for (let row = 0; row < 4; row++) {
      for (let i = -1; i < 3; i++) {
        const from = Math.max(0, i * 8 + (row % 2) * 4);
        const to = Math.min(16, i * 8 + (row % 2) * 4 + 7);
        if (to <= from) continue;
        rect(c, (i + row + seed) % 3 !== 0 ? fill : shade(fill, -0.1), from, row * 4, to - from, 3);
        rect(c, shade(fill, 0.16), from, row * 4, to - from, 1);
      }
    }
    rect(c, shade(fill, 0.55), 0, 0, 16, 1);
    c.globalAlpha = 0.16;
    rect(c, "#141416", 0, 12, 16, 4);
    c.globalAlpha = 1;
  },
  deep: (c, fill, seed) => {
    const random = scatter(seed * 71 + 1);
    rect(c, fill, 0, 0, 16, 16);
    for (let i = 0; i < 4; i++) rect(c, shade(fill, 0.1), random(10), 2 + i * 4, 4 + random(4), 1);
    rect(c, shade(fill, 0.42), 2 + random(8), 3 + random(9), 4, 1);
  },
  shallow: (c, fill, seed) => {
    const random = scatter(seed * 13 + 3);
    rect(c, fill, 0, 0, 16, 16);
    for (let i = 0; i < 4; i++) rect(c, shade(fill, 0.1), random(9), 1 + i * 4, 6, 1);
    rect(c, shade(fill, 0.45), 3 + random(6), 4 + random(8), 5, 1);
  },
  grating: (c, fill) => {
    rect(c, shade(fill, -0.5), 0, 0, 16, 16);
    for (let i = 0; i < 4; i++) {
      rect(c, shade(fill, 0.28), 0, i * 4, 16, 1);
      rect(c, fill, 0, i * 4 + 1, 16, 1);
    }
    for (let i = 0; i < 4; i++) {
      rect(c, shade(fill, 0.28), i * 4, 0, 1, 16);
      rect(c, fill, i * 4 + 1, 0, 1, 16);
    }
  },
  planks: (c, fill, seed) => {
    rect(c, fill, 0, 0, 16, 16);
    for (let i = 0; i < 4; i++) {
      rect(c, shade(fill, 0.16), 0, i * 4, 16, 1);
      rect(c, shade(fill, -0.18), 0, i * 4 + 3, 16, 1);
      rect(c, shade(fill, -0.18), (i + seed) % 2 === 0 ? 5 : 11, i * 4, 1, 4);
    }
  },
};

function paintFill(c: Context, look: Extract<Look, { fill: string }>, seed: number): void {
  if (look.pattern) PAINT[look.pattern](c, look.fill, seed);
  else rect(c, look.fill, 0, 0, ART_SIZE, ART_SIZE);
}

/** Lets through only what lies in a shape; `unit`: px of the picture for one px of the cell. */
function clipTo(c: Context, shape: Shape, unit: number): void {
  c.beginPath();
  if (shape.kind === "boxes") for (const [x, y, w, h] of shape.boxes) c.rect(x * unit, y * unit, w * unit, h * unit);
  else if (shape.kind === "poly")
    shape.points.forEach(([x, y], i) => (i === 0 ? c.moveTo(x * unit, y * unit) : c.lineTo(x * unit, y * unit)));
  c.clip();
}

/** A place of a sheet whose picture is not here: checks say that one belongs there. */
function paintMissing(c: Context, size: number): void {
  rect(c, "#8f8672", 0, 0, size, size);
  rect(c, "#a79d87", 0, 0, size / 2, size / 2);
  rect(c, "#a79d87", size / 2, size / 2, size / 2, size / 2);
}

/** Pictures of image sheets by their ids. */
export type SheetImages = ReadonlyMap<string, ImageBitmap>;

/** What pictures of tiles are made from. */
export type ArtSource = Pick<World, "tiles" | "tileSize" | "sheets">;

/** Pictures of a world's tiles, drawn once each. */
export class TileArt {
  /** Px of a picture's side: that of the sheets' tiles, so that they stay crisp at every zoom. */
  readonly size: number;
  private readonly pictures = new Map<string, OffscreenCanvas>();

  constructor(
    private readonly source: ArtSource,
    private readonly images: SheetImages,
  ) {
    this.size = Math.max(ART_SIZE, ...source.sheets.map((sheet) => sheet.tile));
  }

  /**
   * The picture of a tile.
   * @param seed picks the variant
   * @param mask which neighbours it joins with, or -1 where it does not
   * @param ground the tile that is seen beside its shape, or -1: the shade of its own colour
   */
  picture(tile: number, seed: number, mask = -1, ground = -1): OffscreenCanvas {
    const variant = seed % VARIANTS;
    const key = `${tile}/${variant}/${mask}/${ground}`;
    const made = this.pictures.get(key);
    if (made) return made;
    const canvas = new OffscreenCanvas(this.size, this.size);
    const drawn = this.source.tiles[tile];
    if (drawn) {
      const c = canvas.getContext("2d")!;
      const look = mask >= 0 && drawn.joins ? drawn.joins.looks[mask]! : drawn.look;
      if (isDrawnInShape(drawn)) {
        if (ground >= 0) c.drawImage(this.picture(ground, seed), 0, 0);
        else if ("fill" in look) rect(c, shade(look.fill, -0.45), 0, 0, this.size, this.size);
        clipTo(c, drawn.shape, this.size / this.source.tileSize);
      }
      this.paint(c, look, variant);
    }
    this.pictures.set(key, canvas);
    return canvas;
  }

  private paint(c: Context, look: Look, seed: number): void {
    c.imageSmoothingEnabled = false;
    if ("fill" in look) {
      c.scale(this.size / ART_SIZE, this.size / ART_SIZE);
      paintFill(c, look, seed);
      return;
    }
    const sheet = this.source.sheets.find((each) => each.id === look.sheet);
    const image = this.images.get(look.sheet);
    if (!sheet || !image) {
      paintMissing(c, this.size);
      return;
    }
    const at = (n: number): number => sheet.margin + n * (sheet.tile + sheet.spacing);
    c.drawImage(image, at(look.at[0]), at(look.at[1]), sheet.tile, sheet.tile, 0, 0, this.size, this.size);
  }
}

/**
 * Whether a tile is drawn only where its shape is, with the ground seen beside it: colours and patterns know nothing of
 * the shape, and of what a wall was cut into only that part is the wall's. Other images are of the whole cell.
 */
export function isDrawnInShape(tile: Tile): boolean {
  return tile.shape.kind !== "full" && ("fill" in tile.look || isCutTile(tile));
}

/** Which variant a cell shows: the same cell always looks the same. */
export function variantSeed(cx: number, cy: number): number {
  return (Math.imul(cx, 73) + Math.imul(cy, 149)) & 0x7fff;
}
